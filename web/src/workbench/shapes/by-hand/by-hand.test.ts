import { makeShapeEntry } from "@plain-palette/core/recipe";
import { describe, expect, it } from "vitest";
import { figureOf, partLine, snapped } from "./draw-tool.ts";
import { modeOf, placeOfEdit, sayEdit } from "./edit-words.ts";
import type { Drag, HandDesk } from "./hand-desk.ts";
import { linesTool, shownHandles } from "./lines-tool.ts";
import { outlinesOf, piecesTool, shapeAt, stepOf, wayOf } from "./pieces-tool.ts";

const box = (x: number, y: number, w: number, h: number) =>
  Float64Array.from([
    x,
    y,
    x,
    y,
    x,
    y + h,
    x,
    y + h,
    x,
    y + h,
    x + w,
    y + h,
    x + w,
    y + h,
    x + w,
    y + h,
    x + w,
    y,
    x + w,
    y,
    x + w,
    y,
    x,
    y,
    x,
    y,
  ]);
const hole = (x: number, y: number, w: number, h: number) =>
  Float64Array.from([
    x,
    y,
    x,
    y,
    x + w,
    y,
    x + w,
    y,
    x + w,
    y,
    x + w,
    y + h,
    x + w,
    y + h,
    x + w,
    y + h,
    x,
    y + h,
    x,
    y + h,
    x,
    y + h,
    x,
    y,
    x,
    y,
  ]);
/** A letter with its counter, and what lies beside it. */
const FACES = [
  { spotId: "red", paths: [box(10, 10, 40, 60), hole(20, 20, 20, 20)] },
  { spotId: "white", paths: [box(20, 20, 20, 20)] },
  { spotId: "navy", paths: [box(80, 10, 10, 10)] },
];
const EDGES = FACES.map(({ spotId, paths: [path = new Float64Array()] }) => ({
  path,
  start: -1,
  end: -1,
  left: spotId,
  right: null,
}));

/** A desk on which only what a test is about is laid. */
function desk(part: Partial<HandDesk>): HandDesk {
  return {
    faces: FACES,
    edges: EDGES,
    nodes: [],
    refs: [],
    shapes: [],
    mmPerPx: 0.5,
    picksBy: "box",
    drag: null,
    ...part,
  } as unknown as HandDesk;
}
const event = (x: number, y: number, more: object = {}) => ({
  x,
  y,
  isStraight: false,
  isFree: false,
  unitsPerPx: 0.2,
  ...more,
});
const drag = (from: readonly [number, number], to: readonly [number, number], holds: Drag["holds"]): Drag => ({
  from: { x: from[0], y: from[1] },
  to: { x: to[0], y: to[1] },
  holds,
});

describe("pieces", () => {
  it("are what lies under the hand, with all that lies in their holes", () => {
    expect([
      shapeAt(FACES, { x: 15, y: 15 }),
      shapeAt(FACES, { x: 30, y: 30 }),
      shapeAt(FACES, { x: 99, y: 99 }),
    ]).toEqual([0, 1, -1]);
    expect(outlinesOf(FACES, [0])).toHaveLength(3);
    expect(outlinesOf(FACES, [2])).toHaveLength(1);
  });
  it("are turned and scaled about the middle of their box", () => {
    const about = { x: 30, y: 40 };
    const quarter = stepOf(drag([30, 0], [70, 40], { kind: "turn", about }));
    expect(quarter.turnDeg).toBeCloseTo(90, 9);
    const picked = desk({ shapes: [{ at: { x: 15, y: 15 }, spotId: "red" }] });
    const [x, y] = wayOf(picked, quarter)(30, 10);
    expect([x, y]).toEqual([expect.closeTo(60, 9), expect.closeTo(40, 9)]);
    const twice = stepOf(drag([50, 70], [70, 100], { kind: "scale", about }));
    expect(wayOf(picked, twice)(50, 70)).toEqual([70, 100]);
  });
});

it("a small piece is moved, not scaled, wherever it is pressed; a large one by its corner is scaled", () => {
  const changes: { drag?: Drag | null }[] = [];
  const change = (part: object) => void changes.push(part);
  const held = (shape: { at: { x: number; y: number }; spotId: string }, unitsPerPx: number, x: number, y: number) => {
    piecesTool(desk({ change, shapes: [shape] })).onPress(event(x, y, { unitsPerPx }));
    return changes.findLast(({ drag }) => drag)?.drag?.holds.kind;
  };
  expect(held({ at: { x: 85, y: 15 }, spotId: "navy" }, 1, 80.5, 10.5)).toBe("pieces");
  expect(held({ at: { x: 15, y: 15 }, spotId: "red" }, 0.2, 50, 70)).toBe("scale");
});

