import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { flattenPath } from "../../geometry/index.ts";
import { sharpenCorners } from "../read/index.ts";
import { circlePath, fitCircle } from "./circle.ts";
import { fitStretch } from "./fit-stretch.ts";

/** Cosine of 28 degrees. */
const CORNER = 0.883;

/** Points about a pixel apart along a function of x. */
function sample(f: (x: number) => number, from: number, to: number): Float64Array {
  const out: number[] = [];
  for (let x = from; x <= to; x++) out.push(x, f(x));
  return Float64Array.from(out);
}

/** Points as some renderers show them, which know only quarters of a pixel. */
function steps(points: Float64Array): Float64Array {
  return points.map((v, i) => (i % 2 === 0 ? v : Math.round(v * 4) / 4));
}

/** Cubics in a drawn outline. */
const DRAWN = 4;

/** A smooth outline of DRAWN cubics of 60 to 140 px, each of which turns by up to 86 degrees. */
function drawOutline(seed: number): Float64Array {
  let state = seed * 9301;
  const random = () => {
    state = (state * 9301 + 49297) % 233280;
    return state / 233280;
  };
  const out = [0, 0];
  let way = random() * 2;
  for (let s = 0; s < DRAWN; s++) {
    const [x, y] = out.slice(-2);
    const next = way + (random() - 0.5) * 3;
    const length = 60 + 80 * random();
    const chord = (way + next) / 2;
    const [endX, endY] = [x + length * Math.cos(chord), y + length * Math.sin(chord)];
    const [first, last] = [length * (0.3 + 0.15 * random()), length * (0.3 + 0.15 * random())];
    out.push(x + first * Math.cos(way), y + first * Math.sin(way));
    out.push(endX - last * Math.cos(next), endY - last * Math.sin(next), endX, endY);
    way = next;
  }
  return Float64Array.from(out);
}

/** Points about a pixel apart along a path. */
function samplesOf(path: Float64Array): Float64Array {
  const flat = flattenPath(path, 0.001);
  const out: number[] = [flat[0], flat[1]];
  for (let i = 2; i < flat.length; i += 2)
    if (Math.hypot(flat[i] - out[out.length - 2], flat[i + 1] - out[out.length - 1]) >= 1)
      out.push(flat[i], flat[i + 1]);
  return Float64Array.from(out);
}

function pathOf(points: Float64Array, segments: readonly number[]): Float64Array {
  return Float64Array.from([points[0], points[1], ...segments]);
}

/** Largest distance of any point from the fitted path. */
function worst(points: Float64Array, path: Float64Array): number {
  const flat = flattenPath(path, 0.001);
  let most = 0;
  for (let i = 0; i < points.length; i += 2) {
    let nearest = Number.POSITIVE_INFINITY;
    for (let k = 0; k + 3 < flat.length; k += 2) {
      const dx = flat[k + 2] - flat[k];
      const dy = flat[k + 3] - flat[k + 1];
      const t = ((points[i] - flat[k]) * dx + (points[i + 1] - flat[k + 1]) * dy) / (dx * dx + dy * dy || 1);
      const u = Math.min(1, Math.max(0, t));
      nearest = Math.min(nearest, Math.hypot(flat[k] + u * dx - points[i], flat[k + 1] + u * dy - points[i + 1]));
    }
    most = Math.max(most, nearest);
  }
  return most;
}

