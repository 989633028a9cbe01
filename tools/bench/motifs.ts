// Placing motifs: each demo design kept and laid into the ferry's, against the same by a general polygon library on flattened
// outlines; and whether its areas are what they were.
import { applyEdit } from "@plain-palette/core/edit";
import { type CubicPath, flattenPath } from "@plain-palette/core/geometry";
import { countSegments, keepMotif, layMotif, type Motif, motifAreas } from "@plain-palette/core/motif";
import { makeRecipe, mmPerPixel, runPipeline } from "@plain-palette/core/recipe";
import { type Drawing, faceArea } from "@plain-palette/core/trace";
import { decodeArtwork } from "@plain-palette/server/intake";
import { booleanOp, ClipType, FillRule, type Paths64 } from "clipper2-ts";
import { DEMO_JOBS } from "../demo/jobs.ts";
import { middle } from "./timing.ts";

/** Places of each, at as many turns. */
const PLACES = 12;
/** How wide a motif is, as a share of the picture. */
const SHARE = 0.3;
/** Steps of the library's grid in a pixel, and how closely curves are flattened for it, px: to 0.01 mm on the garment. */
const STEPS = 2 ** 16;
const FLAT_PX = 0.04;

/** Prints the time to place each, as a share of the library's, and the largest error of a colour's area. */
export async function measureMotifs(): Promise<void> {
  const designs = await Promise.all(
    DEMO_JOBS.map(async ({ title, draw }) => ({ title, ...(await design(await draw())) })),
  );
  const target = designs.at(-1);
  if (!target) return;
  const table = Object.fromEntries(
    designs.flatMap(({ title, motif }) => {
      if (!motif) return [];
      const tries = Array.from({ length: PLACES }, (_, k) => place(target.map, motif, (k * 360) / PLACES));
      const [own, library] = [middle(tries.map(({ ms }) => ms)), middle(tries.map(({ libraryMs }) => libraryMs))];
      const row = {
        segments: countSegments(motif),
        "ms, middle": own.toFixed(0),
        "of the library's": (own / library).toFixed(2),
        "area off": Math.max(...tries.map(({ error }) => error)).toExponential(1),
        refused: tries.filter(({ error }) => !Number.isFinite(error)).length,
      };
      return [[title, row]];
    }),
  );
  console.log("\nMotifs laid into the ferry's design, against clipper2 on flattened outlines");
  console.table(table);
}

async function design(bytes: Buffer): Promise<{ map: Drawing; motif: Motif | null }> {
  const { raster } = await decodeArtwork(bytes);
  const recipe = makeRecipe();
  const { map, reduction } = runPipeline({ key: "demo", raster }, recipe);
  const spots = reduction.spots.map((spot) => ({ ...spot, stock: null }));
  return { map, motif: keepMotif(map.faces, spots, mmPerPixel(recipe, raster)) };
}

function place(map: Drawing, motif: Motif, deg: number) {
  const scale = (map.width * SHARE) / motif.widthMm;
  const [cos, sin] = [Math.cos((deg * Math.PI) / 180) * scale, Math.sin((deg * Math.PI) / 180) * scale];
  const ids = motif.spots.map((_, k) => `motif-${k}`);
  const layers = layMotif(motif, ids, [{ x: map.width / 2, y: map.height / 2, matrix: [cos, -sin, sin, cos] }]);
  const started = performance.now();
  const laid = applyEdit(map, { kind: "stack", layers });
  const ms = performance.now() - started;
  const areas = motifAreas(motif);
  const error =
    typeof laid === "string"
      ? Number.POSITIVE_INFINITY
      : Math.max(...ids.map((id, k) => Math.abs(areaOf(laid, id) / ((areas[k] ?? 0) * scale * scale) - 1)));
  const before = performance.now();
  byLibrary(
    map,
    layers.map(({ paths }) => paths),
  );
  return { ms, error, libraryMs: performance.now() - before };
}

function areaOf(map: Drawing, spotId: string): number {
  return map.faces.reduce((sum, face) => sum + (face.spotId === spotId ? faceArea(face) : 0), 0);
}

/** What the design loses, colour by colour, and what is laid on it. */
function byLibrary(map: Drawing, layers: readonly (readonly CubicPath[])[]): Paths64[] {
  const laid = layers.map((paths) => booleanOp(ClipType.Union, onGrid(paths), null, FillRule.NonZero));
  const whole = booleanOp(ClipType.Union, laid.flat(), null, FillRule.NonZero);
  const spots = [...new Set(map.faces.map(({ spotId }) => spotId))];
  const left = spots.map((spotId) => {
    const own = map.faces.flatMap((face) => (face.spotId === spotId ? face.paths : []));
    return booleanOp(ClipType.Difference, onGrid(own), whole, FillRule.NonZero);
  });
  return [...left, ...laid];
}

function onGrid(paths: readonly CubicPath[]): Paths64 {
  return paths.map((path) => {
    const line = flattenPath(path, FLAT_PX);
    return Array.from({ length: line.length / 2 - 1 }, (_, k) => ({
      x: Math.round((line[2 * k] ?? 0) * STEPS),
      y: Math.round((line[2 * k + 1] ?? 0) * STEPS),
    }));
  });
}
