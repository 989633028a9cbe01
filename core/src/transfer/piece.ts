// One piece of a layer as it lies on the roll: the film itself, marks to lay it by, a box to weed along, lines that part the
// waste, and a name beside it.
import {
  boundsOfAll,
  type CubicPath,
  flattenPath,
  intersect,
  mapPath,
  polygonPath,
  polygonsArea,
  toPolygons,
} from "../geometry/index.ts";
import type { Layer, Layering } from "./layers.ts";
import type { Placement } from "./nest.ts";
import type { TransferSettings } from "./settings.ts";

/** A layer's piece, mm from its upper left corner, y down, as it is cut. */
export interface FilmPiece {
  readonly widthMm: number;
  readonly heightMm: number;
  /** The film, closed curves. */
  readonly film: readonly CubicPath[];
  /** The same small shapes beside the design in every layer. */
  readonly marks: readonly CubicPath[];
  /** x, y, ... closed; its upper edge has a notch for each place in the press order. Null: none. */
  readonly box: readonly number[] | null;
  /** x0, y0, x1, y1 of each. */
  readonly weedLines: readonly (readonly number[])[];
  readonly name: { readonly text: string; readonly x: number; readonly y: number } | null;
}

/** Marks are crosses, so wide over all and so thick, this far from the design, mm (our own). */
const MARK_MM = 8;
const MARK_THICK_MM = 2.5;
const MARK_CLEAR_MM = 3;
/** Notches of the box's edge, mm: wide, deep, and from one to the next. */
const NOTCH_MM = { wide: 2, deep: 1.5, step: 4 };
/** Weed lines keep so far from film, and none is shorter, mm. */
const WEED_CLEAR_MM = 1.5;
const LEAST_WEED_MM = 2;
/** Height of names, mm. */
export const NAME_MM = 3;
/** How finely film is looked at for what lies beside it, mm. */
const BESIDE_MM = 0.1;

/** Lays out a layer's piece. All pieces of a job with marks are as large as its design. */
export function layPiece(
  layering: Layering,
  layer: Layer,
  { sheets, isMirrored }: Pick<TransferSettings, "sheets" | "isMirrored">,
): FilmPiece {
  const { mmPerPx, outline } = layering;
  const marks = sheets.hasMarks ? placeMarks(outline, mmPerPx) : [];
  const inMm = (path: CubicPath) => mapPath(path, (x, y) => [x * mmPerPx, y * mmPerPx]);
  const film = layer.region.map(inMm);
  const own = boundsOfAll(film);
  const all = sheets.hasMarks ? boundsOfAll([...outline.map(inMm), ...marks]) : own;
  const margin = sheets.hasBox ? sheets.boxMm : 0;
  const below = sheets.hasNames ? Math.max(margin, NAME_MM + 2) : margin;
  const [widthMm, heightMm] = [all.right - all.left + 2 * margin, all.bottom - all.top + margin + below];
  const lay = (path: CubicPath) =>
    mapPath(path, (x, y) => [
      isMirrored ? widthMm - (x - all.left + margin) : x - all.left + margin,
      y - all.top + margin,
    ]);
  const laid = { film: film.map(lay), marks: marks.map(lay) };
  return {
    ...{ widthMm, heightMm, ...laid },
    box: sheets.hasBox ? notchedBox(widthMm, heightMm, layer.order) : null,
    weedLines:
      sheets.weedLinesMm > 0 ? partWaste([...laid.film, ...laid.marks], widthMm, heightMm, sheets.weedLinesMm) : [],
    name: sheets.hasNames
      ? { text: `${layer.order} ${layer.name}`, x: margin + 1, y: heightMm - (below - NAME_MM) / 2 }
      : null,
  };
}

/** Where a place of a piece comes to lie on the roll, mm from its left edge and its beginning; turned pieces turn clockwise. */
export function placeOnRoll(piece: FilmPiece, { x, y, isTurned }: Placement, px: number, py: number): [number, number] {
  return isTurned ? [x + piece.heightMm - py, y + px] : [x + px, y + py];
}

/**
 * Three crosses at corners of the design's box, in its empty corners where they have room, else beside it; mm in the art. Three of
 * four, so that nothing can be laid the wrong way round.
 */
