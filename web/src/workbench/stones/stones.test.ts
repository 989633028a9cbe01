import { type HandEntry, type Stone, type Stones, stoneSettingsSchema } from "@plain-palette/core/stone";
import { beforeAll, describe, expect, it } from "vitest";
import type { TableLayer } from "../../light-table/layers.ts";
import { stubCanvas } from "../../testing/canvas.test.support.ts";
import { saysOfDeed } from "./hand-group.tsx";
import { saysOfSetArea } from "./set-settings.tsx";
import { type HandMode, type StoneDesk, stoneUnder } from "./stone-desk.ts";
import { gapLayers, lit, stoneLayer } from "./stone-layers.ts";
import { type Drag, stoneTool } from "./stone-tool.ts";
import { templateTable } from "./template-table.ts";

beforeAll(stubCanvas);

const stone = (x: number, y: number, size: Stone["size"] = "SS10"): Stone => ({ x, y, size, spotId: "aa0000", row: 0 });
const STONES = [stone(10, 10), stone(13.2, 10), stone(40, 30, "SS20")];
const MADE = {
  ...{ stones: STONES, widthMm: 60, heightMm: 40, lost: [], missed: [] },
  areas: [
    {
      ...{ face: 3, spotId: "aa0000", areaMm2: 900, aroundMm: 120, widthMm: 30 },
      rings: [Float64Array.from([5, 5, 5, 35, 35, 35, 35, 5])],
      numbers: { as: "outline", size: "SS10" },
    },
  ],
} as unknown as Stones;

/** Half a millimetre to the pixel, five screen pixels to one of them. */
const event = (xMm: number, yMm: number) => ({
  x: xMm / 0.5,
  y: yMm / 0.5,
  isStraight: false,
  isFree: false,
  unitsPerPx: 0.2,
});

function handAmong(mode: HandMode = "choose") {
  const done: string[] = [];
  let [taken, drag]: [Stone | null, Drag | null] = [null, null];
  const desk = {
    ...{ chosen: null, mode },
    choose: (face: number | null) => done.push(`area ${face}`),
    setScope: () => {},
    takeUp: (found: Stone | null) => {
      taken = found;
      done.push(found ? `up ${found.x}` : "none up");
    },
    move: ({ x, y }: { x: number; y: number }) => done.push(`to ${x.toFixed(1)} ${y.toFixed(1)}`),
    add: ({ x, y }: { x: number; y: number }) => done.push(`add ${x} ${y}`),
    spreadTo: ({ x }: { x: number }) => done.push(`spread to ${x}`),
  };
  const tool = () =>
    stoneTool({
      ...{ made: MADE, desk: { ...desk, stone: taken } as unknown as StoneDesk, mmPerPx: 0.5, drag },
      setDrag: (next) => {
        drag = next;
      },
    });
  return {
    done,
    overlays: () => tool().overlays,
    drag: (...places: (readonly [number, number])[]) => {
      const [first, ...rest] = places;
      tool().tool.onPress(event(...(first ?? [0, 0])));
      for (const place of rest) tool().tool.onDrag(event(...place));
      tool().tool.onRelease(event(...(places.at(-1) ?? [0, 0])));
    },
  };
}

