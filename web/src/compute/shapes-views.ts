// Shapes as the page shows them and as files to keep.
import { applyEdit, type Edited, handEdges, type NamedEdit } from "@plain-palette/core/edit";
import { layShapes, writeShapeFiles } from "@plain-palette/core/formats";
import type { CubicPath } from "@plain-palette/core/geometry";
import { mmPerPixel, type Prepared, placeEdits } from "@plain-palette/core/recipe";
import { orderSpots, type Reduction } from "@plain-palette/core/reduce";
import {
  countFineShapes,
  countShapes,
  type Drawing,
  faceAt,
  layersOf,
  measureDeviation,
  type PlanarMap,
  spotCoverage,
  spotPaths,
} from "@plain-palette/core/trace";
import { zipSync } from "fflate";
import type { ComputeRequest, HandView, TracedView, TriedView, WantedShapes } from "./messages.ts";

interface Traced {
  readonly prepared: Prepared;
  readonly reduction: Reduction;
  readonly traced: Drawing;
  readonly edited: Edited;
  readonly map: Drawing;
}

export function viewShapes(
  { measure, trying, byHand, recipe }: ComputeRequest,
  { prepared, reduction, traced, edited, map }: Traced,
): TracedView {
  const mmPerPx = mmPerPixel(recipe, prepared.raster);
  const fillsOf = (layer: PlanarMap) =>
    reduction.spots
      .map(({ id: spotId }) => ({ spotId, paths: spotPaths(layer, spotId) }))
      .filter(({ paths }) => paths.length > 0);
  return {
    layers: layersOf(map).map((layer) => ({ fills: fillsOf(layer), isAbutting: layer === map })),
    edges: map.edges.map((edge) => edge.path),
    counts: countShapes(map),
    asTraced: countShapes(traced),
    misfits: edited.misfits,
    hand: byHand ? viewHand(map, edited.memory.steps.at(-2)?.drawing ?? traced) : null,
    fine: countFineShapes(map),
    deviation: measure ? measureDeviation(map) : null,
    tried: trying ? viewTried(map, placeEdits([trying], prepared.frame, mmPerPx)[0]) : null,
    coverage: spotCoverage(map),
  };
}

function viewHand(map: PlanarMap, before: PlanarMap): HandView {
  return {
    edges: handEdges(map),
    faces: map.faces.map(({ spotId, paths }) => ({ spotId, paths })),
    replaced: changedPaths(before, map),
  };
}

function viewTried(map: Drawing, tried: NamedEdit | undefined): TriedView | null {
  if (!tried) return null;
  const { edit } = tried;
  const made = applyEdit(map, edit);
  const then = typeof made === "string" ? map : made;
  const at = edit.kind === "simplify" && edit.scope.kind === "shape" ? edit.scope.at : null;
  const face = at && map.faces[faceAt(map, at)];
  return {
    before: changedPaths(map, then),
    after: changedPaths(then, map),
    picked: face ? face.paths : [],
    nodes: countShapes(then).nodes,
  };
}

/** Boundaries of one map that the other does not have. */
function changedPaths(one: PlanarMap, other: PlanarMap): CubicPath[] {
  if (one === other) return [];
  const kept = new Set(other.edges.map(({ path }) => path));
  return one.edges.flatMap(({ path }) => (kept.has(path) ? [] : [path]));
}

/** One file, or several in a ZIP. */
export async function makeShapesFile(
  { recipe, format, stacking, isPerColour }: WantedShapes,
  { prepared, reduction, map }: Traced,
): Promise<{ name: string; bytes: Uint8Array<ArrayBuffer> }> {
  const mmPerPx = mmPerPixel(recipe, prepared.raster);
  const drawing = layShapes(map, orderSpots(reduction.spots, recipe.colours.order), mmPerPx, stacking);
  const files = await writeShapeFiles(drawing, format, isPerColour, new Date());
  // Copies: what the writers give may be a view of something larger.
  const [file, ...others] = files;
  if (file && others.length === 0) return { name: file.name, bytes: file.bytes.slice() };
  const zipped = zipSync(Object.fromEntries(files.map(({ name, bytes }) => [name, bytes])));
  return { name: `shapes-${format}.zip`, bytes: zipped.slice() };
}
