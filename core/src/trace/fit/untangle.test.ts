import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { polygonPath } from "../../geometry/index.ts";
import { findCrossing } from "./untangle.ts";

/** An open line through x, y pairs. */
const line = (...points: number[]) => ({ path: polygonPath(points).slice(0, -6) });
const crossing = (...lines: ReturnType<typeof line>[]) => [...findCrossing(lines).keys()].sort();

describe("boundaries that cross", () => {
  it("are found inside their steps, and where one passes through a point of the other", () => {
    expect(crossing(line(0, 0, 10, 10), line(0, 10, 10, 0))).toEqual([0, 1]);
    expect(crossing(line(0, 0, 10, 0), line(5, -5, 5, 0, 6, 5))).toEqual([0, 1]);
    expect(crossing(line(0, 0, 5, 0, 10, 0), line(4, -5, 6, 5))).toEqual([0, 1]);
  });

  it("are not those that end in one point, lie on one line beside each other, or only come near", () => {
    expect(crossing(line(0, 0, 5, 5), line(5, 5, 9, 0), line(5, 5, 5, 12))).toEqual([]);
    expect(crossing(line(0, 0, 5, 0), line(5, 0, 10, 0))).toEqual([]);
    expect(crossing(line(0, 0, 10, 0), line(0, 1e-9, 10, 1e-9))).toEqual([]);
  });

  it("property: two lines through a common point, wherever its steps lie, cross or one of them turns back there", () => {
    const step = fc.integer({ min: -50, max: 50 });
    fc.assert(
      fc.property(step, step, step, step, fc.boolean(), fc.boolean(), (ax, ay, bx, by, hasPointA, hasPointB) => {
        fc.pre(ax * by - ay * bx !== 0);
        const a = hasPointA ? line(-ax, -ay, 0, 0, ax, ay) : line(-ax, -ay, ax, ay);
        const b = hasPointB ? line(-bx, -by, 0, 0, bx, by) : line(-bx, -by, bx, by);
        // Where both have a point there they may as well meet in it: that is a junction.
        expect(crossing(a, b)).toEqual(hasPointA && hasPointB ? [] : [0, 1]);
      }),
    );
  });
});
