// Frames turned by an angle: rows of thread and of stones are laid along x in them.
import { type Point, sineAndCosine } from "../raster/index.ts";
import type { Ring } from "./area.ts";

/** A direction as its cosine and sine. */
export interface Angle {
  readonly cos: number;
  readonly sin: number;
}

/** Rows have no direction: an angle and its opposite are one. */
export function angleOf(degrees: number): Angle {
  const half = degrees - 180 * Math.round(degrees / 180);
  return sineAndCosine(half);
}

interface HasAngle {
  readonly angle: Angle;
}

/** A point in the frame whose x runs along the angle. */
export function toFrame({ angle: { cos, sin } }: HasAngle, { x, y }: Point): Point {
  return { x: x * cos + y * sin, y: y * cos - x * sin };
}

/** A point of that frame as it lies. */
export function fromFrame({ angle: { cos, sin } }: HasAngle, x: number, y: number): readonly [number, number] {
  return [x * cos - y * sin, x * sin + y * cos];
}

export function ringInFrame(ring: Ring, angle: Angle): Ring {
  const out = new Float64Array(ring.length);
  for (let i = 0; i < ring.length; i += 2) {
    const { x, y } = toFrame({ angle }, { x: ring[i], y: ring[i + 1] });
    out[i] = x;
    out[i + 1] = y;
  }
  return out;
}