describe("fitting a run", () => {
  it("a straight run is one line", () => {
    const points = sample((x) => 3 + x / 7, 0, 60);
    expect(fitStretch(points, 0, 60, 0.1, null, null)).toHaveLength(6);
  });
  it("a quarter of a large circle is one cubic", () => {
    const points = Float64Array.from(
      Array.from({ length: 80 }, (_, i) => (i / 79) * (Math.PI / 2)).flatMap((a) => [
        50 * Math.cos(a),
        50 * Math.sin(a),
      ]),
    );
    expect(fitStretch(points, 0, 79, 0.1, null, null)).toHaveLength(6);
  });
  it("every point stays within tolerance, whatever the curve", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 2, max: 25, noNaN: true }),
        fc.double({ min: 8, max: 60, noNaN: true }),
        fc.constantFrom(0.1, 0.3, 1),
        (height, wave, tolerance) => {
          const points = sample((x) => height * Math.sin((2 * Math.PI * x) / wave) + 0.02 * x * x, 0, 90);
          const path = pathOf(points, fitStretch(points, 0, 90, tolerance, null, null));
          expect(worst(points, path)).toBeLessThanOrEqual(tolerance + 0.001);
          expect([...path.slice(-2)]).toEqual([...points.slice(-2)]);
        },
      ),
      { numRuns: 60 },
    );
  });
  it("a thin tip is not cut off, however loose the tolerance", () => {
    for (const width of [0.4, 0.8, 1.6])
      for (const tolerance of [0.5, 1, 2, 4]) {
        // Up one side, on along a hair to its tip, and back to the corner where it left.
        const up = sample((y) => y / 50, -60, 12).map((_, i, all) => (i % 2 === 0 ? all[i + 1] : all[i - 1]));
        const back = sample((y) => width - y / 50, -12, 0).map((_, i, all) => (i % 2 === 0 ? all[i + 1] : -all[i - 1]));
        const points = Float64Array.of(...up, ...back);
        const path = pathOf(points, fitStretch(points, 0, points.length / 2 - 1, tolerance, null, null));
        expect(worst(points, path)).toBeLessThanOrEqual(tolerance + 0.01);
      }
  });
  it("a looser tolerance never needs more segments on a smooth wave", () => {
    const points = sample((x) => 12 * Math.sin(x / 9), 0, 200);
    const counts = [0.05, 0.2, 0.8, 1.6].map(
      (tolerance) => fitStretch(points, 0, 200, tolerance, null, null).length / 6,
    );
    expect(counts).toEqual([...counts].sort((a, b) => b - a));
    expect(counts[0]).toBeLessThan(12);
  });
  it("a straight part reaches up to a junction that lies a little off it", () => {
    const points = sample((x) => 3 + x / 7 + (x > 60 ? (x - 60) ** 2 / 40 : 0), 0, 90);
    [0.18, 0.12, 0.06].forEach((off, i) => {
      points[i * 2 + 1] += off;
    });
    expect(fitStretch(points, 0, 90, 0.2, null, null)).toHaveLength(12);
  });
  it("an inflection is no straight part where a curve does without", () => {
    for (const [height, wave] of [
      [20, 30],
      [12, 20],
      [30, 25],
    ]) {
      const last = Math.floor(wave * Math.PI * 2);
      const points = steps(sample((x) => height * Math.sin(x / wave), 0, last));
      expect(fitStretch(points, 0, last, 0.3, null, null)).toHaveLength(12);
    }
  });
  it("drawn outlines get hardly more segments than they were drawn with: joints move to where both sides come nearest", () => {
    let clean = 0;
    let stepped = 0;
    const outlines = Array.from({ length: 40 }, (_, i) => samplesOf(drawOutline(i + 1)));
    for (const points of outlines) {
      const last = points.length / 2 - 1;
      clean += fitStretch(points, 0, last, 0.2, null, null).length / 6;
      stepped += fitStretch(steps(points), 0, last, 0.3, null, null).length / 6;
    }
    expect(clean).toBeLessThan(outlines.length * DRAWN * 1.1);
    expect(stepped).toBeLessThan(outlines.length * DRAWN * 1.1);
  });
});

describe("corners", () => {
  it("are put back where the pixel's aperture rounded them off", () => {
    const points: number[] = [];
    for (let i = 0; i < 20; i++) points.push(i + 0.5, 0);
    points.push(20, 0.3);
    for (let i = 1; i < 20; i++) points.push(20.3, i + 0.5);
    const { points: line, corners } = sharpenCorners(Float64Array.from(points), false, CORNER);
    expect(corners).toHaveLength(1);
    expect(line[corners[0] * 2]).toBeCloseTo(20.3, 1);
    expect(line[corners[0] * 2 + 1]).toBeCloseTo(0, 1);
  });
  it("are not found on a small round", () => {
    const round = Float64Array.from(
      Array.from({ length: 38 }, (_, i) => (i / 38) * 2 * Math.PI).flatMap((a) => [6 * Math.cos(a), 6 * Math.sin(a)]),
    );
    expect(sharpenCorners(round, true, CORNER).corners).toEqual([]);
  });
});

describe("circles", () => {
  it("are recognised with centre and radius, in the direction of their points", () => {
    for (const sign of [1, -1]) {
      const points = Float64Array.from(
        Array.from({ length: 60 }, (_, i) => (sign * i * 2 * Math.PI) / 60).flatMap((a) => [
          20.3 + 9.7 * Math.cos(a),
          11.1 + 9.7 * Math.sin(a),
        ]),
      );
      const expected = circlePath(20.3, 11.1, 9.7, sign > 0);
      expect([...(fitCircle(points, 0.1) ?? [])].map((v) => v.toFixed(6))).toEqual(
        [...expected].map((v) => v.toFixed(6)),
      );
    }
  });
  it("are not seen in an ellipse", () => {
    const points = Float64Array.from(
      Array.from({ length: 60 }, (_, i) => (i * 2 * Math.PI) / 60).flatMap((a) => [20 * Math.cos(a), 18 * Math.sin(a)]),
    );
    expect(fitCircle(points, 0.2)).toBeNull();
  });
});
