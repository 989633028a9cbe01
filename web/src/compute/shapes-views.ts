// Shapes as the page shows them and as files to keep.
import { applyEdit, type Edited, handEdges, type NamedEdit } from "@plain-palette/core/edit";
import { layShapes, writeShapeFiles } from "@plain-palette/core/formats";
import type { CubicPath } from "@plain-palette/core/geometry";
import { letterLayers, type Stand, setLettering } from "@plain-palette/core/lettering";
import { type Frame, invertMap } from "@plain-palette/core/raster";
import {
  dressLettering,
  type Library,
  mmPerPixel,
  type Prepared,
  placeEdits,
  placeLettering,
  type ShapeEntry,
} from "@plain-palette/core/recipe";
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
import type { Typefaces } from "@plain-palette/core/typeface";
import { zipSync } from "fflate";
import type { ComputeRequest, HandView, LetteringView, TracedView, TriedView, WantedShapes } from "./messages.ts";

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
  library: Library,
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
    tried: trying ? viewTried(map, placeEdits([trying], prepared.frame, mmPerPx, library)[0]) : null,
    coverage: spotCoverage(map),
  };
}

/** Entries of lettering in force as they are set, on a picture that lies so on the client's. */
export function viewLettering(
  entries: readonly ShapeEntry[],
  { toSource }: Frame,
  typefaces: Typefaces,
): LetteringView[] {
  const toPrepared = invertMap(toSource);
  return entries.flatMap((entry) => {
    const typeface = entry.kind === "lettering" && entry.isOn ? typefaces.get(entry.typeface.id) : null;
    if (!typeface || entry.kind !== "lettering") return [];
    const set = placeLettering(entry, toPrepared);
    const { letters, lines, missing, standOn } = setLettering(set, typeface);
    const dress = dressLettering(entry, toPrepared);
    return {
      ...{ id: entry.id, set, missing, dress },
      letters: letters.map(({ at, text, paths, stand }) => ({ ...stand, at, text, paths })),
      baselines: lines.map(({ from, to, drop }) => standsAlong((s) => standOn(s, drop), from, to)),
      layers: letterLayers(letters, dress),
    };
  });
}

/** Places along a baseline, for drawing it. */
const BASELINE_PARTS = 32;

function standsAlong(standOn: (s: number) => Stand, from: number, to: number): Stand[] {
  return Array.from({ length: BASELINE_PARTS + 1 }, (_, k) => standOn(from + ((to - from) * k) / BASELINE_PARTS));
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
