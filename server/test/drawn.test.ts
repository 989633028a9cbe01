// What a normalising parser writes of a drawing: paths as cubics, and dashes of lines.
import { flattenPath, lengthAlong, linePath } from "@plain-palette/core/geometry";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { dashLine } from "../src/intake/dash-line.ts";
import { readPathData } from "../src/intake/path-data.ts";

describe("path data", () => {
  it("is one path for each move that goes anywhere, closed by a line where it is to be", () => {
    expect(readPathData("M 0 0 L 4 0 L 4 3 Z M 9 9 M 5 5 L 6 6").map((path) => [...path])).toEqual([
      [0, 0, 0, 0, 4, 0, 4, 0, 4, 0, 4, 3, 4, 3, 4, 3, 0, 0, 0, 0],
      [5, 5, 5, 5, 6, 6, 6, 6],
    ]);
  });
  it("goes on from where it was closed", () => {
    expect(readPathData("M1 1L2 1Z L1 5").at(-1)?.slice(-2)).toEqual(Float64Array.from([1, 5]));
  });
  it("has quadratic curves as cubics through the same middle", () => {
    const [path] = readPathData("M0 0Q5 10 10 0");
    const [, , x1 = 0, y1 = 0, x2 = 0, y2 = 0, x3 = 0] = path ?? [];
    // The middle of a quadratic is a quarter, a half and a quarter of its points; of a cubic an eighth and three eighths.
    expect([(3 * x1 + 3 * x2 + x3) / 8, (3 * y1 + 3 * y2) / 8]).toEqual([expect.closeTo(5, 9), expect.closeTo(5, 9)]);
  });
});

describe("dashes", () => {
  const line = linePath([0, 0, 60, 0, 60, 40]);
  const lengths = (dashes: readonly number[], offset = 0) =>
    dashLine(line, dashes, offset).map((dash) => lengthAlong(flattenPath(dash, 0.01)));
  it("are drawn and left out in turn, round corners, from where they are to begin", () => {
    expect(lengths([30, 10])).toEqual([30, 30, 20].map((mm) => expect.closeTo(mm, 6)));
    expect(lengths([30, 10], 25)).toEqual([5, 30, 30, 5].map((mm) => expect.closeTo(mm, 6)));
    expect(lengths([30, 10], -5)).toEqual([30, 30, 15].map((mm) => expect.closeTo(mm, 6)));
  });
  it("count twice where there are odd ones, and leave a line whole where there are none", () => {
    expect(lengths([20])).toEqual([20, 20, 20].map((mm) => expect.closeTo(mm, 6)));
    expect(dashLine(line, [], 3)).toEqual([line]);
    expect(dashLine(line, [0, 0], 3)).toEqual([line]);
  });
  it("cover their share of a long line", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 20 }),
        fc.integer({ min: 1, max: 20 }),
        fc.integer({ min: 0, max: 99 }),
        (on, off, offset) => {
          const long = linePath([0, 0, 7000, 0]);
          const drawn = dashLine(long, [on, off], offset).reduce(
            (sum, dash) => sum + lengthAlong(flattenPath(dash, 0.01)),
            0,
          );
          expect(Math.abs(drawn - (7000 * on) / (on + off))).toBeLessThanOrEqual(on + off);
        },
      ),
    );
  });
});
