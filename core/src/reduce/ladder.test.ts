import { describe, expect, it } from "vitest";
import { parseHex } from "../colour/index.ts";
import { buildLadder, type FoundColour, proposeCount } from "./index.ts";

const colour = (hex: string, areaPx: number): FoundColour => ({ id: hex.slice(1), rgb: parseHex(hex), areaPx });

describe("the merge ladder", () => {
  it("has a rung for every number down to one, each taking the smaller colour into the larger", () => {
    const colours = [colour("#ffffff", 5000), colour("#14304f", 3000), colour("#16345a", 900), colour("#d8412f", 800)];
    const rungs = buildLadder(colours);
    expect(rungs.map((rung) => rung.countAfter)).toEqual([3, 2, 1]);
    expect(rungs[0]).toMatchObject({ from: "16345a", into: "14304f" });
    for (let i = 1; i < rungs.length; i++) expect(rungs[i].cost).toBeGreaterThanOrEqual(rungs[i - 1].cost);
  });
  it("keeps a tiny bright accent longer than one of two near tones of great area", () => {
    const rungs = buildLadder([colour("#1f7a8c", 60_000), colour("#23808f", 39_000), colour("#f2b134", 100)]);
    expect(rungs[0]).toMatchObject({ from: "23808f", into: "1f7a8c" });
  });
  it("proposes what was found, less near twins", () => {
    const apart = [colour("#ffffff", 500), colour("#14304f", 300), colour("#d8412f", 100)];
    expect(proposeCount(apart, buildLadder(apart), 0)).toMatchObject({ count: 3, sureness: "sure" });
    const twins = [...apart, colour("#d8432f", 2)];
    expect(proposeCount(twins, buildLadder(twins), 0).count).toBe(3);
  });
  it("proposes no more than a press carries for art that shades", () => {
    const shades = Array.from({ length: 40 }, (_, i) => colour(`#${(20 + i * 5).toString(16)}3060`, 500 - i));
    const proposal = proposeCount(shades, buildLadder(shades), 0);
    expect(proposal.count).toBeLessThanOrEqual(12);
    expect(proposal).toMatchObject({ sureness: "unsure", isShaded: true });
  });
  it("says which two colours leave a doubt", () => {
    const near = [colour("#ffffff", 500), colour("#1f7a8c", 300), colour("#23808f", 100)];
    const proposal = proposeCount(near, buildLadder(near), 0);
    expect(proposal).toMatchObject({ count: 3, sureness: "fairly sure", nearest: { a: "1f7a8c", b: "23808f" } });
    expect(proposal.nearest?.difference).toBeCloseTo(2.7, 0);
  });
  it("never merges a locked colour, and ends when only locked ones are left beside one", () => {
    const colours = [colour("#ffffff", 5000), colour("#14304f", 3000), colour("#16345a", 900), colour("#d8412f", 800)];
    const rungs = buildLadder(colours, new Set(["16345a", "d8412f"]));
    expect(rungs.map(({ from, into }) => [from, into])).toEqual([["14304f", "ffffff"]]);
  });
});
