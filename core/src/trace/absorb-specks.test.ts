import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { findComponents, forEachContact, type LabelMap, NONE, regionAt, regionsOfPixels } from "../raster/index.ts";
import { absorbSpecks } from "./index.ts";

const maps = fc
  .tuple(fc.integer({ min: 1, max: 13 }), fc.integer({ min: 1, max: 9 }))
  .chain(([width, height]) =>
    fc
      .array(fc.constantFrom(0, 1, 2, NONE), { minLength: width * height, maxLength: width * height })
      .map((labels): LabelMap => ({ width, height, data: Uint8Array.from(labels) })),
  );

/** Regions by flood fill, the plain way. */
function flood({ width, height, data }: LabelMap): Int32Array {
  const of = new Int32Array(data.length).fill(-1);
  let next = 0;
  for (let start = 0; start < data.length; start++) {
    if (of[start] >= 0) continue;
    const open = [start];
    of[start] = next;
    for (let p = open.pop(); p !== undefined; p = open.pop()) {
      const x = p % width;
      const y = (p - x) / width;
      for (const [u, v] of [
        [x - 1, y],
        [x + 1, y],
        [x, y - 1],
        [x, y + 1],
      ]) {
        const q = v * width + u;
        if (u < 0 || v < 0 || u >= width || v >= height || of[q] >= 0 || data[q] !== data[start]) continue;
        of[q] = next;
        open.push(q);
      }
    }
    next++;
  }
  return of;
}

describe("regions", () => {
  it("are those of a flood fill, with their areas", () => {
    fc.assert(
      fc.property(maps, (map) => {
        const components = findComponents(map);
        const { label, areaPx } = components;
        const of = regionsOfPixels(components);
        expect([...of]).toEqual([...flood(map)]);
        for (let c = 0; c < label.length; c++) {
          const pixels = [...of.keys()].filter((p) => of[p] === c);
          expect(areaPx[c]).toBe(pixels.length);
          expect(pixels.every((p) => map.data[p] === label[c])).toBe(true);
          expect(pixels.every((p) => regionAt(components, p) === c)).toBe(true);
        }
      }),
    );
  });
  it("touch along as many pixel sides as there are between them", () => {
    fc.assert(
      fc.property(maps, (map) => {
        const components = findComponents(map);
        const of = regionsOfPixels(components);
        const { width } = map;
        const sides = new Map<string, number>();
        const add = (into: Map<string, number>, a: number, b: number, length: number) => {
          const key = [a, b].sort((u, v) => u - v).join();
          into.set(key, (into.get(key) ?? 0) + length);
        };
        for (let p = 0; p < of.length; p++) {
          if (p % width > 0 && of[p - 1] !== of[p]) add(sides, of[p - 1], of[p], 1);
          if (p >= width && of[p - width] !== of[p]) add(sides, of[p - width], of[p], 1);
        }
        const contacts = new Map<string, number>();
        forEachContact(components, width, (a, b, length) => add(contacts, a, b, length));
        expect(contacts).toEqual(sides);
      }),
    );
  });
  it("are the same wherever the labels lie in memory", () => {
    fc.assert(
      fc.property(maps, fc.integer({ min: 1, max: 3 }), (map, offset) => {
        const memory = new Uint8Array(map.data.length + offset);
        memory.set(map.data, offset);
        expect(findComponents({ ...map, data: memory.subarray(offset) })).toEqual(findComponents(map));
      }),
    );
  });
});

describe("specks", () => {
  it("go, and nothing larger changes its label", () => {
    fc.assert(
      fc.property(maps, fc.integer({ min: 1, max: 4 }), (map, maxAreaPx) => {
        const before = findComponents(map);
        const of = regionsOfPixels(before);
        const after = absorbSpecks(map, before, maxAreaPx);
        const isAllSpecks = before.areaPx.every((area) => area <= maxAreaPx);
        for (let p = 0; p < map.data.length; p++) {
          if (before.areaPx[of[p]] > maxAreaPx) expect(after.data[p]).toBe(map.data[p]);
          else if (!isAllSpecks) expect(before.label).toContain(after.data[p]);
        }
      }),
    );
  });
  it("join the neighbour with which they share most boundary", () => {
    const map: LabelMap = { width: 4, height: 3, data: Uint8Array.of(0, 0, 0, 1, 0, 2, 0, 1, 0, 0, 1, 1) };
    const cleaned = absorbSpecks(map, findComponents(map), 1);
    expect(cleaned.data[5]).toBe(0);
  });
  it("that are all there is stay: a picture never vanishes", () => {
    const map: LabelMap = { width: 2, height: 1, data: Uint8Array.of(0, 1) };
    expect(absorbSpecks(map, findComponents(map), 4)).toBe(map);
  });
});
