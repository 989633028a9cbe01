// From prepared pixels, in which lettering is handled, to the client's, in which it is kept.
import { reversePath } from "@plain-palette/core/geometry";
import type { Baseline } from "@plain-palette/core/lettering";
import { type Frame, mapLine, mapPoint, type Point } from "@plain-palette/core/raster";
import { type LetteringEntry, localMap, scaleAt, turnsOver } from "@plain-palette/core/recipe";

/** Arcs of a larger radius, client's pixels, are lines: over 500 px they rise by less than half a pixel. */
const FLATTEST_PX = 90_000;
/** Places are kept to a ten-thousandth of a pixel. */
const fine = (value: number) => Math.round(value * 1e4) / 1e4;

export function toClient({ toSource }: Frame, at: Point): Point {
  const { x, y } = mapPoint(toSource, at);
  return { x: fine(x), y: fine(y) };
}

/** Client's pixels to a prepared one at a place. */
export function perPrepared({ toSource }: Frame, at: Point): number {
  return scaleAt(toSource, at);
}

/** A way on the table in the client's pixels. */
export function wayToClient({ toSource }: Frame, at: Point, dx: number, dy: number): Point {
  const [a, b, c, d] = localMap(toSource, at);
  return { x: a * dx + b * dy, y: c * dx + d * dy };
}

/** A baseline as an entry keeps it. Text reads to the right however the picture was turned over. */
export function baselineToEntry(baseline: Baseline, frame: Frame): LetteringEntry["baseline"] {
  const { toSource } = frame;
  if (baseline.kind === "curve") {
    const { path, share, gap } = baseline;
    const first = { x: path[0] ?? 0, y: path[1] ?? 0 };
    const isOver = turnsOver(toSource, first);
    const curve = mapLine(toSource, Array.from(isOver ? reversePath(path) : path)).map(fine);
    return { kind: "curve", curve, share: isOver ? 1 - share : share, gapPx: fine(gap * perPrepared(frame, first)) };
  }
  const { at, along, radius } = baseline;
  const isOver = turnsOver(toSource, at);
  const way = wayToClient(frame, at, isOver ? -along.x : along.x, isOver ? -along.y : along.y);
  const angleDeg = Number(((Math.atan2(way.y, way.x) * 180) / Math.PI).toFixed(3));
  const place = toClient(frame, at);
  const radiusPx = radius === null ? 0 : fine(radius * perPrepared(frame, at));
  // What is as flat as that is a line, and a recipe takes no larger number.
  if (radiusPx === 0 || Math.abs(radiusPx) > FLATTEST_PX) return { kind: "straight", at: place, angleDeg };
  return { kind: "arc", at: place, angleDeg, radiusPx };
}
