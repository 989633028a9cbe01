import { describe, expect, it } from "vitest";
import { polygonPath } from "../geometry/index.ts";
import { insetRings, listAreas, makeArea, type Ring } from "./area.ts";
import { type Column, findColumns } from "./columns.ts";
import { columnWidths, middleLine, sewSatin, sewZigzag } from "./satin.ts";
import { STATION_MM, STRIDE } from "./stations.ts";
import { backwards, circle, ring } from "./stitch.test.support.ts";
import { walkColumns } from "./walk.ts";

const columnsOf = (...rings: Ring[]) => {
  const area = makeArea(0, "aa0000", rings);
  return findColumns(area.rings, (2 * area.areaMm2) / area.aroundMm);
};
const lengthOf = ({ stations }: Column) => (stations.length / STRIDE) * STATION_MM;
/** What a column covers, counted rung by rung. */
const areaOf = (column: Column) => columnWidths(column).reduce((sum, width) => sum + width * STATION_MM, 0);

describe("columns", () => {
  it("of a bar are one, from end to end, as wide as it is", () => {
    const { columns, joints } = columnsOf(ring(0, 0, 20, 0, 20, 3, 0, 3));
    expect(columns).toHaveLength(1);
    expect(joints).toEqual([]);
    const widths = columnWidths(columns[0]);
    for (const width of widths.slice(40, -40)) expect(Math.abs(width - 3)).toBeLessThan(0.1);
    const middle = middleLine(columns[0], 0, widths.length - 1);
    expect(Math.min(...middle.filter((_, i) => i % 2 === 0))).toBeLessThan(0.3);
    expect(Math.max(...middle.filter((_, i) => i % 2 === 0))).toBeGreaterThan(19.7);
  });
  it("of a T are its bar, and its stem that ends under it", () => {
    const { columns, joints } = columnsOf(ring(0, 0, 15, 0, 15, 2, 8.5, 2, 8.5, 12, 6.5, 12, 6.5, 2, 0, 2));
    expect(columns).toHaveLength(2);
    expect(joints).toHaveLength(1);
    const [stem, bar] = [...columns].sort((a, b) => lengthOf(a) - lengthOf(b));
    expect(lengthOf(bar)).toBeGreaterThan(15);
    expect(lengthOf(stem)).toBeGreaterThan(9);
    expect(joints[0].map(({ column }) => column).sort()).toEqual([0, 1]);
  });
  it("of a ring are one that closes, whichever way its outlines were drawn", () => {
    for (const rings of [
      [circle(20, 20, 8), backwards(circle(20, 20, 5))],
      [backwards(circle(20, 20, 8)), circle(20, 20, 5)],
    ]) {
      const { columns } = columnsOf(...rings);
      expect(columns).toHaveLength(1);
      expect(columns[0].isClosed).toBe(true);
      expect(Math.abs(lengthOf(columns[0]) / (2 * Math.PI * 6.5) - 1)).toBeLessThan(0.03);
    }
  });
  it("of letters with counters hang together, and cover about as much as the letter", () => {
    // A figure of eight of straight strokes, 2 mm wide.
    const eight = [
      ring(0, 0, 10, 0, 10, 18, 0, 18),
      backwards(ring(2, 2, 8, 2, 8, 8, 2, 8)),
      backwards(ring(2, 10, 8, 10, 8, 16, 2, 16)),
    ];
    const found = columnsOf(...eight);
    const covered = found.columns.reduce((sum, column) => sum + areaOf(column), 0);
    const whole = makeArea(0, "aa0000", eight).areaMm2;
    expect(covered / whole).toBeGreaterThan(0.9);
    expect(covered / whole).toBeLessThan(1.3);
    const passed = new Set(walkColumns(found, 0, 0).map(({ column }) => column));
    expect(passed.size).toBe(found.columns.length);
  });
  it("of a dot cross it straight over, along its longer side", () => {
    const { columns } = columnsOf(ring(0, 0, 5, 0, 5, 4, 0, 4));
    expect(columns).toHaveLength(1);
    for (let k = 0; k < columns[0].stations.length; k += STRIDE) {
      const [ax, , bx] = columns[0].stations.subarray(k, k + STRIDE);
      expect(Math.abs(ax - bx)).toBeLessThan(0.1);
    }
  });
  it("are found where an outline touches itself or a hole touches it", () => {
    // Two squares that meet in a corner; a square whose hole meets its side.
    expect(columnsOf(ring(0, 0, 4, 0, 4, 4, 8, 4, 8, 8, 4, 8, 4, 4, 0, 4)).columns.length).toBeGreaterThan(0);
    const touching = columnsOf(ring(0, 0, 8, 0, 8, 8, 0, 8), backwards(ring(3, 0, 5, 2, 3, 4, 1, 2)));
    expect(touching.columns.length).toBeGreaterThan(0);
  });
  it("are found where a corner lies exactly on a side of the triangles that were there before: a counterexample is kept", () => {
    const band = [
      ...[34.220458984375, 62.982666015625, 33.789794921875, 63.02685546875],
      ...[33.724609375, 63.0498046875, 33.350341796875, 63.288818359375],
      ...[33.3017578125, 63.339111328125, 33.07666015625, 63.722412109375],
      ...[33.05615234375, 63.788818359375, 33.0283203125, 64.220947265625],
      ...[33.0400390625, 64.2890625, 33.19384765625, 64.6513671875],
      ...[33.28857421875, 64.722900390625, 33.28662109375, 64.726806640625],
      ...[33.360595703125, 64.768798828125, 33.40625, 64.827392578125],
      ...[33.41357421875, 64.8359375, 33.4619140625, 64.889404296875],
      ...[33.501953125, 64.9208984375, 52.46875, 75.125732421875],
      ...[52.5458984375, 75.143310546875, 53.0458984375, 75.122802734375],
      ...[53.10302734375, 75.109130859375, 53.4853515625, 74.93115234375],
      ...[53.535400390625, 74.8935546875, 53.78076171875, 74.611083984375],
      ...[53.81103515625, 74.5556640625, 53.9140625, 74.2109375],
      ...[53.9189453125, 74.14697265625, 53.867431640625, 73.781494140625],
      ...[53.84521484375, 73.721435546875, 53.62109375, 73.372314453125],
      ...[53.5791015625, 73.329345703125, 53.13818359375, 73.02978515625],
      ...[53.124755859375, 73.021728515625, 34.748046875, 63.168212890625],
      ...[34.730712890625, 63.16015625, 34.289306640625, 62.99169921875],
    ];
    expect(columnsOf(ring(...band)).columns).toHaveLength(1);
  });
  it("of pieces that were one area are each their own", () => {
    const { columns, joints } = columnsOf(ring(0, 0, 20, 0, 20, 2, 0, 2), ring(0, 6, 12, 6, 12, 8, 0, 8));
    expect(columns.map(lengthOf).map(Math.round).sort()).toEqual([14, 22]);
    expect(joints).toEqual([]);
  });
});

