import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import type { Baseline } from "@plain-palette/core/lettering";
import { type Frame, type Homography, invertMap, wholeFrame } from "@plain-palette/core/raster";
import { type LetteringEntry, makeShapeEntry, placeLettering } from "@plain-palette/core/recipe";
import { openTypeface, unpackWoff } from "@plain-palette/core/typeface";
import { describe, expect, it } from "vitest";
import { viewLettering } from "../../../compute/shapes-views.ts";
import { carryNudges, dragged, gripsOf, moved, nudged } from "./letter-grips.ts";
import type { GripKind } from "./lettering-desk.ts";
import { letterAt } from "./lettering-tool.ts";
import { baselineToEntry, wayToClient } from "./places.ts";

const file = createRequire(import.meta.url).resolve("@fontsource/oswald/files/oswald-latin-600-normal.woff");
const oswald = await openTypeface("oswald-600", [unpackWoff(readFileSync(file), 2 ** 22)]);
const typefaces = { get: () => oswald };

/** Pictures as they were prepared: as they came, turned by a quarter, cropped and tilted, turned over, twice the pixels. */
const frameBy = (toSource: Homography): Frame => ({ ...wholeFrame(400, 300), toSource });
const FRAMES: Readonly<Record<string, Frame>> = {
  "as it came": wholeFrame(400, 300),
  "a quarter turned": frameBy([0, 1, 0, -1, 0, 400, 0, 0, 1]),
  "cropped and tilted": frameBy([0.9397, -0.342, 31, 0.342, 0.9397, -12, 0, 0, 1]),
  "turned over": frameBy([-1, 0, 400, 0, 1, 0, 0, 0, 1]),
  "half the pixels": frameBy([2, 0, 0, 0, 2, 0, 0, 0, 1]),
};

const LINE = { kind: "line", at: { x: 180, y: 140 }, along: { x: 0.96, y: 0.28 }, radius: null } as const;
const ARC = { ...LINE, radius: -260 } as const;
const CURVE: Baseline = {
  kind: "curve",
  path: Float64Array.from([20, 200, 120, 90, 260, 90, 380, 220]),
  share: 0.4,
  gap: 5,
};

function entryOn(baseline: Baseline, frame: Frame, parts: object = {}): LetteringEntry {
  const entry = makeShapeEntry({
    ...{ id: "e1", kind: "lettering", text: "Tern Quay", capPx: 24, spotId: "ink" },
    typeface: { id: "oswald-600", name: "Oswald" },
    baseline: baselineToEntry(baseline, frame),
    ...parts,
  });
  if (entry.kind !== "lettering") throw new Error("not lettering");
  return entry;
}

function viewOf(entry: LetteringEntry, frame: Frame) {
  const [view] = viewLettering([entry], frame, typefaces);
  if (!view) throw new Error("not set");
  return view;
}

