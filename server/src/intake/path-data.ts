// Path data in absolute numbers (SVG 2, 9.3: M, L, Q, C and Z, as a normalising parser leaves them) as cubics.
import type { CubicPath } from "@plain-palette/core/geometry";

/** Each subpath with a length; one that is closed ends where it begins. */
export function readPathData(d: string): CubicPath[] {
  const paths: CubicPath[] = [];
  let path: number[] = [];
  const end = () => {
    if (path.length > 2) paths.push(Float64Array.from(path));
    path = [];
  };
  const line = (x: number, y: number) => {
    const [px = 0, py = 0] = path.slice(-2);
    if (px !== x || py !== y) path.push(px, py, x, y, x, y);
  };
  for (const [, letter, list] of d.matchAll(/([MLQCZ])([^MLQCZ]*)/g)) {
    const numbers = (list ?? "")
      .trim()
      .split(/[\s,]+/)
      .map(Number);
    const [a = 0, b = 0, c = 0, e = 0] = numbers;
    if (letter === "M") {
      end();
      path.push(a, b);
    } else if (letter === "L") line(a, b);
    else if (letter === "C") path.push(...numbers);
    else if (letter === "Q") {
      const [px = 0, py = 0] = path.slice(-2);
      // Degree elevation (L. Piegl & W. Tiller, The NURBS Book, 5.5).
      path.push(px + (2 / 3) * (a - px), py + (2 / 3) * (b - py), c + (2 / 3) * (a - c), e + (2 / 3) * (b - e), c, e);
    } else {
      const [x = 0, y = 0] = path;
      line(x, y);
      end();
      path.push(x, y);
    }
  }
  end();
  return paths;
}
