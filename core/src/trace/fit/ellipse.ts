// Full ellipses: a closed boundary that is one keeps its centre and axes.
import { type CubicPath, lengthOf, mainDirection } from "../../geometry/index.ts";
import { circlePath } from "./circle.ts";

/** An ellipse flatter than this, short axis by long one, is left to curves. */
const FLATTEST = 0.12;

/**
 * The ellipse through closed boundary points (x, y pairs) as four cubics, or null if a point lies farther from it than
 * `tolerance`, to first order (Sampson's distance). Direction follows the points. Fit: the conic of least algebraic
 * distance with A + C = 1, which no turn or shift of the picture changes (F. L. Bookstein, "Fitting conic sections to
 * scattered data", Computer Graphics and Image Processing, 1979, discusses the choices).
 */
export function fitEllipse(points: Float64Array, tolerance: number): CubicPath | null {
  const n = points.length / 2;
  if (n < 12) return null;
  let mx = 0;
  let my = 0;
  for (let i = 0; i < n; i++) {
    mx += points[i * 2] / n;
    my += points[i * 2 + 1] / n;
  }
  let spread = 0;
  for (let i = 0; i < n; i++) spread += lengthOf(points[i * 2] - mx, points[i * 2 + 1] - my) / n;
  if (spread === 0) return null;
  const conic = solveConic(points, mx, my, spread);
  const shape = conic && shapeOf(conic);
  if (!shape) return null;
  const { cx, cy, dx, dy, major, minor } = shape;
  if (minor < FLATTEST * major) return null;
  let twiceArea = 0;
  for (let i = 0; i < n; i++) {
    const j = (i + 1) % n;
    const u = (points[i * 2] - mx) / spread - cx;
    const v = (points[i * 2 + 1] - my) / spread - cy;
    const along = (u * dx + v * dy) / major;
    const across = (v * dx - u * dy) / minor;
    const value = along * along + across * across - 1;
    const slope = 2 * lengthOf(along / major, across / minor);
    if (slope === 0 || Math.abs(value / slope) * spread > tolerance) return null;
    twiceArea += points[i * 2] * points[j * 2 + 1] - points[j * 2] * points[i * 2 + 1];
  }
  // A circle of radius 1, stretched along its axes and put in place.
  const unit = circlePath(0, 0, 1, twiceArea > 0);
  return unit.map((_, i) => {
    const along = unit[i - (i % 2)] * major;
    const across = unit[i - (i % 2) + 1] * minor;
    return i % 2 === 0 ? mx + spread * (cx + along * dx - across * dy) : my + spread * (cy + along * dy + across * dx);
  });
}

/** A to F of A x2 + B xy + C y2 + D x + E y + F = 0 for points less (mx, my), by `spread`; A + C = 1. */
function solveConic(points: Float64Array, mx: number, my: number, spread: number): readonly number[] | null {
  // Unknowns A, B, D, E, F; C = 1 - A: A (x2 - y2) + B xy + D x + E y + F = -y2.
  const matrix = Array.from({ length: 5 }, () => new Float64Array(6));
  const row = new Float64Array(6);
  for (let i = 0; i < points.length; i += 2) {
    const x = (points[i] - mx) / spread;
    const y = (points[i + 1] - my) / spread;
    row[0] = x * x - y * y;
    row[1] = x * y;
    row[2] = x;
    row[3] = y;
    row[4] = 1;
    row[5] = -y * y;
    for (let r = 0; r < 5; r++) for (let c = r; c < 6; c++) matrix[r][c] += row[r] * row[c];
  }
  for (let r = 0; r < 5; r++) for (let c = 0; c < r; c++) matrix[r][c] = matrix[c][r];
  const solved = solveLinear(matrix);
  if (!solved) return null;
  const [a, b, d, e, f] = solved;
  return [a, b, 1 - a, d, e, f];
}

/** Gaussian elimination with row exchange on rows of n coefficients and the right-hand side; null if singular. */
function solveLinear(rows: Float64Array[]): number[] | null {
  const n = rows.length;
  for (let k = 0; k < n; k++) {
    let pivot = k;
    for (let r = k + 1; r < n; r++) if (Math.abs(rows[r][k]) > Math.abs(rows[pivot][k])) pivot = r;
    if (Math.abs(rows[pivot][k]) < 1e-12) return null;
    [rows[k], rows[pivot]] = [rows[pivot], rows[k]];
    for (let r = k + 1; r < n; r++) {
      const share = rows[r][k] / rows[k][k];
      for (let c = k; c <= n; c++) rows[r][c] -= share * rows[k][c];
    }
  }
  const out = new Array<number>(n).fill(0);
  for (let k = n - 1; k >= 0; k--) {
    let value = rows[k][n];
    for (let c = k + 1; c < n; c++) value -= rows[k][c] * out[c];
    out[k] = value / rows[k][k];
  }
  return out;
}

/** Centre, direction of the long axis and half axes of a conic that is an ellipse. */
function shapeOf([a, b, c, d, e, f]: readonly number[]) {
  const determinant = 4 * a * c - b * b;
  if (determinant <= 1e-9) return null;
  const cx = (b * e - 2 * c * d) / determinant;
  const cy = (b * d - 2 * a * e) / determinant;
  const level = -(a * cx * cx + b * cx * cy + c * cy * cy + d * cx + e * cy + f);
  if (level <= 0) return null;
  const root = lengthOf(a - c, b);
  // The long axis lies where the form is smallest: across its main direction.
  const [px, py] = mainDirection(a, b / 2, c);
  const least = (a + c - root) / 2;
  if (least <= 0) return null;
  return { cx, cy, dx: -py, dy: px, major: Math.sqrt(level / least), minor: Math.sqrt((2 * level) / (a + c + root)) };
}
