// Stones where they lie, and which places are free between them.
import type { MeasuredLine } from "../area/index.ts";
import { lengthOf } from "../geometry/index.ts";
import { diameterOf, STONE_SIZES, type StoneSize } from "../trade/index.ts";

/** A stone's middle, mm from the design's top left corner. */
export interface Stone {
  readonly x: number;
  readonly y: number;
  readonly size: StoneSize;
  readonly spotId: string;
  /** The number of the row that it was set in; -1: in none. */
  readonly row: number;
}

/** What stones are set along. */
export interface Row {
  readonly line: MeasuredLine;
  /** Whether its last point is its first. */
  readonly isClosed: boolean;
  readonly size: StoneSize;
  readonly spotId: string;
  /** Distances along the line at which a stone has to be, whatever it looks like there. */
  readonly fixed: readonly number[];
}

/** How far stones are apart, from edge to edge, mm. */
export interface Gaps {
  readonly gapMm: number;
  /** Never less. */
  readonly leastMm: number;
}

/** Squares of the index are as wide as the largest stone and a gap: what is near lies in one of nine. */
const SQUARE_MM = 8;
/** What numbers lose on the way, mm. */
const NOUGHT_MM = 1e-6;

/** Stones that are set, by place, and the rows that they were set in. */
export class Setting {
  private readonly squares = new Map<number, Stone[]>();
  private readonly all = new Set<Stone>();
  private readonly numbers = new Map<Row, number>();

  constructor(readonly leastMm: number) {
    if (SQUARE_MM < diameterOf(STONE_SIZES[STONE_SIZES.length - 1]) + leastMm)
      throw new RangeError(`a gap of ${leastMm} mm is more than stones are looked for around a place`);
  }

  get stones(): readonly Stone[] {
    return [...this.all];
  }

  /** By their numbers. */
  get rows(): readonly Row[] {
    return [...this.numbers.keys()];
  }

  /** A row's number; it is given one when it is first asked for. */
  numberOf(row: Row): number {
    const number = this.numbers.get(row) ?? this.numbers.size;
    this.numbers.set(row, number);
    return number;
  }

  /** Whether a stone of a size can lie at a place: no other nearer than the least gap, but for some that do not count. */
  isFree(x: number, y: number, size: StoneSize, except: readonly Stone[] = []): boolean {
    const own = diameterOf(size) / 2;
    const [column, row] = [Math.floor(x / SQUARE_MM), Math.floor(y / SQUARE_MM)];
    for (let dy = -1; dy <= 1; dy++)
      for (let dx = -1; dx <= 1; dx++)
        for (const stone of this.squares.get(keyOf(column + dx, row + dy)) ?? [])
          if (
            lengthOf(stone.x - x, stone.y - y) < own + diameterOf(stone.size) / 2 + this.leastMm - NOUGHT_MM &&
            !except.includes(stone)
          )
            return false;
    return true;
  }

  /** Stones whose middles lie within a distance of a place, a square at most. */
  near(x: number, y: number, withinMm: number): Stone[] {
    const found: Stone[] = [];
    const [column, row] = [Math.floor(x / SQUARE_MM), Math.floor(y / SQUARE_MM)];
    for (let dy = -1; dy <= 1; dy++)
      for (let dx = -1; dx <= 1; dx++)
        for (const stone of this.squares.get(keyOf(column + dx, row + dy)) ?? [])
          if (lengthOf(stone.x - x, stone.y - y) <= withinMm) found.push(stone);
    return found;
  }

  /** Sets a stone; whether its place is free is for the caller to ask. */
  set(stone: Stone): Stone {
    const key = keyOf(Math.floor(stone.x / SQUARE_MM), Math.floor(stone.y / SQUARE_MM));
    const square = this.squares.get(key);
    if (square) square.push(stone);
    else this.squares.set(key, [stone]);
    this.all.add(stone);
    return stone;
  }

  /** The same stones and rows, to be changed without changing these. */
  copy(): Setting {
    const other = new Setting(this.leastMm);
    for (const row of this.numbers.keys()) other.numberOf(row);
    for (const stone of this.all) other.set(stone);
    return other;
  }

  has(stone: Stone): boolean {
    return this.all.has(stone);
  }

  take(stone: Stone): void {
    const square = this.squares.get(keyOf(Math.floor(stone.x / SQUARE_MM), Math.floor(stone.y / SQUARE_MM)));
    square?.splice(square.indexOf(stone), 1);
    this.all.delete(stone);
  }

  /** Sets a stone if its place is free. */
  trySet(stone: Stone): Stone | null {
    return this.isFree(stone.x, stone.y, stone.size) ? this.set(stone) : null;
  }
}

/** Columns and rows from -32768 to 32767. */
function keyOf(column: number, row: number): number {
  return (column + 32768) * 65536 + row + 32768;
}
