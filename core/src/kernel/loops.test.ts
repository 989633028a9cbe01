import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { kernelCode } from "../../../tools/kernel.ts";
import { NONE, type Raster, smoothNoise } from "../raster/index.ts";
import { findFlatPixels } from "../reduce/flat.ts";
import { CODE } from "./code.ts";
import { bytesAt, compiledLoops, makeRoom } from "./index.ts";

/** Small pictures of any width, so that every place of a vector is at a side once, in a few near colours, some transparent. */
const pictures = fc
  .tuple(fc.integer({ min: 1, max: 23 }), fc.integer({ min: 1, max: 9 }), fc.array(fc.nat(0xffff), { minLength: 8 }))
  .map(([width, height, seeds]): Raster => {
    const data = new Uint8ClampedArray(width * height * 4);
    for (let p = 0; p < width * height; p++) {
      const seed = seeds[Math.floor(p / (1 + (seeds[0] % 5))) % seeds.length];
      data.set(
        [40 + (seed & 31), 60 + ((seed >> 5) & 7) * 9, 20 + ((seed >> 8) & 3) * 70, seed >> 10 ? 255 : 90],
        p * 4,
      );
    }
    return { width, height, data };
  });

/** What lies around a pixel as far as the picture goes. */
function around({ width, height }: Raster, p: number, reach: number): number[] {
  const [x, y] = [p % width, Math.floor(p / width)];
  const found: number[] = [];
  for (let v = Math.max(0, y - reach); v <= Math.min(height - 1, y + reach); v++)
    for (let u = Math.max(0, x - reach); u <= Math.min(width - 1, x + reach); u++) found.push(v * width + u);
  return found;
}

const channels = ({ data }: Raster, p: number) => [...data.subarray(p * 4, p * 4 + 4)];

function isWithin(picture: Raster, p: number, q: number, reach: readonly number[]): boolean {
  const other = channels(picture, q);
  return channels(picture, p).every((v, c) => Math.abs(v - other[c]) <= reach[c]);
}

describe("the compiled loops", () => {
  it("are what their source says", async () => {
    expect(await kernelCode()).toContain(`"${CODE}"`);
  });
  it("smooth as Lee's sigma filter is defined, up to the picture's sides", () => {
    fc.assert(
      fc.property(
        pictures,
        fc.integer({ min: 0, max: 60 }).map((reach) => (reach > 50 ? reach * 5 : reach)),
        (picture, reach) => {
          const smooth = smoothNoise(picture, reach);
          for (let p = 0; p < picture.width * picture.height; p++) {
            const alike = around(picture, p, 2).filter((q) => isWithin(picture, p, q, [reach, reach, reach, 255]));
            const mean = [0, 1, 2].map(
              (c) => alike.reduce((sum, q) => sum + picture.data[q * 4 + c], 0) / alike.length,
            );
            expect(channels(smooth, p)).toEqual([...mean.map(Math.round), picture.data[p * 4 + 3]]);
          }
        },
      ),
    );
  });
  it("find flat those pixels that look like all their neighbours, and every one's colour once", () => {
    fc.assert(
      fc.property(pictures, fc.integer({ min: 0, max: 40 }), (picture, reach) => {
        const { labels, spans, bins, opaquePx, flatPx } = findFlatPixels(picture, reach);
        const all = Array.from(labels, (_, p) => p);
        const opaque = all.filter((p) => picture.data[p * 4 + 3] >= 128);
        const flat = opaque.filter((p) =>
          around(picture, p, 1).every((q) => isWithin(picture, p, q, [reach, reach, reach, 2 * reach])),
        );
        expect(all.filter((p) => labels[p] !== NONE)).toEqual(opaque);
        expect(opaquePx).toBe(opaque.length);
        const told = [...spans.starts].flatMap((start, s) => all.slice(start, spans.ends[s]));
        expect(told).toEqual(flat);
        expect(flatPx).toBe(flat.length);
        for (let c = 0; c < 3; c++) {
          const sum = flat.reduce((whole, p) => whole + picture.data[p * 4 + c], 0);
          expect(bins.reduce((whole, { weight, rgb }) => whole + weight * rgb[c], 0)).toBeCloseTo(sum, 6);
        }
      }),
    );
  });
  it("mark thin what lies between two of another colour with the same beyond", () => {
    fc.assert(
      fc.property(pictures, fc.array(fc.nat(1), { minLength: 207, maxLength: 207 }), ({ width, height, data }, ink) => {
        const words = new Uint32Array(data.buffer).map((_, p) => (ink[p] ? 0xff20a040 : 0xffffffff));
        const [pixels, marks] = makeRoom(words.length * 4, words.length);
        bytesAt(pixels, words.length * 4).set(new Uint8Array(words.buffer));
        const count = compiledLoops().markThin(pixels, marks, width, height);
        const thin = Array.from(words, (own, p) => {
          const [x, y] = [p % width, Math.floor(p / width)];
          if (x < 2 || y < 2 || x >= width - 2 || y >= height - 2) return 0;
          const steps = [1, width, width + 1, width - 1];
          return steps.some((step) => [-2, -1, 1, 2].every((k) => words[p + k * step] !== own)) ? 1 : 0;
        });
        expect([...bytesAt(marks, words.length)]).toEqual(thin);
        expect(count).toBe(thin.reduce((sum: number, mark) => sum + mark, 0));
      }),
    );
  });
});
