// One sheet of 36 icons at growing sizes: what tracing costs against plain contours, and how it grows.
import type { Raster } from "@plain-palette/core/raster";
import { makeRecipe } from "@plain-palette/core/recipe";
import { assignSpots, findColours, reduceColours } from "@plain-palette/core/reduce";
import { countShapes, tracePicture } from "@plain-palette/core/trace";
import { Resvg } from "@resvg/resvg-js";
import { contours } from "d3-contour";
import sharp from "sharp";
import { noteRatio } from "./history.ts";
import type { Icon } from "./icons.ts";
import { middle, RUNS } from "./timing.ts";

const ACROSS = 6;
const COLOURS = 12;
const SIDES = [1024, 2048, 4896];
/** The size at which plain contours are made for comparison. */
const CONTOUR_SIDE = 2048;

/** The first 36 icons on one white sheet. */
export function sheetSvg(icons: readonly Icon[]): string {
  const cells = icons.slice(0, ACROSS * ACROSS).map(({ svg }, i) => {
    const size = Number(svg.match(/viewBox="[\d.]+ [\d.]+ ([\d.]+)/)?.[1]);
    const at = `${(i % ACROSS) * 100} ${Math.floor(i / ACROSS) * 100}`;
    return `<g transform="translate(${at}) scale(${100 / size})">${svg.replace(/^<svg[^>]*>|<\/svg>$/g, "")}</g>`;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 600 600"><rect width="600" height="600" fill="#fff"/>${cells.join("")}</svg>`;
}

/** Decodes, reduces and traces one sheet, with the time of each. */
async function traceSheet(png: Buffer) {
  global.gc?.();
  const started = performance.now();
  const { data, info } = await sharp(png).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  const raster: Raster = {
    width: info.width,
    height: info.height,
    data: new Uint8ClampedArray(data.buffer, data.byteOffset, data.length),
  };
  const recipe = makeRecipe({ colours: { count: COLOURS } });
  const findings = findColours(raster);
  const reduction = reduceColours(findings, recipe.colours);
  const assignment = assignSpots(findings, reduction, []);
  const reduced = performance.now();
  const map = tracePicture(findings, reduction, assignment, recipe.shapes);
  const traceMs = performance.now() - reduced;
  return { reduceMs: reduced - started, traceMs, labels: assignment.spotOfPixel.data, ...countShapes(map) };
}

/** Prints times at every size, and their ratios. */
export async function measureSheet(icons: readonly Icon[]): Promise<void> {
  const svg = sheetSvg(icons);
  const table: Record<string, Record<string, string | number>> = {};
  const traceMs = new Map<number, number>();
  let contourMs = 0;
  let atContourSide = 0;
  for (const side of SIDES) {
    const png = new Resvg(svg, { fitTo: { mode: "width", value: side } }).render().asPng();
    // Once unmeasured: the first run pays for compiling.
    if (side === SIDES[0]) await traceSheet(png);
    const runs = [];
    for (let run = 0; run < RUNS; run++) runs.push(await traceSheet(png));
    const reduceMs = middle(runs.map((run) => run.reduceMs));
    traceMs.set(side, middle(runs.map((run) => run.traceMs)));
    table[`${side} px`] = {
      "decode + reduce, ms": Math.round(reduceMs),
      "trace, ms": Math.round(traceMs.get(side) ?? 0),
      shapes: runs[0].shapes,
      nodes: runs[0].nodes,
      "resident, MB": Math.round(process.memoryUsage().rss / 1048576),
    };
    if (side !== CONTOUR_SIDE) continue;
    atContourSide = reduceMs + (traceMs.get(side) ?? 0);
    const before = performance.now();
    for (let label = 0; label < COLOURS; label++)
      contours().size([side, side]).thresholds([0.5])(Array.from(runs[0].labels, (value) => (value === label ? 1 : 0)));
    contourMs = performance.now() - before;
  }
  console.table(table);
  noteRatio(`sheet of ${CONTOUR_SIDE} px : contours`, atContourSide / contourMs);
  const grown = (traceMs.get(4896) ?? 0) / (traceMs.get(CONTOUR_SIDE) ?? 1);
  console.log(
    `decode + reduce + trace at ${CONTOUR_SIDE} px: ${(atContourSide / contourMs).toFixed(2)} x of d3-contour's plain contours of the same ${COLOURS} masks (${Math.round(contourMs)} ms)`,
  );
  console.log(`trace at 4896 px: ${grown.toFixed(2)} x of ${CONTOUR_SIDE} px`);
}
