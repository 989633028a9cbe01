// One edit by hand on a sheet of icons against tracing the sheet again: only what an edit touches is made again.
import { applyEdit, type Edit, figurePaths, handEdges, moveNodes } from "@plain-palette/core/edit";
import type { Raster } from "@plain-palette/core/raster";
import { makeRecipe } from "@plain-palette/core/recipe";
import { assignSpots, findColours, reduceColours } from "@plain-palette/core/reduce";
import { type Drawing, tracePicture } from "@plain-palette/core/trace";
import { Resvg } from "@resvg/resvg-js";
import { noteRatio } from "./history.ts";
import type { Icon } from "./icons.ts";
import { sheetSvg } from "./sheet.ts";
import { middle, RUNS } from "./timing.ts";

const SIDE = 2048;
const COLOURS = 12;
/** Edits of each kind, at places all over the sheet. */
const EDITS = 12;

/** Prints the time of one edit, middle of many, as a share of tracing. */
export function measureEdits(icons: readonly Icon[]): void {
  const image = new Resvg(sheetSvg(icons), { fitTo: { mode: "width", value: SIDE } }).render();
  const raster: Raster = { width: image.width, height: image.height, data: new Uint8ClampedArray(image.pixels) };
  const recipe = makeRecipe({ colours: { count: COLOURS } });
  const findings = findColours(raster);
  const reduction = reduceColours(findings, recipe.colours);
  const assignment = assignSpots(findings, reduction, []);
  const traces = Array.from({ length: RUNS }, () =>
    clock(() => tracePicture(findings, reduction, assignment, recipe.shapes)),
  );
  const traceMs = middle(traces.map(({ ms }) => ms));
  const { value: drawing } = traces[0] ?? clock(() => tracePicture(findings, reduction, assignment, recipe.shapes));
  const table = Object.fromEntries(
    Object.entries(editsOn(drawing)).map(([name, edits]) => {
      const ms = middle(edits.map((edit) => clock(() => applyEdit(drawing, edit)).ms));
      noteRatio(`${name} : tracing the sheet`, ms / traceMs);
      return [name, { "ms, middle": ms.toFixed(1), "of tracing": (ms / traceMs).toFixed(3) }];
    }),
  );
  console.log(
    `\nOne edit on a sheet of ${SIDE} px (${drawing.edges.length} boundaries), tracing it ${traceMs.toFixed(0)} ms`,
  );
  console.table(table);
}

function clock<T>(work: () => T): { readonly ms: number; readonly value: T } {
  const started = performance.now();
  const value = work();
  return { ms: performance.now() - started, value };
}

function editsOn(drawing: Drawing): Readonly<Record<string, readonly Edit[]>> {
  const edges = handEdges(drawing);
  const rings = edges.flatMap(({ start }, e) => (start < 0 ? [e] : []));
  const all = Array.from({ length: EDITS }, (_, k) => k);
  const places = all.map((k) => ({ x: 100 + ((k * 733) % 1850), y: 100 + ((k * 1181) % 1850) }));
  const spotId = drawing.faces[0]?.spotId ?? "";
  return {
    "a node moved": all.map((k) => ({
      kind: "line",
      changes: moveNodes(edges, [{ edge: rings[Math.floor((k * rings.length) / EDITS)] ?? 0, node: 0 }], () => [
        0.4, 0.3,
      ]),
    })),
    "a circle drawn": places.map((at) => ({
      ...{ kind: "lay", spotId, isHeld: false, onlyOn: null },
      paths: figurePaths({ kind: "ellipse", at, width: 90, height: 90, angleDeg: 0 }),
    })),
    "a shape moved": all.map((k) => {
      const face = drawing.faces[Math.floor((k * drawing.faces.length) / EDITS)];
      const [x = 0, y = 0] = face?.paths[0] ?? [];
      const picks = [{ at: { x, y }, spotId: face?.spotId ?? "" }];
      return { kind: "pieces", picks, stays: "away", placed: [{ dx: 9, dy: 5, matrix: [1, 0, 0, 1] }], over: [] };
    }),
  };
}