describe("a walk over columns", () => {
  it("passes each out and back, children before what they hang on, and ends where it began", () => {
    const comb = ring(
      0,
      0,
      30,
      0,
      30,
      2,
      26,
      2,
      26,
      10,
      24,
      10,
      24,
      2,
      16,
      2,
      16,
      10,
      14,
      10,
      14,
      2,
      6,
      2,
      6,
      10,
      4,
      10,
      4,
      2,
      0,
      2,
    );
    const found = columnsOf(comb);
    const long = found.columns.reduce((best, column, i, all) => (lengthOf(column) > lengthOf(all[best]) ? i : best), 0);
    const walked = walkColumns(found, long, 20);
    expect(walked[0]).toMatchObject({ way: "out", column: long, from: 20 });
    expect(walked[walked.length - 1]).toMatchObject({ way: "back", column: long, to: 20 });
    for (const [c, column] of found.columns.entries()) {
      const of = (way: string) =>
        walked
          .filter((one) => one.column === c && one.way === way)
          .reduce((sum, { from, to }) => sum + Math.abs(to - from), 0);
      expect(of("out")).toBe(column.stations.length / STRIDE - 1);
      expect(of("back")).toBe(of("out"));
    }
    // What hangs on the long way is covered before that is.
    const covered = walked.slice(0, -1).flatMap(({ way, column }) => (way === "back" ? [column] : []));
    for (const c of found.columns.keys()) expect(covered).toContain(c);
  });
});

