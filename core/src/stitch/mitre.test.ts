import { describe, expect, it } from "vitest";
import { backwards, circle, ring } from "../area/area.test.support.ts";
import { STRIDE } from "../area/index.ts";
import { sewBorder } from "./border.ts";
import { mitred } from "./mitre.ts";
import { chosen, planOf, stitchesOf } from "./stitch.test.support.ts";

/** Where rungs of a column lie neither along x nor along y, but for what they slope from one needle point to the next. */
const slanting = (stations: Float64Array) =>
  Array.from({ length: stations.length / STRIDE }, (_, k) => {
    const [ax, ay, bx, by] = stations.subarray(k * STRIDE, k * STRIDE + STRIDE);
    return { across: Math.hypot(bx - ax, by - ay), off: Math.min(Math.abs(bx - ax), Math.abs(by - ay)) };
  }).filter(({ across, off }) => across > 0.3 && off > 0.2 * across);

const LETTER_L = [ring(5, 5, 8, 5, 8, 25, 25, 25, 25, 28, 5, 28)];
const FRAME = [ring(5, 5, 30, 5, 30, 30, 5, 30), backwards(ring(9, 9, 26, 9, 26, 26, 9, 26))];

describe("a mitred corner of satin", () => {
  it.each([
    ["in an L", LETTER_L],
    ["in a frame, all four", FRAME],
  ])("%s has every rung square to its leg, up to the line between both corners", (_, rings) => {
    const { columns } = chosen(rings, {}).columns;
    expect(columns).toHaveLength(1);
    expect(slanting(columns[0].stations).length).toBeGreaterThan(20);
    expect(slanting(mitred(columns[0], []).stations)).toHaveLength(0);
  });
  it("leaves rails where they are, and as many stations", () => {
    const [column] = chosen(LETTER_L, {}).columns.columns;
    const { stations } = mitred(column, []);
    expect(stations).toHaveLength(column.stations.length);
    for (let i = 0; i < stations.length; i += 2) {
      const [x, y] = [stations[i], stations[i + 1]];
      // The mitre's own line runs from 5, 28 to 8, 25.
      const onMitre = Math.abs(x + y - 33) < 0.15;
      const onRail = [x - 5, x - 8, y - 25, y - 28, y - 5, x - 25].some((off) => Math.abs(off) < 0.15);
      expect(onMitre || onRail).toBe(true);
    }
  });
  it("has no stitch longer than its legs are wide", () => {
    const longest = (corners: "mitred" | "rounded") =>
      Math.max(
        ...stitchesOf(planOf([chosen(LETTER_L, { as: "satin", corners, hasUnderlay: false })]))
          .filter(({ kind, x, y }) => kind === "cover" && Math.hypot(x - 5, y - 28) < 4.5)
          .map(({ lengthMm }) => lengthMm),
      );
    // The width, the pull at both ends, and the slope of a needle point's step.
    expect(longest("mitred")).toBeLessThan(3.45);
    expect(longest("rounded")).toBeGreaterThan(3.8);
  });
  it("is none where a column bends, comes to a point, or has a fork", () => {
    const star = ring(
      ...Array.from({ length: 10 }, (_, i) => {
        const [r, a] = [i % 2 === 0 ? 15 : 6, -Math.PI / 2 + (i * Math.PI) / 5];
        return [18 + r * Math.cos(a), 18 + r * Math.sin(a)];
      }).flat(),
    );
    for (const rings of [[circle(20, 20, 10), backwards(circle(20, 20, 7))], [star]]) {
      const { columns, joints } = chosen(rings, {}).columns;
      columns.forEach((column, c) => {
        const forks = joints.flat().flatMap((fork) => (fork.column === c ? fork.station : []));
        expect(mitred(column, forks)).toEqual(column);
      });
    }
  });
});

describe("a wide border", () => {
  const square = ring(8, 8, 26, 8, 26, 26, 8, 26);
  const needlesOf = (corners: "mitred" | "rounded") =>
    sewBorder(square, { kind: "satin", widthMm: 3, spacingMm: 0.4, beanMm: 2.8, corners }, () => 0);
  const farthest = (needles: readonly number[]) =>
    Math.max(...needles.flatMap((_, i) => (i % 2 === 0 ? [Math.hypot(needles[i] - 17, needles[i + 1] - 17)] : [])));
  it("reaches into its corners when mitred, and goes round them when not", () => {
    // From the middle to a corner of the border: half of 18 mm and half of 3, by the root of 2.
    const corner = 10.5 * Math.SQRT2;
    expect(corner - farthest(needlesOf("mitred"))).toBeLessThan(0.35);
    expect(corner - farthest(needlesOf("rounded"))).toBeGreaterThan(0.5);
  });
  it("stays inside its width on straight legs and at corners", () => {
    const needles = needlesOf("mitred");
    for (let i = 0; i < needles.length; i += 2) {
      const far = Math.max(Math.abs(needles[i] - 17), Math.abs(needles[i + 1] - 17));
      expect(far).toBeLessThan(10.5 + 0.2);
      expect(far).toBeGreaterThan(7.5 - 0.2);
    }
  });
});
