// Shapes as the page shows them and as files to keep.
import { layShapes, writeShapeFiles } from "@plain-palette/core/formats";
import { type Prepared, placeSimplifications, printWidthMm } from "@plain-palette/core/recipe";
import { orderSpots, type Reduction } from "@plain-palette/core/reduce";
import {
  countFineShapes,
  countShapes,
  type Drawing,
  faceAt,
  layersOf,
  measureDeviation,
  type PlanarMap,
  type Simplification,
  simplifyMap,
  spotCoverage,
  spotPaths,
} from "@plain-palette/core/trace";
import { zipSync } from "fflate";
import type { ComputeRequest, TracedView, TriedView, WantedShapes } from "./messages.ts";

interface Traced {
  readonly prepared: Prepared;
  readonly reduction: Reduction;
  readonly map: Drawing;
}

export function viewShapes({ measure, trying }: ComputeRequest, { prepared, reduction, map }: Traced): TracedView {
  const fillsOf = (layer: PlanarMap) =>
    reduction.spots
      .map(({ id: spotId }) => ({ spotId, paths: spotPaths(layer, spotId) }))
      .filter(({ paths }) => paths.length > 0);
  return {
    layers: layersOf(map).map((layer) => ({ fills: fillsOf(layer), isAbutting: layer === map })),
    edges: map.edges.map((edge) => edge.path),
    counts: countShapes(map),
    fine: countFineShapes(map),
    deviation: measure ? measureDeviation(map) : null,
    tried: trying ? viewTried(map, placeSimplifications([trying], prepared.frame)) : null,
    coverage: spotCoverage(map),
  };
}

function viewTried(map: PlanarMap, tried: readonly Simplification[]): TriedView {
  const simple = simplifyMap(map, tried);
  const faces = tried.flatMap(({ scope }) => (scope.kind === "shape" ? (map.faces[faceAt(map, scope.at)] ?? []) : []));
  const changed = map.edges.flatMap(({ path: before }, e) => {
    const after = simple.edges[e]?.path;
    return !after || after === before ? [] : [{ before, after }];
  });
  return {
    before: changed.map(({ before }) => before),
    after: changed.map(({ after }) => after),
    picked: faces.flatMap(({ paths }) => paths),
    nodes: countShapes(simple).nodes,
  };
}

/** One file, or several in a ZIP. */
export async function makeShapesFile(
  { recipe, format, stacking, isPerColour }: WantedShapes,
  { prepared, reduction, map }: Traced,
): Promise<{ name: string; bytes: Uint8Array<ArrayBuffer> }> {
  const mmPerPx = printWidthMm(recipe, prepared.raster) / prepared.raster.width;
  const drawing = layShapes(map, orderSpots(reduction.spots, recipe.colours.order), mmPerPx, stacking);
  const files = await writeShapeFiles(drawing, format, isPerColour, new Date());
  // Copies: what the writers give may be a view of something larger.
  const [file, ...others] = files;
  if (file && others.length === 0) return { name: file.name, bytes: file.bytes.slice() };
  const zipped = zipSync(Object.fromEntries(files.map(({ name, bytes }) => [name, bytes])));
  return { name: `shapes-${format}.zip`, bytes: zipped.slice() };
}
