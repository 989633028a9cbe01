import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { pinchView, type Touch } from "./pinch.ts";
import type { View } from "./tiles.ts";

const place = fc.record({ x: fc.integer({ min: 0, max: 800 }), y: fc.integer({ min: 0, max: 600 }) });
const view = fc.record({
  zoom: fc.double({ min: 0.5, max: 2, noNaN: true }),
  x: fc.integer({ min: -300, max: 300 }),
  y: fc.integer({ min: -300, max: 300 }),
});
/** What of the table is under a place of the screen. */
const under = ({ zoom, x, y }: View, px: number, py: number) => [(px - x) / zoom, (py - y) / zoom] as const;

describe("two fingers on the table", () => {
  it("keep what is between them between them, and it grows as they part", () => {
    fc.assert(
      fc.property(
        view,
        place,
        place,
        place,
        fc.double({ min: 0.3, max: 3, noNaN: true }),
        (from, a, b, shift, factor) => {
          fc.pre(Math.hypot(a.x - b.x, a.y - b.y) > 20);
          const middle = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
          const moved = ({ x, y }: typeof a) => ({
            x: middle.x + (x - middle.x) * factor + shift.x,
            y: middle.y + (y - middle.y) * factor + shift.y,
          });
          const to: Touch = [moved(a), moved(b)];
          const after = pinchView(from, [a, b], to);
          expect(after.zoom).toBeCloseTo(from.zoom * factor, 6);
          // Not only between: under each finger, as long as they do not turn.
          for (const [before, now] of [
            [a, to[0]],
            [b, to[1]],
          ] as const) {
            const [x, y] = under(from, before.x, before.y);
            const [nowX, nowY] = under(after, now.x, now.y);
            expect(nowX).toBeCloseTo(x, 6);
            expect(nowY).toBeCloseTo(y, 6);
          }
        },
      ),
    );
  });

  it("come no nearer than the table goes", () => {
    const from: Touch = [
      { x: 100, y: 100 },
      { x: 102, y: 100 },
    ];
    const to: Touch = [
      { x: 0, y: 100 },
      { x: 800, y: 100 },
    ];
    expect(pinchView({ zoom: 70, x: 0, y: 0 }, from, to).zoom).toBe(80);
  });
});
