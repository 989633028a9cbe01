// Angles of directions, with square roots alone: the same to the last digit on every machine.
import { lengthOf } from "../../geometry/index.ts";

/** An angle this small is nearly its own sine, and is taken from a short series. */
const SMALL = 0.02;

/** Degrees from the x axis to a direction of any length, -180 to 180, towards y. */
export function degreesOf(x: number, y: number): number {
  const length = lengthOf(x, y) || 1;
  let [cos, sin] = [x / length, y / length];
  let halvings = 1;
  for (; Math.abs(sin) > SMALL || cos < 0; halvings *= 2) {
    const half = Math.sqrt(Math.max(0, (1 + cos) / 2));
    sin = half > 1e-9 ? sin / (2 * half) : 1;
    cos = half;
  }
  const tangent = sin / cos;
  return ((tangent - tangent ** 3 / 3) * halvings * 180) / Math.PI;
}
