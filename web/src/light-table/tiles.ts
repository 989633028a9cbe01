// What lies on the table, painted in tiles that stay: moving the table moves them, and only what comes into sight is painted,
// a little in every frame. So the table follows the hand however much lies on it.
import { changedBoxes } from "./changed-boxes.ts";
import { drawLayer, REACH_PX, type TableLayer } from "./layers.ts";

/** Where table units lie on the screen: screen px = units * zoom + x. */
export interface View {
  readonly zoom: number;
  readonly x: number;
  readonly y: number;
}

/** Farthest and nearest. */
export const MIN_ZOOM = 0.01;
export const MAX_ZOOM = 80;

export interface Size {
  readonly width: number;
  readonly height: number;
}

/** Side of a tile, device px: small enough to be painted within a frame, so large that what each costs by itself is little. */
const TILE_PX = 256;
/** Tiles that are kept at least, and how many screens full on a large screen. */
const LEAST_KEPT = 150;
const SCREENS_KEPT = 2;
/** Painting in one frame, ms: while the table moves, and when what lies on it has changed. */
const MOVING_MS = 10;
const CHANGED_MS = 60;

interface Sheet {
  readonly layers: readonly TableLayer[];
  readonly zoom: number;
  readonly ratio: number;
  /** By column and row from the table's origin; the least recently shown first. */
  readonly tiles: Map<string, ImageBitmap>;
}

const EMPTY: Sheet = { layers: [], zoom: 1, ratio: 1, tiles: new Map() };

/** Paints layers, as far as time allows. */
export class TilePainter {
  private sheet = EMPTY;
  /** What was shown before and stands in for tiles that are not painted yet. */
  private before = EMPTY;

  /** Draws what is to be seen in a window of `size` screen px at `ratio` device px each. Returns whether all of it was there. */
  paint(
    context: CanvasRenderingContext2D,
    layers: readonly TableLayer[],
    view: View,
    size: Size,
    ratio: number,
  ): boolean {
    const { sheet: last } = this;
    const isOld = last.layers.length === layers.length && last.layers.every((layer, i) => layer === layers[i]);
    if (!isOld || last.zoom !== view.zoom || last.ratio !== ratio) {
      // One that was hardly begun stands in for nothing.
      if (last.tiles.size > this.before.tiles.size / 4) this.before = last;
      const isSameScale = last.zoom === view.zoom && last.ratio === ratio;
      const tiles = isSameScale ? tilesThatHold(last, layers) : new Map<string, ImageBitmap>();
      this.sheet = { layers, zoom: view.zoom, ratio, tiles };
    }
    const { tiles } = this.sheet;
    const side = TILE_PX / ratio;
    const x0 = Math.round(view.x * ratio) / ratio;
    const y0 = Math.round(view.y * ratio) / ratio;
    const missing: { key: string; column: number; row: number; far: number }[] = [];
    const shown: { tile: ImageBitmap; x: number; y: number }[] = [];
    for (let row = Math.floor(-y0 / side); row * side + y0 < size.height; row++)
      for (let column = Math.floor(-x0 / side); column * side + x0 < size.width; column++) {
        const key = `${column} ${row}`;
        const x = x0 + column * side;
        const y = y0 + row * side;
        const tile = tiles.get(key);
        if (tile) {
          tiles.delete(key);
          tiles.set(key, tile);
          shown.push({ tile, x, y });
        } else {
          const far = Math.max(Math.abs(x + side / 2 - size.width / 2), Math.abs(y + side / 2 - size.height / 2));
          missing.push({ key, column, row, far });
        }
      }
    missing.sort((a, b) => b.far - a.far);
    const until = performance.now() + (isOld ? MOVING_MS : CHANGED_MS);
    while (missing.length > 0 && performance.now() < until) {
      const next = missing.pop();
      if (!next) break;
      const tile = paintTile(this.sheet, next.column, next.row);
      tiles.set(next.key, tile);
      shown.push({ tile, x: x0 + next.column * side, y: y0 + next.row * side });
    }
    if (missing.length > 0) this.drawBefore(context, view, ratio, size);
    else this.before = EMPTY;
    for (const { tile, x, y } of shown) {
      if (missing.length > 0) context.clearRect(x, y, side, side);
      context.drawImage(tile, x, y, side, side);
    }
    const kept = Math.max(LEAST_KEPT, SCREENS_KEPT * (shown.length + missing.length));
    for (const key of tiles.keys()) {
      if (tiles.size <= kept) break;
      tiles.delete(key);
    }
    return missing.length === 0;
  }

