// A line of lettering from the recipe, set and coloured in the pixels of the prepared picture. Apart from what it is: whoever
// computes nothing need not have it.
import type { Edit } from "../edit/index.ts";
import { lengthOf, reversePath } from "../geometry/index.ts";
import { type Baseline, type LetterDress, type Lettering, letterLayers, setLettering } from "../lettering/index.ts";
import { type Homography, mapLine, mapPoint, type Point, turn } from "../raster/index.ts";
import type { Typefaces } from "../typeface/index.ts";
import type { LetteringEntry } from "./lettering-entry.ts";
import { localMap, scaleAt, turnsOver } from "./local-map.ts";

/** How an entry is set in the pixels of the prepared picture. Lettering reads from left to right however the picture was turned over. */
export function placeLettering(one: LetteringEntry, toPrepared: Homography): Lettering {
  const { baseline, capPx } = one;
  const scale = scaleAt(toPrepared, anchorOf(one));
  return { ...one, baseline: placeBaseline(baseline, toPrepared, scale), capHeight: capPx * scale };
}

/** A place on the entry's baseline. */
function anchorOf({ baseline }: LetteringEntry): Point {
  return baseline.kind === "curve" ? { x: baseline.curve[0], y: baseline.curve[1] } : baseline.at;
}

function placeBaseline(baseline: LetteringEntry["baseline"], toPrepared: Homography, scale: number): Baseline {
  if (baseline.kind === "curve") {
    const path = Float64Array.from(mapLine(toPrepared, baseline.curve));
    const gap = baseline.gapPx * scale;
    // Turned over, what was above a curve is above its reverse.
    if (turnsOver(toPrepared, { x: baseline.curve[0], y: baseline.curve[1] }))
      return { kind: "curve", path: reversePath(path), share: 1 - baseline.share, gap };
    return { kind: "curve", path, share: baseline.share, gap };
  }
  const { sin, cos } = turn(baseline.angleDeg);
  const near = localMap(toPrepared, baseline.at);
  const [x, y] = [near[0] * cos + near[1] * sin, near[2] * cos + near[3] * sin];
  const length = (lengthOf(x, y) || 1) * (turnsOver(toPrepared, baseline.at) ? -1 : 1);
  const along = { x: x / length, y: y / length };
  const radius = baseline.kind === "arc" && baseline.radiusPx !== 0 ? baseline.radiusPx * scale : null;
  return { kind: "line", at: mapPoint(toPrepared, baseline.at), along, radius };
}

/** The entry as what is laid into the map, in the pixels of the prepared picture. */
export function layLettering(one: LetteringEntry, toPrepared: Homography, typefaces: Typefaces): Edit {
  const typeface = typefaces.get(one.typeface.id);
  if (!typeface)
    return { kind: "none", reason: `is set in ${one.typeface.name}, which is not here: add it, or choose another` };
  const { letters } = setLettering(placeLettering(one, toPrepared), typeface);
  const layers = letterLayers(letters, dressLettering(one, toPrepared));
  if (layers.every(({ paths }) => paths.length === 0)) return { kind: "none", reason: "has no letters that show" };
  return { kind: "stack", layers };
}

/** How an entry is coloured, lengths in the pixels of the prepared picture. */
export function dressLettering(one: LetteringEntry, toPrepared: Homography): LetterDress {
  const { spotId, outline, shadow } = one;
  const [a, b, c, d] = localMap(toPrepared, anchorOf(one));
  return {
    spotId,
    outline: outline && { ...outline, width: outline.widthPx * scaleAt(toPrepared, anchorOf(one)) },
    shadow: shadow && { ...shadow, dx: a * shadow.dx + b * shadow.dy, dy: c * shadow.dx + d * shadow.dy },
  };
}
