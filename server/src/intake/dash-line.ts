// Dashes: the parts of a line that a dashed stroke draws (SVG 2, 13.5.6).
import { type CubicPath, flattenPath, linePath } from "@plain-palette/core/geometry";

/** How closely a curve is followed where it is cut, in the drawing's units. */
const FINE = 0.01;
/** More dashes than these are a texture, and no drawing. */
const MOST = 20_000;

/** The line as it is where nothing is dashed. `dashes` are drawn and left out in turn, `offset` is where in them it begins. */
export function dashLine(path: CubicPath, dashes: readonly number[], offset: number): CubicPath[] {
  const whole = dashes.reduce((sum, length) => sum + length, 0);
  if (!(whole > 0)) return [path];
  // An odd number of them counts twice.
  const pattern = dashes.length % 2 === 0 ? dashes : [...dashes, ...dashes];
  const period = pattern.reduce((sum, length) => sum + length, 0);
  let k = 0;
  let left = pattern[0] ?? 0;
  let before = ((offset % period) + period) % period;
  while (before >= left) {
    before -= left;
    k = (k + 1) % pattern.length;
    left = pattern[k] ?? 0;
  }
  left -= before;
  const points = flattenPath(path, FINE);
  const lines: number[][] = [];
  let current: number[] | null = k % 2 === 0 ? points.slice(0, 2) : null;
  for (let i = 2; i + 1 < points.length && lines.length < MOST; i += 2) {
    let [x = 0, y = 0] = points.slice(i - 2, i);
    const [tx = 0, ty = 0] = points.slice(i, i + 2);
    for (let rest = Math.hypot(tx - x, ty - y); rest > 0; ) {
      const step = Math.min(rest, left);
      [x, y] = step === rest ? [tx, ty] : [x + ((tx - x) * step) / rest, y + ((ty - y) * step) / rest];
      rest -= step;
      left -= step;
      current?.push(x, y);
      if (left > 0) continue;
      if (current) lines.push(current);
      k = (k + 1) % pattern.length;
      left = pattern[k] ?? 0;
      current = k % 2 === 0 ? [x, y] : null;
    }
  }
  if (current) lines.push(current);
  return lines.filter(({ length }) => length >= 4).map((line) => linePath(line));
}