  /** What was shown before, at the scale of now. */
  private drawBefore(context: CanvasRenderingContext2D, view: View, ratio: number, size: Size): void {
    const side = (TILE_PX / this.before.ratio) * (view.zoom / this.before.zoom);
    for (const [key, tile] of this.before.tiles) {
      const [column, row] = placeOf(key);
      const left = Math.round((view.x + column * side) * ratio) / ratio;
      const top = Math.round((view.y + row * side) * ratio) / ratio;
      const right = Math.round((view.x + (column + 1) * side) * ratio) / ratio;
      const bottom = Math.round((view.y + (row + 1) * side) * ratio) / ratio;
      if (right < 0 || bottom < 0 || left > size.width || top > size.height) continue;
      context.drawImage(tile, left, top, right - left, bottom - top);
    }
  }
}

/** Column and row of a tile. */
function placeOf(key: string): readonly [number, number] {
  const [column = 0, row = 0] = key.split(" ").map(Number);
  return [column, row];
}

/** Tiles of a sheet that look the same with other layers. */
function tilesThatHold({ layers: old, zoom, ratio, tiles }: Sheet, layers: readonly TableLayer[]): Sheet["tiles"] {
  const boxes = changedBoxes(old, layers);
  if (!boxes) return new Map();
  const holding = new Map(tiles);
  const unitsPerTile = TILE_PX / (zoom * ratio);
  const places = Array.from(tiles.keys(), placeOf);
  const extent = (numbers: readonly number[]) => ({ least: Math.min(...numbers), most: Math.max(...numbers) });
  const [columns, rows] = [extent(places.map(([column]) => column)), extent(places.map(([, row]) => row))];
  /** Of numbered tiles those that lie between two places of the table. */
  const between = (from: number, to: number, { least, most }: ReturnType<typeof extent>) => ({
    first: Math.max(Math.floor(from / unitsPerTile), least),
    last: Math.min(Math.floor(to / unitsPerTile), most),
  });
  for (const { left, top, right, bottom, width } of boxes) {
    const reach = REACH_PX / zoom + width;
    const across = between(left - reach, right + reach, columns);
    const down = between(top - reach, bottom + reach, rows);
    for (let row = down.first; row <= down.last; row++)
      for (let column = across.first; column <= across.last; column++) holding.delete(`${column} ${row}`);
  }
  return holding;
}

let easel: OffscreenCanvas | null = null;

/** A tile as a picture of its own: a canvas costs ten times as much to make, and as much to draw. */
function paintTile({ layers, zoom, ratio }: Sheet, column: number, row: number): ImageBitmap {
  easel ??= new OffscreenCanvas(TILE_PX, TILE_PX);
  const context = easel.getContext("2d");
  if (!context) return easel.transferToImageBitmap();
  const scale = zoom * ratio;
  context.setTransform(scale, 0, 0, scale, -column * TILE_PX, -row * TILE_PX);
  const box = {
    left: (column * TILE_PX) / scale,
    top: (row * TILE_PX) / scale,
    right: ((column + 1) * TILE_PX) / scale,
    bottom: ((row + 1) * TILE_PX) / scale,
  };
  for (const layer of layers) drawLayer(context, layer, zoom, box);
  return easel.transferToImageBitmap();
}
