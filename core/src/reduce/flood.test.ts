import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { LabelMap } from "../raster/index.ts";
import { floodArea } from "./flood.ts";

/** The same, pixel by pixel and slowly. */
function slowly({ width, height, data }: LabelMap, start: number) {
  const pixels = new Set([start]);
  let outline = 0;
  let touchesEdge = false;
  for (const p of pixels) {
    const [x, y] = [p % width, Math.floor(p / width)];
    for (const [u, v] of [
      [x - 1, y],
      [x + 1, y],
      [x, y - 1],
      [x, y + 1],
    ]) {
      const isOutside = u < 0 || v < 0 || u >= width || v >= height;
      if (isOutside) touchesEdge = true;
      if (!isOutside && data[v * width + u] === data[start]) pixels.add(v * width + u);
      else outline++;
    }
  }
  return { pixels: [...pixels].sort((a, b) => a - b), outline, touchesEdge };
}

describe("an area round a place", () => {
  it("property: has the pixels, the outline and the edges that a slow fill finds, and leaves its marks clean", () => {
    const picture = fc
      .record({ width: fc.integer({ min: 1, max: 12 }), height: fc.integer({ min: 1, max: 12 }) })
      .chain(({ width, height }) =>
        fc.record({
          width: fc.constant(width),
          height: fc.constant(height),
          data: fc.uint8Array({ min: 0, max: 2, minLength: width * height, maxLength: width * height }),
          start: fc.nat(width * height - 1),
        }),
      );
    fc.assert(
      fc.property(picture, ({ start, ...map }) => {
        const isTaken = new Uint8Array(map.data.length);
        const area = floodArea(map, start, isTaken);
        expect({ ...area, pixels: [...area.pixels] }).toEqual(slowly(map, start));
        expect(isTaken.includes(1)).toBe(false);
      }),
      { numRuns: 300 },
    );
  });
});
