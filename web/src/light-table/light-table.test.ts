import { polygonPath } from "@plain-palette/core/geometry";
import { beforeAll, describe, expect, it } from "vitest";
import { FakeCanvas, type FakePath, stubCanvas } from "../testing/canvas.test.support.ts";
import type { TableLayer } from "./layers.ts";
import { makePieces, makePolylinePieces, partOf } from "./pieces.ts";
import { TilePainter } from "./tiles.ts";

beforeAll(stubCanvas);

const square = (x: number, y: number, side: number) =>
  polygonPath([x, y, x + side, y, x + side, y + side, x, y + side]);
const partsOf = (path: unknown) => (path as FakePath).parts.map(({ points }) => points[0]);

describe("a part of the table", () => {
  it("draws what reaches into it, by boxes that hold control points too, and nothing else", () => {
    const pieces = makePieces([square(0, 0, 10), square(50, 50, 10), square(8, 8, 4)], true);
    expect(partsOf(partOf(pieces, { left: 9, top: 9, right: 20, bottom: 20 }))).toEqual([
      [0, 0],
      [8, 8],
    ]);
    expect(partsOf(partOf(pieces, { left: 20, top: 0, right: 40, bottom: 100 }))).toEqual([]);
    const bulge = makePieces([Float64Array.of(0, 0, 0, 40, 10, 40, 10, 0)], false);
    expect(partsOf(partOf(bulge, { left: 0, top: 25, right: 5, bottom: 26 }))).toHaveLength(1);
  });

  it("has lines as well as curves", () => {
    const lines = makePolylinePieces([
      [0, 0, 100, 0],
      [0, 50, 100, 60],
    ]);
    expect(partsOf(partOf(lines, { left: 40, top: 52, right: 41, bottom: 53 }))).toEqual([[0, 50]]);
  });
});

describe("tiles", () => {
  const drawn: [number, number][] = [];
  const context = {
    clearRect() {},
    drawImage: (_tile: unknown, x: number, y: number) => drawn.push([x, y]),
  } as unknown as CanvasRenderingContext2D;
  const size = { width: 1024, height: 512 };
  const paint = (
    painter: TilePainter,
    view: { zoom: number; x: number; y: number },
    layers: readonly TableLayer[] = [],
  ) => {
    const before = FakeCanvas.pictures;
    drawn.length = 0;
    const isWhole = painter.paint(context, layers, view, size, 1);
    return { isWhole, painted: FakeCanvas.pictures - before, shown: drawn.length };
  };

  it("are painted once: moving the table paints only what comes into sight", () => {
    const painter = new TilePainter();
    expect(paint(painter, { zoom: 1, x: 0, y: 0 })).toEqual({ isWhole: true, painted: 8, shown: 8 });
    expect(paint(painter, { zoom: 1, x: 0, y: 0 }).painted).toBe(0);
    // By half a tile to the right: one more column of two.
    expect(paint(painter, { zoom: 1, x: -128, y: 0 })).toEqual({ isWhole: true, painted: 2, shown: 10 });
    expect(paint(painter, { zoom: 1, x: 0, y: 0 }).painted).toBe(0);
  });

  it("are painted anew at another zoom, and when something else lies there", () => {
    const painter = new TilePainter();
    paint(painter, { zoom: 1, x: 0, y: 0 });
    expect(paint(painter, { zoom: 2, x: 0, y: 0 }).painted).toBe(8);
    expect(paint(painter, { zoom: 2, x: 0, y: 0 }, [{} as never]).painted).toBe(8);
  });

  it("are kept where a change does not reach", () => {
    const painter = new TilePainter();
    const view = { zoom: 1, x: 0, y: 0 };
    const fillsOf =
      (colour: string) =>
      (...squares: [number, number, number][]): readonly TableLayer[] => {
        const path = makePieces(
          squares.map((one) => square(...one)),
          true,
        );
        return [{ kind: "fills", fills: [{ colour, path }] }];
      };
    const fills = fillsOf("#14304f");
    paint(painter, view, fills([20, 20, 100], [600, 20, 50]));
    // The same again, drawn from other arrays; then one moved within its tile; then one over a seam of two.
    expect(paint(painter, view, fills([20, 20, 100], [600, 20, 50])).painted).toBe(0);
    expect(paint(painter, view, fills([20, 20, 100], [610, 30, 50])).painted).toBe(1);
    expect(paint(painter, view, fills([20, 20, 100], [610, 30, 50], [250, 100, 20])).painted).toBe(2);
    // In another colour all of its tiles are.
    expect(paint(painter, view, fillsOf("#d8412f")([20, 20, 100])).painted).toBe(3);
  });
});
