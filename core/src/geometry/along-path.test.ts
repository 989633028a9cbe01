import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { nearestOnPath, pointAlong } from "./index.ts";

const coordinate = fc.integer({ min: -4000, max: 4000 }).map((v) => v / 1000);
/** Single cubics: they turn back, and cross themselves. */
const cubics = fc.array(coordinate, { minLength: 8, maxLength: 8 }).map((all) => Float64Array.from(all));

describe("the nearest point of a curve", () => {
  it("is no farther than any of a thousand points of it", () => {
    fc.assert(
      fc.property(cubics, coordinate, coordinate, (path, x, y) => {
        const nearest = nearestOnPath(path, x, y);
        let least = Number.POSITIVE_INFINITY;
        for (let k = 0; k <= 1000; k++) {
          const [px, py] = pointAlong(path, k / 1000);
          least = Math.min(least, Math.hypot(px - x, py - y));
        }
        expect(nearest?.distance).toBeLessThanOrEqual(least + 1e-9);
      }),
      { numRuns: 500 },
    );
  });
  it("is the place itself for places on it, also where another part of it passes close by", () => {
    // Comes back to within 0.003 px of where it was, and crosses the level line there.
    const back = Float64Array.of(0, -0.004, 2.259, 0, 0, 4.876, 0, -1.789);
    const paths = fc.oneof(cubics, fc.constant(back));
    fc.assert(
      fc.property(paths, fc.integer({ min: 0, max: 10000 }), (path, share) => {
        const [x, y] = pointAlong(path, share / 10000);
        expect(nearestOnPath(path, x, y, 1e-6)).not.toBeNull();
      }),
      { numRuns: 2000 },
    );
    const [x, y] = pointAlong(back, 0.89102725);
    expect(nearestOnPath(back, x, y)?.at).toBeCloseTo(0.89102725, 6);
  });
});
