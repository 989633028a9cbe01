import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { arcBetween, cosineBetween, mainDirection, tanOfQuarter } from "./index.ts";

const angle = fc.double({ min: 0.01, max: 3.1, noNaN: true });

describe("vectors without sines, against Math's own", () => {
  it("a quarter angle's tangent follows from the cosine", () => {
    fc.assert(
      fc.property(angle, (a) => {
        expect(tanOfQuarter(Math.cos(a))).toBeCloseTo(Math.tan(a / 4), 6);
      }),
    );
  });
  it("the main direction of a cloud is its larger eigenvector", () => {
    fc.assert(
      fc.property(fc.double({ min: -1.5, max: 1.5, noNaN: true }), (a) => {
        // Points along a line at angle a, spread 5 along and 1 across.
        const [c, s] = [Math.cos(a), Math.sin(a)];
        const [x, y] = mainDirection(25 * c * c + s * s, 24 * c * s, 25 * s * s + c * c);
        expect(Math.abs(x * c + y * s)).toBeCloseTo(1, 9);
      }),
    );
  });
  it("an arc stays on the unit circle, in even steps, from one end to the other", () => {
    fc.assert(
      fc.property(angle, angle, (from, turn) => {
        const end = from + turn;
        const arc = arcBetween(Math.cos(from), Math.sin(from), Math.cos(end), Math.sin(end), 0.98);
        for (let i = 0; i < arc.length; i += 2) {
          expect(arc[i] ** 2 + arc[i + 1] ** 2).toBeCloseTo(1, 9);
          if (i > 0) expect(cosineBetween(arc[i - 2], arc[i - 1], arc[i], arc[i + 1])).toBeGreaterThan(0.979);
        }
        expect(arc[arc.length - 2]).toBeCloseTo(Math.cos(end), 9);
      }),
    );
  });
});
