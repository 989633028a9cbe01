// Outlines that abut: each boundary once, with both on its sides.
import { describe, expect, it } from "vitest";
import { polygonPath } from "../geometry/index.ts";
import { shareStretches } from "./shared-stretches.ts";

const ring = (outline: number, ...points: number[]) => ({ path: polygonPath(points), outline, isHeld: true });

describe("outlines side by side", () => {
  it("share the boundary between them, which runs with one and against the other", () => {
    const left = ring(0, 0, 0, 0, 9, 5, 9, 5, 0);
    const right = ring(1, 5, 0, 5, 9, 9, 9, 9, 0);
    const stretches = shareStretches([left, right]);
    expect(stretches).toHaveLength(3);
    const shared = stretches.filter(({ sides }) => sides.length === 2);
    expect(shared.map(({ path }) => [...path])).toEqual([[5, 9, 5, 9, 5, 0, 5, 0]]);
    expect(shared[0].sides.map(({ outline, way }) => `${outline} ${way}`).sort()).toEqual(["0 1", "1 -1"]);
  });
  it("are cut where a third begins, on whichever of them that shows", () => {
    const top = ring(0, 0, 0, 0, 5, 5, 5, 9, 5, 9, 0);
    const one = ring(1, 0, 5, 0, 9, 5, 9, 5, 5);
    const two = ring(1, 5, 5, 5, 9, 9, 9, 9, 5);
    const shared = shareStretches([top, one, two]).filter(({ sides }) => sides.length === 2);
    // Two above, and the one between both of the other colour.
    expect(shared.map(({ path }) => path.length)).toEqual([8, 8, 8]);
  });
  it("stay whole where nothing is shared, and as a ring where all of it is", () => {
    const [hole, island] = [ring(0, 2, 2, 2, 4, 4, 4, 4, 2), ring(1, 2, 2, 4, 2, 4, 4, 2, 4)];
    const [only, ...others] = shareStretches([hole, island]);
    expect(others).toEqual([]);
    expect(only.path).toHaveLength(26);
    expect(only.sides.map(({ way }) => way)).toEqual([1, -1]);
    expect(shareStretches([hole])[0].path).toBe(hole.path);
  });
});