describe.each(Object.entries(FRAMES))("lettering on a picture %s", (_, frame) => {
  it.each([LINE, ARC, CURVE])("stands where it was put, and reads to the right", (baseline) => {
    const { baseline: back } = placeLettering(entryOn(baseline, frame), invertMap(frame.toSource));
    if (baseline.kind === "curve" || back.kind === "curve") {
      if (baseline.kind !== "curve" || back.kind !== "curve") throw new Error("another kind");
      for (const [i, v] of back.path.entries()) expect(v).toBeCloseTo(baseline.path[i] ?? 0, 2);
      expect(back.share).toBeCloseTo(baseline.share, 6);
      expect(back.gap).toBeCloseTo(baseline.gap, 2);
      return;
    }
    expect([back.at.x, back.at.y]).toEqual([expect.closeTo(180, 2), expect.closeTo(140, 2)]);
    expect([back.along.x, back.along.y]).toEqual([expect.closeTo(0.96, 3), expect.closeTo(0.28, 3)]);
    if (baseline.radius === null) expect(back.radius).toBeNull();
    else expect(back.radius).toBeCloseTo(baseline.radius, 1);
  });

  it("takes an arc that is as good as flat for a line, in numbers that a recipe takes", () => {
    for (const radius of [400_000, -3e7]) expect(entryOn({ ...LINE, radius }, frame).baseline.kind).toBe("straight");
  });

  /** Each grip, pulled along the way that it can go: in shares of the cap height along the line and up from it. */
  const PULLS: readonly (readonly [GripKind, number, number])[] = [
    ["turn", 0.1, 1.2],
    ["size", 1.5, 0.4],
    ["width", 1.2, 0],
    ["spacing", 0.9, 0],
    ["slant", 0.5, 0],
    ["bend", 0, 0.8],
    ["bend", 0, -0.7],
    ["leading", 0, -0.6],
    ["outline", 0, 0.2],
    ["shadow", 0.3, 0.2],
  ];
  it.each(PULLS)("has a grip for %s that stays under the pointer", (kind, along, up) => {
    const text = kind === "leading" ? "Tern\nQuay" : "Tern Quay";
    const shadow = wayToClient(frame, LINE.at, 4, 5);
    const dress = { outline: { widthPx: 3, spotId: "ink" }, shadow: { dx: shadow.x, dy: shadow.y, spotId: null } };
    const entry = entryOn(LINE, frame, { text, ...dress });
    const view = viewOf(entry, frame);
    const from = gripsOf(view, null).find((grip) => grip.kind === kind);
    if (!from) throw new Error(`no grip for ${kind}`);
    const cap = view.set.capHeight;
    const way = { x: (along * 0.96 + up * 0.28) * cap, y: (along * 0.28 - up * 0.96) * cap };
    const to = { x: from.x + way.x, y: from.y + way.y };
    const next = dragged({ from, to, holds: { kind, entry, view } }, frame, null);
    if (!next) throw new Error("nothing came of it");
    const after = gripsOf(viewOf(next, frame), null).find((grip) => grip.kind === kind);
    if (!after) throw new Error("the grip is gone");
    // What is turned or grown keeps its grip on the ray from the anchor; sizes are typed to a tenth.
    const off =
      kind === "turn" || kind === "size"
        ? Math.abs(angleFrom(LINE.at, after) - angleFrom(LINE.at, kind === "turn" ? to : from))
        : Math.hypot(after.x - to.x, after.y - to.y) / cap;
    expect(off).toBeLessThan(kind === "turn" || kind === "size" ? 0.01 : 0.06);
  });

  it("is moved as the table is, and so is a letter of it", () => {
    for (const baseline of [LINE, CURVE]) {
      const entry = entryOn(baseline, frame);
      const view = viewOf(entry, frame);
      const after = viewOf(moved(entry, view.set, 11, -7, frame), frame);
      view.letters.forEach((letter, k) => {
        expect((after.letters[k]?.x ?? 0) - letter.x).toBeCloseTo(11, 1);
        expect((after.letters[k]?.y ?? 0) - letter.y).toBeCloseTo(-7, 1);
      });
      const put = viewOf(nudged(entry, view, 5, { dx: 6, dy: 3 }), frame);
      view.letters.forEach(({ at, paths }, k) => {
        const [was, is] = [paths[0], put.letters[k]?.paths[0]];
        if (!was || !is) return;
        expect((is[0] ?? 0) - (was[0] ?? 0)).toBeCloseTo(at === 5 ? 6 : 0, 2);
        expect((is[1] ?? 0) - (was[1] ?? 0)).toBeCloseTo(at === 5 ? 3 : 0, 2);
      });
    }
  });
});

const angleFrom = (about: { x: number; y: number }, { x, y }: { x: number; y: number }) =>
  Math.atan2(y - about.y, x - about.x);

describe("letters", () => {
  const frame = wholeFrame(400, 300);
  it("are picked by a press on them, spaces are not", () => {
    const view = viewOf(entryOn(LINE, frame), frame);
    for (const { at, text, paths } of view.letters) {
      const [path] = paths;
      if (path) expect(letterAt(view, { x: path[0] ?? 0, y: path[1] ?? 0 })).toBeTypeOf("number");
      else expect([at, text]).toEqual([4, " "]);
    }
    expect(letterAt(view, { x: 1, y: 1 })).toBeUndefined();
  });
  it("turn and grow about their middle", () => {
    const entry = entryOn(LINE, frame);
    const view = viewOf(entry, frame);
    const once = nudged(entry, view, 0, { turnDeg: 30, factor: 1.5 });
    const twice = nudged(once, viewOf(once, frame), 0, { turnDeg: -40, factor: 0.5 });
    expect(twice.nudges).toEqual([{ at: 0, right: 0, down: 0, angleDeg: -10, scale: 0.75 }]);
  });
  it("keep what was done to them while others are typed before, after and over them", () => {
    const nudge = (at: number) => ({ at, right: 0.1, down: 0, angleDeg: 0, scale: 1 });
    const places = (before: string, after: string, ...at: number[]) =>
      carryNudges(before, after, at.map(nudge)).map((one) => one.at);
    expect(places("Tern", "Terns", 0, 3)).toEqual([0, 3]);
    expect(places("Tern", "A Tern", 0, 3)).toEqual([2, 5]);
    expect(places("Tern Quay", "Tern & Quay", 3, 5)).toEqual([3, 7]);
    expect(places("Tern Quay", "Tern", 3, 5)).toEqual([3]);
    expect(places("Tern", "Torn", 1, 2)).toEqual([2]);
  });
});
