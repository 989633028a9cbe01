import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { fitSide, touchingLine } from "./side.ts";

/** Points about a pixel apart on a circle through the origin, from `first` px of way on; its centre is right above. */
function onCircle(radius: number, first: number, count: number): Float64Array {
  const angles = Array.from({ length: count }, (_, k) => (first + k) / radius);
  return Float64Array.from(angles.flatMap((a) => [radius * Math.sin(a), radius * (1 - Math.cos(a))]));
}

describe("a side", () => {
  it("that is straight stays a line, whatever its direction, under the scatter of bytes", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 6.28, noNaN: true }),
        fc.infiniteStream(fc.double({ min: -0.02, max: 0.02, noNaN: true })),
        (angle, off) => {
          const [dx, dy] = [Math.cos(angle), Math.sin(angle)];
          const points = Float64Array.from({ length: 32 }, (_, i) => {
            const across = off.next().value ?? 0;
            return i % 2 === 0 ? (i / 2) * dx - across * dy : ((i - 1) / 2) * dy + across * dx;
          });
          const side = fitSide(points, 16, 0);
          const line = touchingLine(side, -2 * dx, -2 * dy);
          expect(Math.abs(line.x * dy - line.y * dx)).toBeLessThan(0.2);
          expect(Math.abs(line.dx * dy - line.dy * dx)).toBeLessThan(0.05);
        },
      ),
    );
  });
  it.each([40, 90, 250])("that bends with radius %d is followed to where it comes from", (radius) => {
    const side = fitSide(onCircle(radius, 2, 16), 16, 0);
    const { x, y, dx, dy } = touchingLine(side, 0, 0);
    expect(Math.abs(x * dy - y * dx)).toBeLessThan(0.03);
    expect(Math.abs(dy)).toBeLessThan(0.03);
  });
  it("of a small round is no parabola: its direction would be wrong", () => {
    expect(fitSide(onCircle(6, 2, 7), 7, 0).bend).toBe(0);
  });
});
