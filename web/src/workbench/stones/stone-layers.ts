// Stones as they lie on the table: cut glass that catches the light, the gaps between them, and the one that is in hand.
import type { Rgb } from "@plain-palette/core/colour";
import type { Point } from "@plain-palette/core/raster";
import { type GapKind, type Gaps, measureGaps, type Stone } from "@plain-palette/core/stone";
import { diameterOf } from "@plain-palette/core/trade";
import type { TableLayer } from "../../light-table/layers.ts";
import { makePiece, type Pieces } from "../../light-table/pieces.ts";
import { onArt } from "../areas/on-table.ts";

/** Stones are drawn by squares of this side, mm: what is looked at is drawn, and little beside it. */
const SQUARE_MM = 24;
/** The flat top of a stone, as a share of its width, with so many corners. */
const TOP_SHARE = 0.56;
const FACETS = 8;
/** Light falls from the upper left: how much lighter and darker facets are, and the spark on the edge of the top. */
const LIGHTER = 0.34;
const DARKER = 0.3;

const GAP_COLOURS: Readonly<Record<GapKind, string>> = { near: "#b3261e", even: "#0b6a4f", wide: "#c98500" };

/** A colour nearer to white (share over 0) or to black, as CSS has it. */
export function lit([r, g, b]: Rgb, share: number): string {
  const towards = share > 0 ? 255 : 0;
  return `rgb(${[r, g, b].map((v) => Math.round(v + (towards - v) * Math.abs(share))).join(" ")})`;
}

/** What is drawn of stones, square by square. */
function piecesOf(stones: readonly Stone[], draw: (path: Path2D, stone: Stone, radius: number) => void): Pieces {
  const squares = new Map<string, Stone[]>();
  for (const stone of stones) {
    const key = `${Math.floor(stone.x / SQUARE_MM)} ${Math.floor(stone.y / SQUARE_MM)}`;
    const own = squares.get(key);
    if (own) own.push(stone);
    else squares.set(key, [stone]);
  }
  return [...squares.values()].map((own) => {
    let [left, top, right, bottom] = [1e9, 1e9, -1e9, -1e9];
    for (const stone of own) {
      const radius = diameterOf(stone.size) / 2;
      [left, top] = [Math.min(left, stone.x - radius), Math.min(top, stone.y - radius)];
      [right, bottom] = [Math.max(right, stone.x + radius), Math.max(bottom, stone.y + radius)];
    }
    // Each layer draws stones in one way, so that what is drawn follows from where they lie.
    const lines = own.map(({ x, y, size }) => [x, y, diameterOf(size)]);
    return makePiece(lines, { left, top, right, bottom }, (path) => {
      for (const stone of own) draw(path, stone, diameterOf(stone.size) / 2);
    });
  });
}

function disc(path: Path2D, { x, y }: Point, radius: number): void {
  path.moveTo(x + radius, y);
  path.arc(x, y, radius, 0, 2 * Math.PI);
}

/** Corners of a stone's flat top, from one to another. */
function facets(path: Path2D, { x, y }: Point, radius: number, from: number, to: number, isOuter: boolean): void {
  const corner = (k: number, r: number) => {
    const angle = ((k + 0.5) * 2 * Math.PI) / FACETS;
    path.lineTo(x + r * Math.cos(angle), y + r * Math.sin(angle));
  };
  const top = radius * TOP_SHARE;
  const angle = ((from + 0.5) * 2 * Math.PI) / FACETS;
  path.moveTo(x + top * Math.cos(angle), y + top * Math.sin(angle));
  for (let k = from + 1; k <= to; k++) corner(k, top);
  if (isOuter) for (let k = to; k >= from; k--) corner(k, radius * 0.96);
  path.closePath();
}

/** Stones of one spot: the whole in its colour, facets towards the light and away from it, the top, a spark. */
export function stoneLayer(stones: readonly Stone[], rgb: Rgb, mmPerPx: number): TableLayer {
  const fill = (colour: string, draw: (path: Path2D, stone: Stone, radius: number) => void) => ({
    colour,
    path: piecesOf(stones, draw),
  });
  return {
    kind: "fills",
    fills: [
      fill(lit(rgb, -DARKER), disc),
      fill(rgbOf(rgb), (path, stone, radius) => disc(path, stone, radius * 0.93)),
      // Towards the upper left corners 3 to 6 of eight, counted from the right round by the bottom.
      fill(lit(rgb, LIGHTER), (path, stone, radius) => facets(path, stone, radius, 3, 6, true)),
      fill(lit(rgb, -DARKER / 2), (path, stone, radius) => facets(path, stone, radius, -1, 2, true)),
      fill(lit(rgb, LIGHTER / 2), (path, stone, radius) => facets(path, stone, radius, 0, FACETS - 1, false)),
      fill("rgb(255 255 255 / .85)", (path, { x, y }, radius) =>
        disc(path, { x: x - 0.3 * radius, y: y - 0.3 * radius }, 0.13 * radius),
      ),
    ],
    transform: onArt(mmPerPx),
  };
}

function rgbOf([r, g, b]: Rgb): string {
  return `rgb(${r} ${g} ${b})`;
}

/** Gaps as lines from stone to stone: too near, even, too wide. */
export function gapLayers(stones: readonly Stone[], gaps: Gaps, mmPerPx: number): TableLayer[] {
  const paths: Record<GapKind, Path2D> = { near: new Path2D(), even: new Path2D(), wide: new Path2D() };
  for (const { one, other, kind } of measureGaps(stones, gaps)) {
    const [a, b] = [stones[one], stones[other]];
    if (!a || !b) continue;
    paths[kind].moveTo(a.x / mmPerPx, a.y / mmPerPx);
    paths[kind].lineTo(b.x / mmPerPx, b.y / mmPerPx);
  }
  return (["even", "wide", "near"] as const).map((kind) => ({
    ...{ kind: "strokes", path: paths[kind], colour: GAP_COLOURS[kind], screenPx: 2, isHaloed: true },
  }));
}

/** Rings round stones. */
export function ringStones(stones: readonly Stone[], mmPerPx: number, colour: string): TableLayer {
  const path = new Path2D();
  for (const { x, y, size } of stones) {
    const radius = (diameterOf(size) / 2 + 0.25) / mmPerPx;
    path.moveTo(x / mmPerPx + radius, y / mmPerPx);
    path.arc(x / mmPerPx, y / mmPerPx, radius, 0, 2 * Math.PI);
  }
  return { kind: "strokes", path, colour, screenPx: 2, isHaloed: true };
}