describe("satin along a column", () => {
  const numbers = { spacingMm: 0.4, pullAt: () => 0.2, splitMm: 7 };
  const straight = (width: number, long = 12): Column => ({
    isClosed: false,
    stations: Float64Array.from(Array.from({ length: long * 10 + 1 }, (_, k) => [k * 0.1, 0, k * 0.1, width]).flat()),
  });
  const rails = (needles: readonly number[]) =>
    Array.from({ length: needles.length / 2 }, (_, i) => needles.slice(i * 2, i * 2 + 2));

  it("goes from rail to rail, 0.4 mm on each, wider by the pull at both ends", () => {
    const sewn = rails(sewSatin(straight(3), 0, 120, numbers));
    sewn.forEach(([x, y], i) => {
      expect(y).toBeCloseTo(i % 2 === 0 ? -0.2 : 3.2, 6);
      if (i > 1 && i < sewn.length - 1) expect(x - sewn[i - 2][0]).toBeCloseTo(0.4, 6);
    });
    const back = rails(sewSatin(straight(3), 120, 0, numbers));
    expect(Math.abs(back.length - sewn.length)).toBeLessThanOrEqual(1);
    expect(back[0][0]).toBeGreaterThan(back[back.length - 1][0]);
  });
  it("is parted where it is wider than 7 mm, at places that make no groove", () => {
    const sewn = rails(sewSatin(straight(9), 0, 120, numbers));
    const inner = sewn.filter(([, y]) => y > 0 && y < 9);
    expect(inner.length).toBeGreaterThan(50);
    expect(new Set(inner.map(([, y]) => y.toFixed(1))).size).toBeGreaterThanOrEqual(4);
    for (let i = 1; i < sewn.length; i++)
      expect(Math.hypot(sewn[i][0] - sewn[i - 1][0], sewn[i][1] - sewn[i - 1][1])).toBeLessThanOrEqual(7);
  });
  it("leaves no stitch too short where the column is thinner than a needle places", () => {
    const sewn = rails(sewSatin(straight(0.3), 0, 120, { ...numbers, pullAt: () => 0 }));
    for (let i = 1; i < sewn.length; i++)
      expect(Math.hypot(sewn[i][0] - sewn[i - 1][0], sewn[i][1] - sewn[i - 1][1])).toBeGreaterThanOrEqual(0.5);
  });
  it("keeps needle points of the inner rail of a tight bend a quarter of a millimetre apart", () => {
    // A quarter turn round a point: the inner rail stays where it is.
    const turn: Column = {
      isClosed: false,
      stations: Float64Array.from(
        Array.from({ length: 121 }, (_, k) => {
          const a = (k / 120) * (Math.PI / 2);
          return [0.3 * Math.cos(a), 0.3 * Math.sin(a), 4 * Math.cos(a), 4 * Math.sin(a)];
        }).flat(),
      ),
    };
    const sewn = rails(sewSatin(turn, 0, 120, { ...numbers, pullAt: () => 0 }));
    const inner = sewn.filter((_, i) => i % 2 === 0);
    for (let i = 1; i < inner.length; i++)
      expect(Math.hypot(inner[i][0] - inner[i - 1][0], inner[i][1] - inner[i - 1][1])).toBeGreaterThan(0.24);
    // The outer ones stay on their rail.
    for (const [x, y] of sewn.filter((_, i) => i % 2 === 1)) expect(Math.hypot(x, y)).toBeCloseTo(4, 1);
  });
  it("has a zigzag under it, inside both rails, a turn every millimetre", () => {
    const sewn = rails(sewZigzag(straight(4), 0, 120, 2, 0.4));
    for (const [, y] of sewn) expect([0.4, 3.6].some((rail) => Math.abs(y - rail) < 1e-6)).toBe(true);
    expect(sewn[5][0] - sewn[4][0]).toBeCloseTo(1, 6);
  });
});

describe("areas", () => {
  it("are inset and grown like Minkowski sums: a square by a millimetre", () => {
    const area = makeArea(0, "aa0000", [ring(0, 0, 10, 0, 10, 10, 0, 10)]);
    const inner = makeArea(0, "aa0000", insetRings(area.rings, 1));
    expect(inner.areaMm2).toBeCloseTo(64, 2);
    const outer = makeArea(0, "aa0000", insetRings(area.rings, -1));
    expect(Math.abs(outer.areaMm2 - (100 + 40 + Math.PI))).toBeLessThan(0.1);
  });
  it("lose slivers that hang on them, and stay if they are thin altogether", () => {
    const face = (points: number[]) => ({ spotId: "aa0000", areaPx: 0, rings: [], paths: [polygonPath(points)] });
    const spots = [{ id: "aa0000", role: "ink" }] as never;
    const map = (points: number[]) => ({ width: 100, height: 100, faces: [face(points)] }) as never;
    const spike = [0, 0, 20, 0, 20, 10, 10.1, 10, 10, 16, 9.9, 10, 0, 10];
    const [cut] = listAreas({ map: map(spike), spots, widthMm: 100 });
    expect(Math.max(...Array.from(cut.rings[0]).filter((_, i) => i % 2 === 1))).toBeLessThan(10.5);
    const [thin] = listAreas({ map: map([0, 0, 20, 0, 20, 0.2, 0, 0.2]), spots, widthMm: 100 });
    expect(thin.areaMm2).toBeCloseTo(4, 3);
  });
});
