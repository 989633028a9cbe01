// What was planned, drawn from layers.svg by the browser: the practice bench looks at files alone.
import type { PlannedLayer } from "@plain-palette/core/practice";

/** The longer side of pictures, px, and at most so many to the millimetre. */
const LONGEST = 1200;
const MOST_PER_MM = 8;

export interface Plan {
  readonly layers: readonly (PlannedLayer & { readonly name: string; readonly colour: string })[];
  readonly widthMm: number;
  readonly heightMm: number;
}

/** Each group of layers.svg as a picture of what it covers; its place in the file is its place in the press order. */
export function readPlan(layersSvg: string): Plan {
  const svg = new DOMParser().parseFromString(layersSvg, "image/svg+xml").documentElement;
  const [, , width = 0, height = 0] = (svg.getAttribute("viewBox") ?? "").split(" ").map(Number);
  const [widthMm, heightMm] = ["width", "height"].map((name) => Number.parseFloat(svg.getAttribute(name) ?? "0"));
  if (!widthMm || !heightMm) throw new Error("layers.svg has no size.");
  const perMm = Math.min(MOST_PER_MM, LONGEST / Math.max(widthMm, heightMm));
  const layers = [...svg.querySelectorAll("g[data-id]")].map((group, i) => {
    const [columns, rows] = [Math.ceil(widthMm * perMm), Math.ceil(heightMm * perMm)];
    const context = new OffscreenCanvas(columns, rows).getContext("2d", { willReadFrequently: true });
    if (!context) throw new Error("this browser draws no pictures.");
    context.scale((widthMm * perMm) / width, (heightMm * perMm) / height);
    for (const path of group.querySelectorAll("path"))
      context.fill(new Path2D(path.getAttribute("d") ?? ""), "evenodd");
    const { data } = context.getImageData(0, 0, columns, rows);
    const covered = new Uint8Array(columns * rows);
    for (let p = 0; p < covered.length; p++) covered[p] = (data[p * 4 + 3] ?? 0) >= 128 ? 1 : 0;
    return {
      order: i + 1,
      id: group.getAttribute("data-id") ?? "",
      name: group.getAttribute("data-spot") ?? "",
      colour: group.getAttribute("data-hex") ?? "#808080",
      mask: { width: columns, height: rows, perMm, data: covered },
    };
  });
  return { layers, widthMm, heightMm };
}
