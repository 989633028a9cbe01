import { describe, expect, it } from "vitest";
import { backwards, ring } from "../area/area.test.support.ts";
import { type Column, columnWidths, findColumns, makeArea, type Ring, STATION_MM, STRIDE } from "../area/index.ts";
import { sewSatin, sewZigzag } from "./satin.ts";
import { walkColumns } from "./walk.ts";

const columnsOf = (...rings: Ring[]) => {
  const area = makeArea(0, "aa0000", rings);
  return findColumns(area.rings, (2 * area.areaMm2) / area.aroundMm);
};
const lengthOf = ({ stations }: Column) => (stations.length / STRIDE) * STATION_MM;
/** What a column covers, counted rung by rung. */
const areaOf = (column: Column) => columnWidths(column).reduce((sum, width) => sum + width * STATION_MM, 0);

describe("a walk over columns", () => {
  it("of letters with counters passes all of them, and cover about as much as the letter", () => {
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
