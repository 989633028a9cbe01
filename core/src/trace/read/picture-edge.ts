// Boundaries on the picture's own edge: nothing is read there, and they are as straight as the picture.
import type { CubicPath } from "../../geometry/index.ts";
import { BARE, type Chain } from "./chains.ts";

/** Whether a chain lies on the picture's own edge: every corner of it on one of the four sides, with nothing on one hand. */
export function isOnPictureEdge({ corners, left, right }: Chain, width: number, height: number): boolean {
  if (left !== BARE && right !== BARE) return false;
  for (let i = 0; i < corners.length; i += 2) {
    const isInside = corners[i] > 0 && corners[i] < width && corners[i + 1] > 0 && corners[i + 1] < height;
    if (isInside) return false;
  }
  return true;
}

/** The picture's edge as it is: straight, with its right angles, from vertex to vertex. */
export function pictureEdge({ corners, start, end }: Chain, vertices: Float64Array): CubicPath {
  const out: number[] = [corners[0], corners[1]];
  for (let i = 2; i < corners.length; i += 2) {
    const isBend =
      i + 2 >= corners.length ||
      (corners[i] - corners[i - 2]) * (corners[i + 3] - corners[i + 1]) !==
        (corners[i + 1] - corners[i - 1]) * (corners[i + 2] - corners[i]);
    if (!isBend) continue;
    const o = out.length;
    out.push(out[o - 2], out[o - 1], corners[i], corners[i + 1], corners[i], corners[i + 1]);
  }
  if (start >= 0) {
    const n = out.length;
    out[0] = vertices[start * 2];
    out[1] = vertices[start * 2 + 1];
    out[2] = out[0];
    out[3] = out[1];
    out[n - 4] = out[n - 2] = vertices[end * 2];
    out[n - 3] = out[n - 1] = vertices[end * 2 + 1];
  }
  return Float64Array.from(out);
}
