import { type SewnArea, type StitchPlan, stitchSettingsSchema } from "@plain-palette/core/stitch";
import { afterEach, describe, expect, it, vi } from "vitest";
import { nextEntryId } from "../areas/entry-ids.ts";
import { areaTool, type Hand } from "./area-tool.ts";
import { Film } from "./film.ts";
import { ThreadCanvas } from "./thread-canvas.ts";
import { shaded, shadeOf } from "./thread-layers.ts";

/** A canvas that counts what is drawn on it. */
class FakeCanvas {
  static lines = 0;
  constructor(
    readonly width: number,
    readonly height: number,
  ) {}
  getContext() {
    return {
      beginPath() {},
      moveTo() {},
      lineTo() {},
      clearRect() {},
      drawImage() {},
      stroke: () => FakeCanvas.lines++,
    };
  }
}
class FakePath {
  addPath() {}
  lineTo() {}
  closePath() {}
}
vi.stubGlobal("OffscreenCanvas", FakeCanvas);
vi.stubGlobal("Path2D", FakePath);
afterEach(() => {
  FakeCanvas.lines = 0;
});

/** Stitches in a row, a jump in the middle. */
function planOf(count: number): StitchPlan {
  return {
    ...{ widthMm: 50, heightMm: 50, colours: [{ spotId: "aa0000", name: "Red", rgb: [170, 0, 0] }] },
    command: Uint8Array.from({ length: count }, (_, i) => (i === count / 2 ? 1 : 0)),
    x: Float64Array.from({ length: count }, (_, i) => (i % 40) + 1),
    y: Float64Array.from({ length: count }, (_, i) => Math.floor(i / 40) * 0.4),
    colour: new Uint8Array(count),
    area: new Int32Array(count),
    kind: new Uint8Array(count),
  };
}

describe("playback", () => {
  it("draws each stitch once going forwards, and from the last kept picture going back", () => {
    const thread = new ThreadCanvas(planOf(20_000));
    thread.drawTo(6000);
    expect(FakeCanvas.lines).toBe(5999);
    thread.drawTo(6010);
    expect(FakeCanvas.lines).toBe(6009);
    thread.drawTo(20_000);
    // A jump is no thread, nor is the stitch that it leads to.
    expect(FakeCanvas.lines).toBe(19_997);
    FakeCanvas.lines = 0;
    thread.drawTo(16_010);
    expect(FakeCanvas.lines).toBe(10);
    thread.drawTo(100);
    expect(FakeCanvas.lines).toBe(10 + 99);
  });
});

describe("a film of a plan", () => {
  /** Frames of a screen, one after the other when the test says so. */
  function screen(film: Film) {
    let next: ((now: number) => void) | null = null;
    vi.stubGlobal("requestAnimationFrame", (step: (now: number) => void) => {
      next = step;
      return 1;
    });
    vi.stubGlobal("cancelAnimationFrame", () => {
      next = null;
    });
    const frames: number[] = [];
    film.onFrame(({ right, left }) => frames.push(right - left));
    let now = performance.now();
    const run = (count: number, ms: number) => {
      for (let i = 0; i < count && next; i++) {
        now += ms;
        const step = next;
        next = null;
        step(now);
      }
    };
    return { frames, run };
  }
  it("moves on by the clock, whatever a frame takes, and draws every frame but tells of few", () => {
    const film = new Film(planOf(4000), 0.1, 1000);
    const { frames, run } = screen(film);
    const told = vi.fn();
    film.subscribe(told);
    film.play(true);
    told.mockClear();
    run(60, 1000 / 60);
    expect(film.read().at).toBeGreaterThan(850);
    expect(frames.length).toBeGreaterThanOrEqual(60);
    expect(told.mock.calls.length).toBeLessThanOrEqual(11);
    // What one frame draws is what is new in it, not the whole picture.
    expect(frames.at(-1)).toBeLessThan(film.canvas.width);
    run(10, 500);
    expect(film.read()).toMatchObject({ at: 4000, isPlaying: false });
  });
  it("stops where it is paused, goes on from there, and begins anew at its end", () => {
    const film = new Film(planOf(4000), 0.1, 1000);
    const { run } = screen(film);
    film.play(true);
    run(30, 20);
    film.play(false);
    const { at } = film.read();
    run(30, 20);
    expect(film.read()).toMatchObject({ at, isPlaying: false });
    film.goTo(4000);
    film.play(true);
    expect(film.read()).toMatchObject({ at: 0, isPlaying: true });
    film.goTo(null);
    expect(film.read()).toMatchObject({ at: null, isPlaying: false });
  });
});

