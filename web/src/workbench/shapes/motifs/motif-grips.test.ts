// Grips of a placed motif: what is dragged is what moves, on turned and mirrored pictures, too.
import { invertMap, wholeFrame } from "@plain-palette/core/raster";
import { type MotifEntry, makeShapeEntry, placesOf } from "@plain-palette/core/recipe";
import { describe, expect, it } from "vitest";
import type { PlacedMotif } from "./motif-desk.ts";
import { copyOf, dragged, gripsOf, moved, onBox, stepsWithGap, withinTurn } from "./motif-grips.ts";

const FRAME = wholeFrame(400, 300);
/** The picture turned over left to right. */
const MIRRORED = { ...FRAME, toSource: [-1, 0, 400, 0, 1, 0, 0, 0, 1] as const };

function placed(more: object = {}, frame = FRAME): PlacedMotif {
  const entry = makeShapeEntry({
    ...{ id: "m", kind: "motif", motif: { hash: "a".repeat(64), name: "Buoy", widthMm: 40, heightMm: 20 } },
    ...{ places: [{ at: { x: 100, y: 100 }, widthPx: 80 }], spots: ["a"] },
    ...more,
  } as Parameters<typeof makeShapeEntry>[0]) as MotifEntry;
  return { entry, copies: placesOf(entry, invertMap(frame.toSource)) };
}
const GRID = { kind: "grid", columns: 3, rows: 1, stepX: 90, stepY: 0 } as const;

function drag(
  one: PlacedMotif,
  holds: "place" | "size" | "turn" | "step",
  to: { x: number; y: number },
  isStraight = false,
) {
  const grip = gripsOf(one, 0).find(({ kind }) => kind === holds);
  const from = grip ?? copyOf(one, 0) ?? { x: 0, y: 0 };
  return dragged({ from: { x: from.x, y: from.y }, to, holds, entry: one.entry }, 0, one, FRAME, isStraight);
}

describe("a placed motif", () => {
  it("has grips at the corner of its box, above it, and at the next of its row", () => {
    const grips = gripsOf(placed({ row: GRID }), 0);
    expect(grips).toMatchObject([
      { kind: "size", x: 140, y: 120 },
      { kind: "turn", x: 100, y: 72 },
      { kind: "step", x: 190, y: 100 },
    ]);
  });
  it("goes where it is dragged; straight keeps to the longer way", () => {
    expect(drag(placed(), "place", { x: 130, y: 110 }).places[0]?.at).toEqual({ x: 130, y: 110 });
    expect(drag(placed(), "place", { x: 130, y: 110 }, true).places[0]?.at).toEqual({ x: 130, y: 100 });
  });
  it("grows with the distance of its corner, turns with its grip, in steps where it is straight", () => {
    expect(drag(placed(), "size", { x: 180, y: 140 }).places[0]?.widthPx).toBeCloseTo(160, 6);
    expect(drag(placed(), "turn", { x: 128, y: 100 }).places[0]?.angleDeg).toBeCloseTo(90, 2);
    expect(drag(placed(), "turn", { x: 126, y: 102 }, true).places[0]?.angleDeg).toBe(90);
  });
  it("has its row's step where the next one is dragged to", () => {
    expect(drag(placed({ row: GRID }), "step", { x: 100, y: 160 }).row).toMatchObject({ stepX: 60, angleDeg: 90 });
  });
  it("follows the hand on a picture that is turned over", () => {
    const { entry } = placed({}, MIRRORED);
    const [before] = placesOf(entry, invertMap(MIRRORED.toSource));
    const [after] = placesOf(moved(entry, 0, 15, 5, MIRRORED), invertMap(MIRRORED.toSource));
    expect([(after?.x ?? 0) - (before?.x ?? 0), (after?.y ?? 0) - (before?.y ?? 0)]).toEqual([15, 5]);
  });
  it("of an arc is handled by the one in its middle", () => {
    const arc = placed({ row: { kind: "arc", count: 5, radius: 100, spanDeg: 90 } });
    expect(copyOf(arc, 0)).toMatchObject({ x: expect.closeTo(100, 9), y: expect.closeTo(100, 9) });
  });
});

describe("a row with gaps", () => {
  it("is as wide from one to the next as the turned motif and its gap", () => {
    const level = stepsWithGap(placed().entry, 5, 2);
    expect(level).toEqual({ stepX: 90, stepY: 50 });
    const upright = placed({ places: [{ at: { x: 0, y: 0 }, widthPx: 80, angleDeg: 90 }] }).entry;
    expect(stepsWithGap(upright, 0, 2)).toEqual({ stepX: expect.closeTo(40, 6), stepY: expect.closeTo(80, 6) });
  });
});

describe("angles and boxes", () => {
  it.each([
    [190, -170],
    [-190, 170],
    [360, 0],
    [45.678, 45.68],
  ])("%d degrees are %d", (deg, within) => {
    expect(withinTurn(deg)).toBe(within);
  });
  it("corners are those of the box, flipped as it is", () => {
    const one = placed({ places: [{ at: { x: 100, y: 100 }, widthPx: 80, isFlipped: true }] });
    const copy = copyOf(one, 0);
    expect(copy && onBox(copy, one.entry, 1, 1)).toEqual({ x: 60, y: 120 });
  });
});
