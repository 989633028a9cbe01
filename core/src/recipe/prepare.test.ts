import { describe, expect, it } from "vitest";
import { drawSvg } from "../testing/pictures.test.support.ts";
import {
  type Action,
  actionSchema,
  layUpright,
  makePrepareCache,
  makeRecipe,
  markTaken,
  prepareArtwork,
  printWidthMm,
  recipeSchema,
  scaleRecipe,
} from "./index.ts";

const SOURCE = drawSvg(
  120,
  '<rect x="30" y="40" width="60" height="50" fill="#d8412f"/><circle cx="60" cy="65" r="12" fill="#ffffff"/>',
);
const read = (...entries: object[]): Action[] => entries.map((entry) => actionSchema.parse(entry));
const prepare = (...entries: object[]) => prepareArtwork(SOURCE, read(...entries), makePrepareCache());
const alphaAt = ({ data, width }: { data: Uint8ClampedArray; width: number }, x: number, y: number) =>
  data[(y * width + x) * 4 + 3];

const away = { id: "p1", kind: "pick", seeds: [{ x: 5, y: 5 }], hex: "#ffffff" };
const island = { id: "p2", kind: "pick", seeds: [{ x: 60, y: 65 }], hex: "#ffffff" };
const crop = { id: "c", kind: "crop", x: 20, y: 20, width: 80, height: 80 };
const turn = { id: "t", kind: "turn", quarters: 1 };

describe("what is done to a picture", () => {
  it("is nothing to begin with: the client's pixels, the very same", () => {
    expect(prepare().raster).toBe(SOURCE);
    expect(prepare({ ...away, isOn: false }).raster).toBe(SOURCE);
  });

  it("cropping and turning afterwards moves no pick: places are the client's pixels", () => {
    const { raster } = prepare(away, island, crop, turn);
    expect([raster.width, raster.height]).toEqual([80, 80]);
    // The middle of the hole, (60, 65): after the crop (40, 45), after the quarter turn (80 - 45, 40).
    expect(alphaAt(raster, 35, 40)).toBe(0);
    expect(alphaAt(raster, 35, 20)).toBe(255);
    expect(alphaAt(raster, 2, 2)).toBe(0);
    expect(prepare(turn, crop, away).raster.width).toBe(80);
  });

  it("one entry switched off takes back what it did and nothing else", () => {
    const both = prepare(away, island).raster;
    const one = prepare(away, { ...island, isOn: false }).raster;
    expect(alphaAt(both, 60, 65)).toBe(0);
    expect(alphaAt(one, 60, 65)).toBe(255);
    expect(alphaAt(one, 5, 5)).toBe(0);
  });

  it("order matters where it should: what is painted after a pick stays, before it goes", () => {
    const paint = { id: "s", kind: "stroke", mode: "paint", radiusPx: 6, points: [10, 60], hex: "#ffffff" };
    expect(alphaAt(prepare(away, paint).raster, 10, 60)).toBe(255);
    expect(alphaAt(prepare(paint, away).raster, 10, 60)).toBe(0);
  });

  it("restore brings back what the client sent, in place, also after cropping", () => {
    const restore = { id: "r", kind: "stroke", mode: "restore", radiusPx: 8, points: [25, 30, 25, 60] };
    const { raster } = prepare(away, restore, crop);
    expect([...raster.data.subarray((25 * 80 + 5) * 4, (25 * 80 + 5) * 4 + 4)]).toEqual([255, 255, 255, 255]);
    expect(alphaAt(raster, 60, 5)).toBe(0);
  });

  it("a piece moved by nothing is put back", () => {
    const piece = { id: "m", kind: "move-piece", outline: [40, 45, 80, 45, 80, 85, 40, 85], dx: 20, dy: 0 };
    const moved = prepare(away, island, piece).raster;
    expect([alphaAt(moved, 50, 65), alphaAt(moved, 95, 50)]).toEqual([0, 255]);
    expect(prepare(away, island, { ...piece, dx: 0 }).raster.data).toEqual(prepare(away, island).raster.data);
  });

  it("says what does not fit any more, and does the rest", () => {
    const { misfits, raster } = prepare(
      { ...crop, x: 500 },
      { ...away, hex: "#00ff00" },
      { id: "s", kind: "stroke", mode: "erase", radiusPx: 3, points: [900, 900] },
      { id: "k", kind: "specks", maxPx: 3 },
      { id: "z", kind: "silhouette", hex: "#14304f" },
    );
    expect([...misfits.keys()].sort()).toEqual(["c", "k", "p1", "s"]);
    expect(misfits.get("c")).toContain("outside");
    expect([...raster.data.subarray(0, 3)]).toEqual([20, 48, 79]);
  });

  it("refuses to grow a picture without bound", () => {
    const { misfits } = layUpright(12_000, 12_000, read({ id: "a", kind: "straighten", angleDeg: 45 }));
    expect(misfits.get("a")).toContain("too large");
  });
});

