// Tools as a hand uses them: press, drag, let go.
import { beforeAll, describe, expect, it, vi } from "vitest";
import { addPoint, type ToolEvent } from "../../light-table/tool.ts";
import { stubCanvas } from "../../testing/canvas.test.support.ts";
import { cornersTool, cropTool, levelTool } from "./frame-tools.ts";
import { brushTool, carryTool, cutTool } from "./touch-tools.ts";

beforeAll(stubCanvas);

const at = (x: number, y: number, part: Partial<ToolEvent> = {}): ToolEvent => ({
  x,
  y,
  unitsPerPx: 1,
  isStraight: false,
  isFree: false,
  ...part,
});

/** A tool that is made anew from what it has drawn so far, as the page does. */
function hand<S>(start: S, make: (state: S, set: (next: S) => void) => ReturnType<typeof brushTool>) {
  let state = start;
  const tool = () =>
    make(state, (next) => {
      state = next;
    }).tool;
  return {
    press: (event: ToolEvent) => tool().onPress(event),
    drag: (event: ToolEvent) => tool().onDrag(event),
    release: (event: ToolEvent) => tool().onRelease(event),
    state: () => state,
  };
}

describe("the brush", () => {
  const brush = (onStroke: (points: readonly number[]) => void) =>
    hand<readonly number[]>([], (sketch, set) =>
      brushTool({ mode: "erase", radiusPx: 8, hex: "#000000" }, sketch, set, null, () => {}, onStroke),
    );

  it("gives the whole stroke when it is let go, and is empty again", () => {
    const onStroke = vi.fn();
    const one = brush(onStroke);
    one.press(at(0, 0));
    one.drag(at(5, 0));
    one.drag(at(5.2, 0.1));
    one.drag(at(10, 4));
    one.release(at(20, 4));
    // What is nearer than a part of its width is no point of its own.
    expect(onStroke).toHaveBeenCalledWith([0, 0, 5, 0, 10, 4, 20, 4]);
    expect(one.state()).toEqual([]);
  });

  it("is straight with Shift held; a click alone is a dot", () => {
    const onStroke = vi.fn();
    const one = brush(onStroke);
    one.press(at(0, 0));
    one.drag(at(5, 9));
    one.release(at(30, 30, { isStraight: true }));
    expect(onStroke).toHaveBeenLastCalledWith([0, 0, 30, 30]);
    one.press(at(7, 7));
    one.release(at(7, 7));
    expect(onStroke).toHaveBeenLastCalledWith([7, 7]);
  });

  it("adds no point where it stands still", () => {
    const points = [1, 1];
    expect(addPoint(points, 1.2, 1.2, 0.5)).toBe(points);
    expect(addPoint(points, 2, 1, 0.5)).toEqual([1, 1, 2, 1]);
  });
});

describe("cutting and carrying", () => {
  it("cuts what a rectangle or a lasso goes round, and nothing where the hand only clicked", () => {
    const onCut = vi.fn();
    const rectangle = hand<readonly number[]>([], (sketch, set) => cutTool("rectangle", sketch, set, onCut));
    rectangle.press(at(2, 3));
    rectangle.release(at(12, 9));
    expect(onCut).toHaveBeenLastCalledWith([2, 3, 12, 3, 12, 9, 2, 9]);
    const lasso = hand<readonly number[]>([], (sketch, set) => cutTool("lasso", sketch, set, onCut));
    lasso.press(at(0, 0));
    lasso.release(at(0, 0));
    expect(onCut).toHaveBeenCalledTimes(1);
    lasso.press(at(0, 0));
    lasso.drag(at(10, 0));
    lasso.release(at(10, 10));
    expect(onCut).toHaveBeenLastCalledWith([0, 0, 10, 0, 10, 10]);
  });

  it("carries a piece by whole pixels, from where it was", () => {
    const hold = { current: null };
    const carry = hand({ x: 3, y: 0 }, (offset, set) => carryTool([0, 0, 4, 0, 4, 4], offset, hold, set));
    carry.press(at(10, 10));
    carry.drag(at(12.6, 10.2));
    expect(carry.state()).toEqual({ x: 6, y: 0 });
    carry.release(at(20, 5));
    expect(carry.state()).toEqual({ x: 13, y: -5 });
  });
});

describe("laying upright", () => {
  it("levels by a line that is long enough to mean it", () => {
    const onLevelled = vi.fn();
    const level = hand<readonly number[]>([], (sketch, set) => levelTool(sketch, set, onLevelled));
    level.press(at(0, 0));
    level.release(at(5, 1));
    expect(onLevelled).not.toHaveBeenCalled();
    level.press(at(0, 0));
    level.release(at(100, 1));
    expect(onLevelled).toHaveBeenCalledWith(-0.57);
  });

  it("drags a crop by its grips and its middle, begins a new one outside, and keeps inside the picture", () => {
    const hold = { current: null };
    const size = { width: 100, height: 80 };
    const crop = hand({ x: 10, y: 10, width: 50, height: 40 }, (box, set) => cropTool(box, size, hold, set));
    crop.press(at(60, 50));
    crop.release(at(300, 70));
    expect(crop.state()).toEqual({ x: 10, y: 10, width: 90, height: 60 });
    crop.press(at(30, 20));
    crop.release(at(0, 0));
    expect(crop.state()).toEqual({ x: 0, y: 0, width: 90, height: 60 });
    crop.press(at(99, 78));
    crop.release(at(95, 75));
    expect(crop.state()).toEqual({ x: 96, y: 76, width: 3, height: 2 });
  });

  it("moves the corner of a sheet that is nearest", () => {
    const hold = { current: -1 };
    const corner = (x: number, y: number) => ({ x, y });
    const sheet = hand(
      [corner(0, 0), corner(100, 0), corner(100, 80), corner(0, 80)] as [
        { x: number; y: number },
        { x: number; y: number },
        { x: number; y: number },
        { x: number; y: number },
      ],
      (corners, set) => cornersTool(corners, hold, (moved) => set([moved[0], moved[1], moved[2], moved[3]])),
    );
    sheet.press(at(90, 70));
    sheet.release(at(91.26, 74.04));
    expect(sheet.state()[2]).toEqual({ x: 91.3, y: 74 });
    expect(sheet.state()[0]).toEqual({ x: 0, y: 0 });
  });
});