describe("the hand among stones", () => {
  it("takes up the stone under it, and lays it where it is let go, by as much as the hand has moved", () => {
    const { done, drag } = handAmong();
    drag([10.5, 10], [14, 12], [15.5, 13]);
    expect(done).toEqual(["up 10", "area null", "to 15.0 13.0"]);
  });
  it("leaves a stone where it is when it hardly moves", () => {
    const { done, drag } = handAmong();
    drag([10.5, 10], [10.7, 10]);
    expect(done).toEqual(["up 10", "area null"]);
  });
  it("picks the area beside stones, and none on cloth", () => {
    const { done, drag } = handAmong();
    drag([25, 20]);
    drag([50, 5]);
    expect(done).toEqual(["none up", "area 3", "none up", "area null"]);
  });
  it("sets a new stone wherever it presses, and ends a stretch at a stone alone", () => {
    const add = handAmong("add");
    add.drag([25, 20]);
    expect(add.done).toEqual(["add 25 20"]);
    const spread = handAmong("spread");
    spread.drag([25, 20]);
    spread.drag([40.5, 30]);
    expect(spread.done).toEqual(["spread to 40"]);
  });
  it("shows which stone is in hand", () => {
    const { overlays, drag } = handAmong();
    expect(overlays()).toHaveLength(0);
    drag([10, 10]);
    expect(overlays()).toHaveLength(1);
  });
  it("means a stone up to a little beyond its edge, the nearer of two", () => {
    expect(stoneUnder(STONES, { x: 11.5, y: 10 })?.x).toBe(10);
    expect(stoneUnder(STONES, { x: 11.8, y: 10 })?.x).toBe(13.2);
    expect(stoneUnder(STONES, { x: 20, y: 10 })).toBeNull();
  });
});

describe("stones on the table", () => {
  const fills = (layer: TableLayer) => (layer.kind === "fills" ? layer.fills : []);
  it("are drawn square by square, so that a part of the table draws only its own", () => {
    const layer = stoneLayer(STONES, [200, 40, 40], 0.5);
    for (const { path } of fills(layer)) expect(path).toHaveLength(2);
  });
  it("have lighter facets towards the light and darker ones away from it", () => {
    const red = (css: string) => Number(/\d+/.exec(css)?.[0]);
    expect(red(lit([100, 100, 100], 0.3))).toBeGreaterThan(100);
    expect(red(lit([100, 100, 100], -0.3))).toBeLessThan(100);
    expect(lit([255, 255, 255], 0.5)).toBe("rgb(255 255 255)");
  });
  it("have their gaps in three colours: even ones between neighbours, none across the design", () => {
    const layers = gapLayers(STONES, { gapMm: 0.4, leastMm: 0.3 }, 0.5);
    expect(new Set(layers.map((layer) => (layer.kind === "strokes" ? layer.colour : ""))).size).toBe(3);
    const points = layers.map((layer) =>
      "path" in layer ? (layer.path as unknown as { points: unknown[] }).points : [],
    );
    expect(points.map(({ length }) => length)).toEqual([2, 0, 0]);
  });
});

describe("the template on its table", () => {
  const { template } = stoneSettingsSchema.parse({});
  it("is the design and 14 mm on every side, says how many holes it has, and of how many it is the first", () => {
    const one = templateTable(MADE, template);
    expect([one?.width, one?.height]).toEqual([88, 68]);
    expect(one?.caption?.text).toBe("Template of 3 holes");
    expect(templateTable(MADE, { ...template, split: "sizes", isMirrored: true })?.caption).toEqual({
      text: "Template of 2 holes, the first of 2",
      note: "Mirrored: cut from the back.",
    });
    expect(templateTable({ ...MADE, stones: [] }, template)).toBeNull();
  });
});

describe("what is said", () => {
  it("of each deed and of an area is its kind and its measure", () => {
    const { hand } = stoneSettingsSchema.parse({
      hand: [
        { id: "stone-1", kind: "add", at: { x: 1, y: 2 }, size: "SS16", spotId: "aa0000" },
        { id: "stone-2", kind: "shift", at: { x: 1, y: 2 }, halfGaps: -1 },
        { id: "stone-3", kind: "shift", at: { x: 1, y: 2 }, halfGaps: 4 },
      ],
    });
    expect(hand.map((one: HandEntry) => saysOfDeed(one))).toEqual([
      "Stone added, SS16",
      "Row shifted by 1 half gap",
      "Row shifted by 4 half gaps",
    ]);
    const [area] = MADE.areas;
    expect(area && saysOfSetArea(area)).toBe("outline in SS10, 9.0 cm², 30.0 mm wide");
  });
});
