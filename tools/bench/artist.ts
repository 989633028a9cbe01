// What the artist drew: the outlines of a flat drawing, segment by segment, and how many of them can be seen.
import svgpath from "svgpath";

/** A drawing as the number of the nearest true colour of every pixel. */
export interface LabelledView {
  readonly side: number;
  readonly labels: Uint8Array;
}

/** Places along a segment that are looked at, and the share of them that must lie on a visible boundary. */
const PLACES = 12;
const SEEN = 1 / 3;

/** Points along one drawn segment, x, y pairs in the drawing's units. */
type DrawnSegment = readonly number[];

/**
 * Number of drawn segments of which at least a third lies on a boundary between two colours of `view`. A line, a curve or
 * an arc is one as the artist's file has it; a closing line counts if it has a length; circles and ellipses count four.
 */
export function countVisibleSegments(svg: string, view: LabelledView): number {
  const box = svg.match(/viewBox="[\d.]+ [\d.]+ ([\d.]+)/);
  const scale = view.side / Number(box?.[1]);
  const seen = new Set<string>();
  for (const segment of drawnSegments(svg)) {
    let hits = 0;
    for (let i = 0; i < segment.length; i += 2)
      if (isOnBoundary(view, segment[i] * scale, segment[i + 1] * scale)) hits++;
    // Two shapes that share an outline draw it twice, one of them perhaps the other way round.
    if (hits >= SEEN * (segment.length / 2)) seen.add(nameOf(segment));
  }
  return seen.size;
}

function nameOf(segment: DrawnSegment): string {
  const n = segment.length;
  const middle = (n >> 2) * 2;
  const ends = [segment.slice(0, 2), segment.slice(n - 2)].map((end) => end.map((v) => v.toFixed(2)).join(" ")).sort();
  return [
    ...ends,
    segment
      .slice(middle, middle + 2)
      .map((v) => v.toFixed(1))
      .join(" "),
  ].join("|");
}

function isOnBoundary({ side, labels }: LabelledView, x: number, y: number): boolean {
  const px = Math.floor(x);
  const py = Math.floor(y);
  if (px < 2 || py < 2 || px >= side - 2 || py >= side - 2) return false;
  const here = labels[py * side + px];
  for (let dy = -2; dy <= 2; dy++)
    for (let dx = -2; dx <= 2; dx++) if (labels[(py + dy) * side + px + dx] !== here) return true;
  return false;
}

function* drawnSegments(svg: string): Generator<DrawnSegment> {
  for (const [, d] of svg.matchAll(/<path[^>]* d="([^"]*)"/g)) yield* pathSegments(d);
  for (const [, attributes] of svg.matchAll(/<(?:circle|ellipse)([^>]*)>/g)) {
    const value = (name: string) => Number(attributes.match(new RegExp(` ${name}="([^"]*)"`))?.[1] ?? 0);
    const rx = value("rx") || value("r");
    const ry = value("ry") || value("r");
    const [cx, cy] = [value("cx"), value("cy")];
    yield* pathSegments(
      `M${cx + rx} ${cy}A${rx} ${ry} 0 0 1 ${cx} ${cy + ry}A${rx} ${ry} 0 0 1 ${cx - rx} ${cy}` +
        `A${rx} ${ry} 0 0 1 ${cx} ${cy - ry}A${rx} ${ry} 0 0 1 ${cx + rx} ${cy}`,
    );
  }
  for (const [, attributes] of svg.matchAll(/<rect([^>]*)>/g)) {
    const value = (name: string) => Number(attributes.match(new RegExp(` ${name}="([^"]*)"`))?.[1] ?? 0);
    const [x, y, w, h] = [value("x"), value("y"), value("width"), value("height")];
    yield* pathSegments(`M${x} ${y}h${w}v${h}h${-w}z`);
  }
}

function* pathSegments(d: string): Generator<DrawnSegment> {
  let start = [0, 0];
  const path = svgpath(d).abs().unshort();
  const segments: (readonly (string | number)[])[] = [];
  path.iterate((segment) => void segments.push(segment));
  let x = 0;
  let y = 0;
  for (const [name, ...numbers] of segments) {
    const v = numbers as number[];
    if (name === "M") {
      [x, y] = v;
      start = [x, y];
      continue;
    }
    const end = name === "H" ? [v[0], y] : name === "V" ? [x, v[0]] : name === "Z" ? start : v.slice(-2);
    const points =
      name === "A" ? arcPoints(x, y, v) : curvePoints([x, y, ...(v.length > 2 ? v.slice(0, -2) : []), ...end]);
    if (Math.abs(end[0] - x) + Math.abs(end[1] - y) > 1e-3) yield points;
    [x, y] = end;
  }
}

/** Points along a Bezier of any degree. */
function curvePoints(controls: readonly number[]): number[] {
  const out: number[] = [];
  for (let k = 0; k <= PLACES; k++) {
    let points = [...controls];
    const t = k / PLACES;
    while (points.length > 2) points = points.slice(2).map((v, i) => v * t + points[i] * (1 - t));
    out.push(...points);
  }
  return out;
}

function arcPoints(x: number, y: number, v: readonly number[]): number[] {
  const out: number[] = [];
  const pieces: number[][] = [];
  svgpath(`M${x} ${y}A${v.join(" ")}`)
    .unarc()
    .iterate((segment) => {
      if (segment[0] !== "M") pieces.push((segment as unknown as number[]).slice(1));
    });
  let from = [x, y];
  for (const piece of pieces) {
    out.push(...curvePoints([...from, ...piece]));
    from = piece.slice(-2);
  }
  return out;
}