describe("lines", () => {
  it("are picked by node, by both ends, or several by a box; Shift adds", () => {
    const changes: object[] = [];
    const tool = linesTool(desk({ change: (part) => void changes.push(part), nodes: [{ x: 80, y: 10 }] }));
    tool.onPress(event(10.5, 10));
    expect(changes[0]).toMatchObject({ nodes: [{ x: 10, y: 10 }] });
    tool.onPress(event(10, 10, { isStraight: true }));
    expect(changes.find((one) => "nodes" in one && (one.nodes as object[]).length === 2)).toBeDefined();
    const boxed = linesTool(
      desk({ change: (part) => void changes.push(part), drag: drag([0, 0], [60, 80], { kind: "box", adds: false }) }),
    );
    boxed.onRelease(event(60, 80));
    expect(changes.at(-1)).toMatchObject({ nodes: { length: 8 } });
  });
  it("show the handles of curves only", () => {
    expect(shownHandles(EDGES, [{ edge: 0, node: 1 }])).toEqual([]);
    const curve = {
      path: Float64Array.from([0, 0, 10, -10, 20, -10, 30, 0]),
      start: 0,
      end: 1,
      left: "red",
      right: null,
    };
    expect(shownHandles([curve], [{ edge: 0, node: 1 }])).toMatchObject([{ which: 1, x: 20, y: -10 }]);
  });
});

describe("drawing", () => {
  const draw = {
    figure: "circle",
    spotId: null,
    widthMm: 8,
    heightMm: 3,
    radiusMm: 0,
    corners: 6,
    lineMm: 1,
    isHeld: false,
  } as const;
  it("takes the typed size where the hand only clicks, and its own where it drags", () => {
    const typed = figureOf(desk({ draw }), drag([50, 50], [50, 50], { kind: "sketch", points: [] }));
    expect(typed).toMatchObject({ kind: "ellipse", width: 16, height: 16, at: { x: 50, y: 50 } });
    const dragged = figureOf(desk({ draw }), drag([50, 50], [56, 58], { kind: "sketch", points: [] }));
    expect(dragged).toMatchObject({ width: 20 });
    const sized = figureOf(
      desk({ draw: { ...draw, figure: "rectangle" } }),
      drag([10, 10], [40, 30], { kind: "sketch", points: [] }),
    );
    expect(sized).toMatchObject({ kind: "rectangle", width: 30, height: 20, at: { x: 25, y: 20 } });
  });
  it("goes to nodes and to the middle of shapes, or level; Alt leaves it alone", () => {
    expect(snapped(desk({}), event(10.6, 10.4), null)).toEqual({ x: 10, y: 10 });
    expect(snapped(desk({}), event(30.5, 39.8), null)).toEqual({ x: 30, y: 40 });
    expect(snapped(desk({}), event(66, 33.5), { x: 60, y: 33 })).toEqual({ x: 66, y: 33 });
    expect(snapped(desk({}), event(10.6, 10.4, { isFree: true }), null)).toEqual({ x: 10.6, y: 10.4 });
  });
  it("parts along a straight line, or as the hand went", () => {
    const part = { act: "part", isFree: false, gapMm: 1, bridgeMm: 1, becomes: null } as const;
    const sketch = drag([0, 0], [10, 5], { kind: "sketch", points: [0, 0, 4, 9, 10, 5] });
    expect(partLine(desk({ part }), sketch)).toEqual([0, 0, 10, 5]);
    expect(partLine(desk({ part: { ...part, isFree: true } }), sketch)).toHaveLength(6);
  });
});

describe("an edit in words", () => {
  const spots = [{ id: "d8412f", name: "Red" }] as unknown as Parameters<typeof sayEdit>[1];
  const stroke = { kind: "stroke", curve: [0, 0, 0, 0, 9, 0, 9, 0], width: 4 } as const;
  it.each([
    [
      {
        kind: "draw",
        figure: { kind: "ellipse", at: { x: 1, y: 2 }, width: 9, height: 9 },
        spotId: null,
        heldMm: 3.175,
      },
      "A circle of 3.175 mm, held in the garment",
    ],
    [
      { kind: "draw", act: "part", figure: stroke, spotId: null, onlyOn: "d8412f" },
      "Red parted by 2.00 mm of the garment",
    ],
    [{ kind: "draw", act: "join", figure: stroke, spotId: "d8412f" }, "Red joined by 2.00 mm"],
    [{ kind: "cut", curve: [0, 0, 0, 0, 9, 0, 9, 0], spotId: "gone" }, "a colour that is gone parted, no gap"],
    [{ kind: "pieces", picks: [{ at: { x: 1, y: 2 }, spotId: "d8412f" }], stays: "away" }, "A shape taken away"],
    [{ kind: "round", at: { x: 1, y: 2 }, spotId: null, diameterMm: 3.175 }, "A true circle of 3.175 mm, held"],
  ])("says what was done and where", (parts, words) => {
    const entry = makeShapeEntry({ id: "a", ...parts } as Parameters<typeof makeShapeEntry>[0]);
    expect(sayEdit(entry, spots, 0.5)).toBe(words);
    expect(placeOfEdit(entry)).not.toBeNull();
    expect(modeOf(entry)).not.toBeNull();
  });
});