describe("tuning one action", () => {
  const chain = (tolerance: number) =>
    read({ id: "a", kind: "straighten", angleDeg: 3 }, { ...away, tolerance }, island, { ...turn, isOn: false });

  it("begins at the picture before it, and gives what a fresh start gives", () => {
    const cache = makePrepareCache();
    const first = prepareArtwork(SOURCE, chain(10), cache, "p1");
    const second = prepareArtwork(SOURCE, chain(60), cache, "p1");
    expect(second.upright).toBe(first.upright);
    expect(second.focus?.before).toBe(first.focus?.before);
    expect(second.raster.data).toEqual(prepareArtwork(SOURCE, chain(60), makePrepareCache()).raster.data);
    expect(prepareArtwork(SOURCE, chain(60), cache, "p1").raster).toBe(second.raster);
  });

  it("marks what the action in focus takes away, and only that", () => {
    const { focus } = prepareArtwork(SOURCE, read(away, island), makePrepareCache(), "p2");
    if (!focus) throw new Error("no focus");
    const marked = markTaken(focus.before, focus.after).reduce((sum, one) => sum + one, 0);
    expect(Math.abs(marked - Math.PI * 144)).toBeLessThan(12);
  });

  it("tells a misfit again when nothing had to be done again", () => {
    const cache = makePrepareCache();
    const actions = read({ ...away, hex: "#00ff00" }, island);
    expect(prepareArtwork(SOURCE, actions, cache).misfits.has("p1")).toBe(true);
    expect(prepareArtwork(SOURCE, actions, cache).misfits.has("p1")).toBe(true);
  });
});

describe("a better version of the same picture", () => {
  it("takes the recipe over, grown with the picture", () => {
    const large = drawSvg(
      360,
      '<g transform="scale(3)"><rect x="30" y="40" width="60" height="50" fill="#d8412f"/><circle cx="60" cy="65" r="12" fill="#ffffff"/></g>',
    );
    const actions = read(away, island, crop, {
      id: "s",
      kind: "stroke",
      mode: "erase",
      radiusPx: 4,
      points: [35, 45, 85, 45],
    });
    const small = prepareArtwork(SOURCE, actions, makePrepareCache()).raster;
    const grown = scaleRecipe(makeRecipe({ artwork: { actions } }), 3);
    const { raster, misfits } = prepareArtwork(large, grown.artwork.actions, makePrepareCache());
    expect(misfits.size).toBe(0);
    expect(raster.width).toBe(240);
    const share = (data: Uint8ClampedArray) =>
      data.reduce((sum, value, i) => (i % 4 === 3 ? sum + value : sum), 0) / (data.length / 4);
    expect(Math.abs(share(raster.data) - share(small.data))).toBeLessThan(2);
  });
});

describe("size", () => {
  it("is typed as width or as height; the other follows from the picture", () => {
    const size = { width: 400, height: 200 };
    expect(printWidthMm(makeRecipe({ artwork: { width: { value: 10, unit: "in" } } }), size)).toBeCloseTo(254, 9);
    const byHeight = makeRecipe({ artwork: { height: { value: 100, unit: "mm" } } });
    expect(printWidthMm(byHeight, size)).toBeCloseTo(200, 9);
  });

  it("an action with nonsense in it is refused", () => {
    for (const entry of [
      { ...away, tolerance: 300 },
      { ...turn, quarters: 4 },
      { ...crop, width: 0 },
      { id: "x", kind: "blur" },
    ])
      expect(recipeSchema.safeParse({ artwork: { actions: [entry] } }).success).toBe(false);
  });
});
