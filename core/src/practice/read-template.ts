// A stone setter's own reading of a template: holes as they were cut, whatever they were meant for. SVG drawings with absolute
// moves, lines and curves, and plots (read-plot.ts). Nothing is shared with what writes such files.
import { readPlot } from "./read-plot.ts";

/** A closed cut: its box, mm from the sheet's upper left corner as far as the file tells it, y down. */
export interface Hole {
  readonly x: number;
  readonly y: number;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly isClosed: boolean;
}

export interface TemplateFile {
  readonly holes: readonly Hole[];
  /** Null where the file has no sheet. */
  readonly sheet: { readonly widthMm: number; readonly heightMm: number } | null;
  /** What could not be read. */
  readonly unread: readonly string[];
}

/** Points on each curve that its box is measured by. */
const STEPS = 24;
/** A cut that ends so near to its beginning is closed, mm. */
const CLOSED_MM = 0.05;

export function readTemplate(name: string, text: string): TemplateFile {
  return name.endsWith(".plt") ? readPlotTemplate(text) : readSvgTemplate(text);
}

function readPlotTemplate(text: string): TemplateFile {
  const { strokes, unknown } = readPlot(text);
  const blade = strokes.filter(({ tool }) => tool === 1);
  return {
    // A plotter's y goes up.
    holes: blade.map(({ points }) => holeOf(points.map((v, i) => (i % 2 === 0 ? v : -v)))),
    sheet: null,
    unread: unknown.map((one) => `instruction ${one}`),
  };
}

function readSvgTemplate(text: string): TemplateFile {
  const number = (pattern: RegExp) => Number(pattern.exec(text)?.[1] ?? Number.NaN);
  const [widthMm, heightMm] = [number(/<svg[^>]*\swidth="([\d.]+)mm"/), number(/<svg[^>]*\sheight="([\d.]+)mm"/)];
  const box = /viewBox="0 0 ([\d.]+) ([\d.]+)"/.exec(text);
  const perUnit = widthMm / Number(box?.[1] ?? Number.NaN);
  const unread: string[] = [];
  if (!(perUnit > 0) || !(heightMm > 0)) return { holes: [], sheet: null, unread: ["it has no size in millimetres"] };
  const holes = [...text.matchAll(/<path[^>]*\sd="([^"]*)"/g)].flatMap(([, data = ""]) =>
    linesIn(data, unread).map((line) => holeOf(line.map((unit) => unit * perUnit))),
  );
  return { holes, sheet: { widthMm, heightMm }, unread };
}

/** Lines through the points of path data, each from a move to the next. */
function linesIn(data: string, unread: string[]): number[][] {
  const lines: number[][] = [];
  for (const [, command = "", values = ""] of data.matchAll(/([A-Za-z])([^A-Za-z]*)/g)) {
    const numbers = [...values.matchAll(/-?(?:\d+\.?\d*|\.\d+)(?:e-?\d+)?/g)].map(([one]) => Number(one));
    const line = lines[lines.length - 1];
    if (command === "M") lines.push(numbers);
    else if (command === "L") line?.push(...numbers);
    else if (command === "C") for (let i = 0; i + 5 < numbers.length; i += 6) curve(line, numbers.slice(i, i + 6));
    else if (command === "Z") line?.push(line[0], line[1]);
    else unread.push(`path command ${command}`);
  }
  return lines;
}

function curve(line: number[] | undefined, [bx, by, cx, cy, dx, dy]: readonly number[]): void {
  if (!line) return;
  const [ax, ay] = line.slice(-2);
  for (let k = 1; k <= STEPS; k++) {
    const t = k / STEPS;
    const u = 1 - t;
    const [a, b, c, d] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
    line.push(a * ax + b * bx + c * cx + d * dx, a * ay + b * by + c * cy + d * dy);
  }
}

function holeOf(points: readonly number[]): Hole {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i < points.length; i += 2) {
    [left, right] = [Math.min(left, points[i]), Math.max(right, points[i])];
    [top, bottom] = [Math.min(top, points[i + 1]), Math.max(bottom, points[i + 1])];
  }
  // A blade goes on over its start: somewhere it has been where it began.
  let isClosed = false;
  for (let i = 4; i < points.length && !isClosed; i += 2)
    isClosed = Math.abs(points[i] - points[0]) + Math.abs(points[i + 1] - points[1]) < CLOSED_MM;
  return { x: (left + right) / 2, y: (top + bottom) / 2, widthMm: right - left, heightMm: bottom - top, isClosed };
}
