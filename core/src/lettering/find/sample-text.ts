// A text in a typeface as points on the outlines that are seen: what is fitted to old letters. Lengths are shares of the em.
import { type Bounds, boundsOf, type CubicPath, flattenPath, lengthOf, pathArea } from "../../geometry/index.ts";
import { shapeText, type Typeface } from "../../typeface/index.ts";
import { outlinesOf } from "../set-lines.ts";

/** A letter with its points. */
export interface SampledLetter {
  readonly row: number;
  /** Which letter of its row, and the middle of its advance from the row's left end. */
  readonly index: number;
  readonly middle: number;
  /** x from the middle of its advance, y down from the baseline. */
  readonly points: Float64Array;
  readonly paths: readonly CubicPath[];
}

/** A row of them with the box of its outlines, from its left end on the baseline. */
export interface SampledRow extends Bounds {
  readonly width: number;
  readonly letters: number;
}

export interface SampledText {
  readonly letters: readonly SampledLetter[];
  readonly rows: readonly SampledRow[];
  /** How many points. */
  readonly count: number;
  readonly capHeight: number;
}

/** Points lie so far apart. */
const SPACING = 0.06;

/** Null where the typeface lacks letters of the text. */
export function sampleText(text: string, typeface: Typeface): SampledText | null {
  const letters: SampledLetter[] = [];
  const rows: SampledRow[] = [];
  for (const [row, line] of text.split("\n").entries()) {
    const shaped = shapeText(line, typeface);
    if (shaped.missing.length > 0) return null;
    const seen: number[] = [];
    const outlines = shaped.letters.map((letter) =>
      outlinesOf(letter, typeface).map((path) => shifted(path, letter.x)),
    );
    shaped.letters.forEach(({ x, advance }, index) => {
      const paths = outlines[index];
      const beside = [...(outlines[index - 1] ?? []), ...(outlines[index + 1] ?? [])];
      const middle = x + advance / 2;
      const points = seenPoints(paths, beside);
      seen.push(...points);
      for (let i = 0; i < points.length; i += 2) points[i] -= middle;
      if (points.length > 0)
        letters.push({
          row,
          index,
          middle,
          points: Float64Array.from(points),
          paths: paths.map((path) => shifted(path, -middle)),
        });
    });
    const box = seen.length > 0 ? boundsOf(seen) : { left: 0, right: shaped.width, top: 0, bottom: 0 };
    rows.push({ width: shaped.width, letters: shaped.letters.length, ...box });
  }
  if (letters.length === 0) return null;
  const count = letters.reduce((sum, { points }) => sum + points.length / 2, 0);
  return { letters, rows, count, capHeight: typeface.capHeight };
}

function shifted(path: CubicPath, by: number): CubicPath {
  return path.map((v, i) => (i % 2 === 0 ? v + by : v));
}

/** Points along outlines, without those that lie under another outline of the letter or of its neighbours. */
function seenPoints(paths: readonly CubicPath[], beside: readonly CubicPath[]): number[] {
  const own = paths.map((path) => flattenPath(path, 0.002));
  const near = beside.map((path) => flattenPath(path, 0.004));
  const out: number[] = [];
  own.forEach((line, k) => {
    const turn = pathArea(paths[k]) < 0 ? -1 : 1;
    const others = [...own.filter((_, other) => other !== k), ...near];
    eachSpaced(line, (x, y) => {
      const winding = others.reduce((sum, other) => sum + windingAt(other, x, y), 0);
      // An outline is seen where nothing is on one of its sides.
      if (winding === 0 || winding + turn === 0) out.push(x, y);
    });
  });
  return out;
}

/** Points of a line at even distances. */
function eachSpaced(line: readonly number[], visit: (x: number, y: number) => void): void {
  let left = SPACING / 2;
  for (let i = 0; i + 3 < line.length; i += 2) {
    const [dx, dy] = [line[i + 2] - line[i], line[i + 3] - line[i + 1]];
    const length = lengthOf(dx, dy);
    let at = left;
    for (; at <= length; at += SPACING) visit(line[i] + (dx * at) / length, line[i + 1] + (dy * at) / length);
    left = at - length;
  }
}

/** How often a closed line winds round a place; with the sign of its area (y down). */
function windingAt(line: readonly number[], x: number, y: number): number {
  let winding = 0;
  for (let i = 0; i + 3 < line.length; i += 2) {
    const [y0, y1] = [line[i + 1], line[i + 3]];
    if (y0 <= y === y1 <= y) continue;
    const at = line[i] + ((y - y0) / (y1 - y0)) * (line[i + 2] - line[i]);
    if (at > x) winding += y1 > y0 ? 1 : -1;
  }
  return winding;
}