function placeMarks(outline: readonly CubicPath[], mmPerPx: number): CubicPath[] {
  const { left, top, right, bottom } = boundsOfAll(
    outline.map((path) => mapPath(path, (x, y) => [x * mmPerPx, y * mmPerPx])),
  );
  const half = MARK_MM / 2;
  const room = half + MARK_CLEAR_MM;
  const art = toPolygons(outline, BESIDE_MM / mmPerPx);
  const isFree = (x: number, y: number) => {
    const square = [x - room, y - room, x + room, y - room, x + room, y + room, x - room, y + room];
    const [one] = toPolygons([polygonPath(square.map((mm) => mm / mmPerPx))], 1);
    return polygonsArea(intersect([one], art)) === 0;
  };
  const corners = [
    { x: left, y: top, way: -1 },
    { x: right, y: top, way: 1 },
    { x: left, y: bottom, way: -1 },
  ];
  return corners.map(({ x, y, way }) => {
    const inside = { x: x - way * half, y: y === top ? y + half : y - half };
    const place = isFree(inside.x, inside.y) ? inside : { ...inside, x: x + way * room };
    return crossPath(place.x, place.y);
  });
}

function crossPath(x: number, y: number): CubicPath {
  const [a, b] = [MARK_MM / 2, MARK_THICK_MM / 2];
  const at = [-b, -a, b, -a, b, -b, a, -b, a, b, b, b, b, a, -b, a, -b, b, -a, b, -a, -b, -b, -b];
  return polygonPath(at.map((value, i) => value + (i % 2 === 0 ? x : y)));
}

function notchedBox(width: number, height: number, order: number): number[] {
  const { wide, deep, step } = NOTCH_MM;
  const notches = Array.from({ length: order }, (_, k) => step * (k + 1)).filter((x) => x + wide < width);
  const upper = notches.flatMap((x) => [x, 0, x + wide / 2, deep, x + wide, 0]);
  return [0, 0, ...upper, width, 0, width, height, 0, height, 0, 0];
}

/** Level lines from one side of the box to the other, as evenly as may be, where there is no film. */
function partWaste(film: readonly CubicPath[], width: number, height: number, everyMm: number): number[][] {
  const lines = film.map((path) => flattenPath(path, BESIDE_MM));
  const rows = Math.ceil(height / everyMm);
  return Array.from({ length: rows - 1 }, (_, k) => (height * (k + 1)) / rows).flatMap((y) => {
    const taken = spansNear(lines, y).sort(([a], [b]) => a - b);
    const open: number[][] = [];
    let from = 0;
    for (const [start, end] of [...taken, [width, width] as const]) {
      if (start - from >= LEAST_WEED_MM) open.push([from, y, start, y]);
      from = Math.max(from, end);
    }
    return open;
  });
}

/** Where film lies on a level line or nearer to it than weed lines keep, from and to. */
function spansNear(lines: readonly (readonly number[])[], y: number): (readonly [number, number])[] {
  const spans: (readonly [number, number])[] = [];
  const crossings: number[] = [];
  for (const line of lines)
    for (let i = 0; i + 3 < line.length; i += 2) {
      const [x0, y0, x1, y1] = [line[i], line[i + 1], line[i + 2], line[i + 3]];
      if (Math.max(y0, y1) > y - WEED_CLEAR_MM && Math.min(y0, y1) < y + WEED_CLEAR_MM) {
        // The part of the side that is that near.
        const at = (wanted: number) => x0 + ((wanted - y0) / (y1 - y0)) * (x1 - x0);
        const within = (v: number) => Math.min(Math.max(v, Math.min(y0, y1)), Math.max(y0, y1));
        const ends = y0 === y1 ? [x0, x1] : [at(within(y - WEED_CLEAR_MM)), at(within(y + WEED_CLEAR_MM))];
        spans.push([Math.min(...ends) - WEED_CLEAR_MM, Math.max(...ends) + WEED_CLEAR_MM]);
      }
      if (y0 > y !== y1 > y) crossings.push(x0 + ((y - y0) / (y1 - y0)) * (x1 - x0));
    }
  // Between the first crossing and the second it is film, and so on.
  crossings.sort((a, b) => a - b);
  for (let i = 0; i + 1 < crossings.length; i += 2) spans.push([crossings[i], crossings[i + 1]]);
  return spans;
}
