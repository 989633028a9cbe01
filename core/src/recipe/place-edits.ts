// What is done to the traced shapes, from the client's pixels to those of the prepared picture.
import { type Edit, figurePaths, type NamedEdit } from "../edit/index.ts";
import { type CubicPath, mapPath } from "../geometry/index.ts";
import { type Frame, type Homography, invertMap, mapLine, mapPoint, type Point, turn } from "../raster/index.ts";
import type { z } from "../zod/index.ts";
import type { pick } from "./curves.ts";
import { layLettering } from "./lay-lettering.ts";
import { layMotifEntry } from "./lay-motif.ts";
import type { Library } from "./library.ts";
import { inverse, localMap, type Matrix, scaleAt, times } from "./local-map.ts";
import type { ShapeEntry, ShapeEntryOf } from "./shape-entries.ts";

/** Those that are on, with their places in the pixels of the prepared picture, of which one is `mmPerPx` wide on the garment. */
export function placeEdits(
  entries: readonly ShapeEntry[],
  frame: Frame,
  mmPerPx: number,
  { typefaces, motifs }: Library,
): NamedEdit[] {
  const toPrepared = invertMap(frame.toSource);
  const placed = (one: ShapeEntry) => {
    if (one.kind === "lettering") return layLettering(one, toPrepared, typefaces);
    if (one.kind === "motif") return layMotifEntry(one, toPrepared, motifs);
    return placeEdit(one, toPrepared, mmPerPx);
  };
  return entries.filter(({ isOn }) => isOn).map((one) => ({ id: one.id, edit: placed(one) }));
}

function placeEdit(
  one: Exclude<ShapeEntry, { kind: "lettering" | "motif" }>,
  toPrepared: Homography,
  mmPerPx: number,
): Edit {
  const place = (at: Point) => mapPoint(toPrepared, at);
  const line = (numbers: readonly number[]): CubicPath => Float64Array.from(mapLine(toPrepared, numbers));
  const picks = (all: readonly z.infer<typeof pick>[]) => all.map(({ at, spotId }) => ({ at: place(at), spotId }));
  switch (one.kind) {
    case "simplify": {
      const { tolerancePx, scope } = one;
      return {
        ...{ kind: one.kind, tolerancePx },
        scope: scope.kind === "shape" ? { kind: scope.kind, at: place(scope.at) } : scope,
      };
    }
    case "line":
      return {
        kind: one.kind,
        changes: one.changes.map((change) => ({ ...change, was: line(change.was), now: line(change.now) })),
      };
    case "draw": {
      const { figure, spotId, isHeld, onlyOn } = one;
      const held = one.heldMm === null ? figure : holdFigure(figure, one.heldMm / mmPerPx, toPrepared);
      const paths = figurePaths(held).map((path) => mapPath(path, (x, y) => xy(place({ x, y }))));
      return { kind: "lay", paths, spotId, isHeld: isHeld || one.heldMm !== null, onlyOn };
    }
    case "cut":
      return { kind: one.kind, path: line(one.curve), spotId: one.spotId };
    case "pieces": {
      const placed = one.placed.map(({ dx, dy, angleDeg: angle, scaleX, scaleY }) => {
        const near = localMap(toPrepared, one.picks[0].at);
        const { sin, cos } = turn(angle);
        const own: Matrix = [cos * scaleX, -sin * scaleY, sin * scaleX, cos * scaleY];
        const [mx, my] = [near[0] * dx + near[1] * dy, near[2] * dx + near[3] * dy];
        return { dx: mx, dy: my, matrix: times(times(near, own), inverse(near)) };
      });
      return { kind: one.kind, picks: picks(one.picks), stays: one.stays, placed, over: picks(one.over) };
    }
    case "round":
      return { kind: one.kind, at: place(one.at), spotId: one.spotId, diameterPx: one.diameterMm / mmPerPx };
    case "brush": {
      const scale = scaleAt(toPrepared, { x: one.points[0], y: one.points[1] });
      return {
        ...{ kind: one.kind, does: one.does, keepsCorners: one.keepsCorners },
        points: mapLine(toPrepared, one.points),
        radiusPx: one.radiusPx * scale,
        strengthPx: one.strengthPx * scale,
      };
    }
  }
}

const xy = ({ x, y }: Point) => [x, y] as const;

/** A figure of this width, px of the prepared picture, its proportions kept. */
function holdFigure(figure: ShapeEntryOf<"draw">["figure"], widthPx: number, toPrepared: Homography) {
  if (!("at" in figure)) return figure;
  const factor = widthPx / (figure.width * scaleAt(toPrepared, figure.at));
  const grown = { ...figure, width: figure.width * factor };
  if (grown.kind === "polygon") return grown;
  const height = grown.height * factor;
  return grown.kind === "ellipse" ? { ...grown, height } : { ...grown, height, radius: grown.radius * factor };
}
