// applique.svg: the outlines that cloth is cut along, at true size, where it lies in the design.
import type { SewnArea, StitchPlan } from "./plan.ts";

const DIGITS = 2;

/** Null where nothing is an applique. */
export function writeAppliqueSvg(plan: StitchPlan, areas: readonly SewnArea[]): string | null {
  const cloth = areas.filter(({ numbers }) => numbers.as === "applique");
  if (cloth.length === 0) return null;
  const [width, height] = [plan.widthMm, plan.heightMm].map((mm) => Number(mm.toFixed(3)));
  const paths = cloth.map(({ spotId, rings }) => {
    const d = rings.map((ring) => `M${Array.from(ring, (mm) => Number(mm.toFixed(DIGITS))).join(" ")}Z`).join("");
    return `<path data-id="${spotId}" d="${d}"/>`;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="0 0 ${width} ${height}" fill="none" stroke="#ff00ff" stroke-width="0.1">${paths.join("")}</svg>\n`;
}
