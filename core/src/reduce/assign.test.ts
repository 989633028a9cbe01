import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Rgb } from "../colour/index.ts";
import { decideMixes, decidePure, type PixelWork, UNEXPLAINED } from "./assign.ts";
import { UNKNOWN } from "./flat.ts";
import { makePalette, removeColour } from "./palette.ts";

const COLOURS: Rgb[] = [
  [250, 250, 250],
  [20, 30, 80],
  [210, 40, 40],
  [30, 160, 90],
];
const REACH = { pure: 8, mix: 10 };

/** A picture of one colour a label, mixes of two where there is none. */
function picture(width: number, labels: readonly number[], shares: readonly number[]): PixelWork {
  const data = new Uint8ClampedArray(labels.length * 4).fill(255);
  labels.forEach((label, p) => {
    const [a, b] = label === UNKNOWN ? [COLOURS[p % 4], COLOURS[(p >> 2) % 4]] : [COLOURS[label], COLOURS[label]];
    for (let c = 0; c < 3; c++) data[p * 4 + c] = a[c] * shares[p] + b[c] * (1 - shares[p]);
  });
  const raster = { width, height: labels.length / width, data };
  return { raster, labels: Uint8Array.from(labels), palette: makePalette(COLOURS), reach: REACH };
}

const scenes = fc
  .tuple(fc.integer({ min: 1, max: 13 }), fc.integer({ min: 1, max: 13 }))
  .chain(([width, height]) =>
    fc.tuple(
      fc.constant(width),
      fc.array(fc.constantFrom(0, 1, 2, 3, UNKNOWN, UNKNOWN), { minLength: width * height, maxLength: width * height }),
      fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: width * height, maxLength: width * height }),
    ),
  );

describe("pixels beside colours", () => {
  it("are decided alike at the picture's side and within: what is no colour says nothing", () => {
    fc.assert(
      fc.property(scenes, ([width, labels, shares]) => {
        const height = labels.length / width;
        const [wide, around] = [width + 10, 5];
        const inside = (p: number) => (Math.floor(p / width) + around) * wide + (p % width) + around;
        const more = Array<number>(wide * (height + 2 * around)).fill(UNKNOWN);
        for (const [p, label] of labels.entries()) more[inside(p)] = label;
        const work = picture(width, labels, shares);
        const larger = picture(wide, more, Array(more.length).fill(0));
        const open = Int32Array.from(labels.keys()).filter((p) => labels[p] === UNKNOWN);
        for (const p of open) larger.raster.data.set(work.raster.data.subarray(p * 4, p * 4 + 4), inside(p) * 4);
        for (const decide of [decidePure, decideMixes])
          expect(decide(larger, open.map(inside))).toEqual(decide(work, open));
      }),
    );
  });
  it("are decided one by one as all together, and from the last to the first", () => {
    fc.assert(
      fc.property(scenes, ([width, labels, shares]) => {
        const work = picture(width, labels, shares);
        const open = Int32Array.from(labels.keys());
        for (const decide of [decidePure, decideMixes]) {
          const all = decide(work, open);
          expect(Array.from(open, (p) => decide(work, Int32Array.of(p))[0])).toEqual([...all]);
          expect(decide(work, open.toReversed()).toReversed()).toEqual(all);
        }
      }),
    );
  });
  it("are the larger share of the two they lie between, of one if they are plainly that, and nothing if far from all", () => {
    // White, an edge pixel, navy; red lies farther off.
    const row = [0, 0, UNKNOWN, 1, 1, 1, 1, 2];
    const work = (rgb: Rgb) => {
      const made = picture(row.length, row, Array(row.length).fill(1));
      made.raster.data.set(rgb, 8);
      return made;
    };
    const [white, navy] = [COLOURS[0], COLOURS[1]];
    const mix = (share: number): Rgb => [0, 1, 2].map((c) => white[c] * share + navy[c] * (1 - share)) as never;
    const open = Int32Array.of(2);
    for (const share of [0.1, 0.3, 0.48, 0.52, 0.7, 0.9]) {
      expect(decideMixes(work(mix(share)), open)[0]).toBe(share > 0.5 ? 0 : 1);
      expect(decidePure(work(mix(share)), open)[0]).toBe(UNKNOWN);
    }
    expect(decidePure(work([248, 250, 249]), open)[0]).toBe(0);
    // Red is in the picture, only not here; green cannot be mixed of what is here.
    expect(decidePure(work([209, 41, 40]), open)[0]).toBe(2);
    expect(decidePure(work([40, 220, 10]), open)[0]).toBe(UNEXPLAINED);
  });
  it("are no mix with a colour that was taken back", () => {
    // Teal, navy and what JPEG leaves of a cream letter beside them; the cream of elsewhere explains it best, if not well.
    const palette = makePalette([[242, 240, 228], [19, 48, 78], [31, 122, 140], COLOURS[0]]);
    removeColour(palette, 3);
    const data = Uint8ClampedArray.of(31, 122, 140, 255, 219, 247, 250, 255, 19, 48, 78, 255);
    const labels = Uint8Array.of(2, UNKNOWN, 1);
    const reach = { pure: 18, mix: 28 };
    expect(decideMixes({ raster: { width: 3, height: 1, data }, labels, palette, reach }, Int32Array.of(1))[0]).toBe(0);
  });
});
