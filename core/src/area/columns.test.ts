import { describe, expect, it } from "vitest";
import { polygonPath } from "../geometry/index.ts";
import { backwards, circle, ring } from "./area.test.support.ts";
import { insetRings, listAreas, makeArea, type Ring } from "./area.ts";
import { columnWidths, middleLine } from "./column-lines.ts";
import { type Column, findColumns } from "./columns.ts";
import { STATION_MM, STRIDE } from "./stations.ts";

const columnsOf = (...rings: Ring[]) => {
  const area = makeArea(0, "aa0000", rings);
  return findColumns(area.rings, (2 * area.areaMm2) / area.aroundMm);
};
const lengthOf = ({ stations }: Column) => (stations.length / STRIDE) * STATION_MM;

// Found by a random star: the library that triangulates went round for ever on it.
it("ends for a star whose corners lie all but exactly on lines between others", () => {
  const star = ring(
    ...[39.69216534655493, 20.307834653445063, 29.999999999999996, 14.015233217955213],
    ...[20.307834653445063, 20.307834653445067, 14.015233217955213, 30.000000000000004],
    ...[20.307834653445067, 39.69216534655494, 30, 45.98476678204479],
    ...[39.69216534655494, 39.69216534655493, 45.98476678204479, 30],
  );
  for (const rings of [
    [star, circle(30, 30, 0.5, 24)],
    [star, backwards(circle(30, 30, 0.5, 24))],
    [backwards(star), circle(30, 30, 0.5, 24)],
  ])
    expect(findColumns(rings, 8).columns.length).toBeGreaterThan(0);
});

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
