// What tests of laid outlines share: what a planar map must be in any case, and areas as a general polygon library has them.
import { areaPaths, booleanOp, ClipType, FillRule, type Paths64 } from "clipper2-ts";
import { expect } from "vitest";
import { type CubicPath, flattenPath, pathArea, segmentCount } from "../geometry/index.ts";
import { BARE, halfEdgePath, type PlanarMap } from "../trace/index.ts";

/** Steps of the library's grid in a pixel: coordinates of icons still multiply exactly. */
const STEPS = 2 ** 20;
/** How closely curves are flattened for the library, px. */
const FLAT_PX = 0.0002;

/** Paths on the library's grid. */
export function onGrid(paths: readonly CubicPath[]): Paths64 {
  return paths.map((path) => {
    const line = flattenPath(path, FLAT_PX);
    const out: Paths64[number] = [];
    for (let i = 0; i + 3 < line.length; i += 2)
      out.push({ x: Math.round(line[i] * STEPS), y: Math.round(line[i + 1] * STEPS) });
    return out;
  });
}

/** Areas of both together, of what they share, and of the first without the second, px2; the first even-odd, the second non-zero. */
export function areasBy(first: readonly CubicPath[], second: readonly CubicPath[], box: PlanarMap) {
  const [w, h] = [box.width * STEPS, box.height * STEPS];
  const frame: Paths64 = [
    [
      { x: 0, y: 0 },
      { x: w, y: 0 },
      { x: w, y: h },
      { x: 0, y: h },
    ],
  ];
  const a = booleanOp(ClipType.Union, onGrid(first), null, FillRule.EvenOdd);
  const whole = booleanOp(ClipType.Union, onGrid(second), null, FillRule.NonZero);
  const b = booleanOp(ClipType.Intersection, whole, frame, FillRule.NonZero);
  const area = (type: ClipType) => areaPaths(booleanOp(type, a, b, FillRule.NonZero)) / STEPS / STEPS;
  return {
    both: Math.abs(area(ClipType.Union)),
    first: Math.abs(area(ClipType.Difference)),
  };
}

/** Area of a spot as its faces' paths enclose it, exactly. */
export function spotArea(map: PlanarMap, spotId: string): number {
  return map.faces
    .filter((face) => face.spotId === spotId)
    .reduce((sum, { paths }) => sum - paths.reduce((all, path) => all + pathArea(path), 0), 0);
}

/** Fails where a map is none: sides, rings, ends, and that faces lie beside each other and not on each other. */
export function expectPlanar(map: PlanarMap): void {
  const uses = new Uint8Array(map.edges.length * 2);
  map.faces.forEach(({ rings, paths }, f) => {
    expect(rings.length).toBe(paths.length);
    rings.forEach((ring, r) => {
      let length = 2;
      ring.forEach((half, k) => {
        uses[half]++;
        const edge = map.edges[half >> 1];
        expect((half & 1) === 0 ? edge.left : edge.right).toBe(f);
        const [path, next] = [halfEdgePath(map, half), halfEdgePath(map, ring[(k + 1) % ring.length])];
        expect([path[path.length - 2], path[path.length - 1]]).toEqual([next[0], next[1]]);
        length += path.length - 2;
      });
      expect(paths[r].length).toBe(length);
    });
    expect(rings.filter((_, r) => pathArea(paths[r]) < 0)).toHaveLength(1);
  });
  map.edges.forEach(({ left, right, start, end, path, isCut }, e) => {
    expect(left).not.toBe(right);
    if (left !== BARE && right !== BARE && !isCut) expect(map.faces[left].spotId).not.toBe(map.faces[right].spotId);
    expect([uses[2 * e], uses[2 * e + 1]]).toEqual([left === BARE ? 0 : 1, right === BARE ? 0 : 1]);
    const n = path.length;
    if (start >= 0) {
      expect([path[0], path[1]]).toEqual([map.vertices[2 * start], map.vertices[2 * start + 1]]);
      expect([path[n - 2], path[n - 1]]).toEqual([map.vertices[2 * end], map.vertices[2 * end + 1]]);
    } else expect([path[0], path[1]]).toEqual([path[n - 2], path[n - 1]]);
    expect(segmentCount(path)).toBeGreaterThan(0);
    expect(path.every(Number.isFinite)).toBe(true);
  });
}