describe("thread on the table", () => {
  it("is lightest along the light and darkest across it, whichever way it was sewn", () => {
    expect(shadeOf(0.94, 0.34)).toBe(0);
    expect(shadeOf(-0.94, -0.34)).toBe(0);
    expect(shadeOf(0.34, -0.94)).toBe(7);
    const [light, dark] = [shaded([100, 100, 100], 0), shaded([100, 100, 100], 7)];
    expect(Number(/\d+/.exec(light)?.[0])).toBeGreaterThan(Number(/\d+/.exec(dark)?.[0]) + 15);
    // The usual two fill angles are told apart.
    expect(shadeOf(1, 1)).not.toBe(shadeOf(1, -1));
  });
});

describe("the hand on an area", () => {
  const area = {
    ...{ face: 3, spotId: "aa0000", areaMm2: 400, aroundMm: 80, proposedAs: "fill", proposedAngleDeg: 45, widthMm: 10 },
    rings: [Float64Array.from([10, 10, 10, 30, 30, 30, 30, 10])],
    numbers: { as: "fill", angleDeg: 0 },
    ...{ start: null, stop: null, turn: null, entryIds: [] },
  } as unknown as SewnArea;
  const event = (x: number, y: number) => ({ x, y, isStraight: false, isFree: false, unitsPerPx: 0.2 });

  function handOn(chosen: SewnArea | null) {
    const done: string[] = [];
    let hand: Hand | null = null;
    const tool = () =>
      areaTool({
        ...{ areas: [area], chosen, mmPerPx: 0.5, hand },
        setHand: (next) => {
          hand = next;
        },
        choose: (face) => done.push(`choose ${face}`),
        turn: (angle) => done.push(`turn ${angle}`),
        move: (grip, { x, y }) => done.push(`move ${grip} ${x} ${y}`),
      }).tool;
    const drag = (...places: (readonly [number, number])[]) => {
      const [first, ...rest] = places;
      tool().onPress(event(...(first ?? [0, 0])));
      for (const place of rest) tool().onDrag(event(...place));
      tool().onRelease(event(...(places.at(-1) ?? [0, 0])));
    };
    return { done, drag };
  }

  it("picks the area under it, and none on cloth", () => {
    const { done, drag } = handOn(null);
    drag([40, 40]);
    drag([4, 4]);
    expect(done).toEqual(["choose 3", "choose null"]);
  });
  it("turns rows by the handle's end; nearly round angles are made round", () => {
    // The middle is at 20, 20 mm, the handle 8 mm long: 40, 40 and 56, 40 px.
    const { done, drag } = handOn(area);
    drag([56, 40], [50, 56], [40, 60]);
    drag([56, 40], [55, 54]);
    drag([56, 40], [54, 48]);
    expect(done).toEqual(["turn 90", "turn 45", "turn 30"]);
  });
  it("moves where the needle comes in", () => {
    const { done, drag } = handOn(area);
    drag([37, 40], [20, 50]);
    expect(done).toEqual(["move start 10 25"]);
  });
});

describe("entries about areas", () => {
  it("have ids of their own, whatever was taken out", () => {
    expect(nextEntryId([], "area")).toBe("area-1");
    expect(nextEntryId([{ id: "area-3" }, { id: "area-1" }], "area")).toBe("area-4");
    const { areas } = stitchSettingsSchema.parse({ areas: [{ id: nextEntryId([], "area"), at: { x: 1, y: 2 } }] });
    expect(areas[0]).toMatchObject({ id: "area-1", isOn: true });
  });
});
