import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { renderSvg } from "../testing/pictures.test.support.ts";
import { findEdgePixels } from "./edge-pixels.ts";
import { shrinkRaster } from "./index.ts";

describe("the pixels along an edge", () => {
  it("are those with a differing pixel among their eight neighbours, each once, on any mask", () => {
    const masks = fc.tuple(fc.integer({ min: 1, max: 12 }), fc.integer({ min: 1, max: 12 })).chain(([width, height]) =>
      fc.record({
        width: fc.constant(width),
        height: fc.constant(height),
        mask: fc.uint8Array({ minLength: width * height, maxLength: width * height, max: 1 }),
      }),
    );
    fc.assert(
      fc.property(masks, ({ width, height, mask }) => {
        const expected: number[] = [];
        for (let y = 0; y < height; y++)
          for (let x = 0; x < width; x++) {
            let differs = false;
            for (let v = Math.max(0, y - 1); v <= Math.min(height - 1, y + 1); v++)
              for (let u = Math.max(0, x - 1); u <= Math.min(width - 1, x + 1); u++)
                if (mask[v * width + u] !== mask[y * width + x]) differs = true;
            if (differs) expected.push(y * width + x);
          }
        expect([...findEdgePixels(mask, width, height)].sort((a, b) => a - b)).toEqual(expected);
      }),
    );
  });
});

describe("a smaller picture", () => {
  it("has the colours of the large one where it is flat, and half of it where it is half covered", () => {
    const art = renderSvg(
      '<svg xmlns="http://www.w3.org/2000/svg" width="60" height="40"><rect x="15" width="30" height="40" fill="#d8412f"/></svg>',
    );
    const small = shrinkRaster(art, 10);
    expect([small.width, small.height]).toEqual([6, 4]);
    const row = Array.from({ length: 6 }, (_, x) => [...small.data.subarray(x * 4, x * 4 + 4)]);
    const red = [216, 65, 47];
    expect(row).toEqual([
      [0, 0, 0, 0],
      [...red, 128],
      [...red, 255],
      [...red, 255],
      [...red, 128],
      [0, 0, 0, 0],
    ]);
  });
});
