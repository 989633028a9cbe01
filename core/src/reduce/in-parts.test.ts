// Colours found with helpers: the same to the last pixel as alone, and in memory that can be kept and stored.
import { describe, expect, it } from "vitest";
import type { Raster } from "../raster/index.ts";
import { doAlone, type Helpers, makeHelp, openHelper, type Sharing, workTogether } from "../share/index.ts";
import { taskOf } from "../tasks/index.ts";
import { drawSvg } from "../testing/pictures.test.support.ts";
import { findColoursTogether } from "./index.ts";

const SIZE = 540;
const clean = drawSvg(
  SIZE,
  '<circle cx="200" cy="220" r="150" fill="#d8412f"/><path d="M60 80L480 200L260 500Z" fill="#14304f"/>' +
    '<g stroke="#f2b134" stroke-width="0.8" fill="none"><path d="M20 500L520 380"/><path d="M20 20L520 60"/></g>',
);

/** The same with an even grain, and a corner that is not there. */
function withGrain({ width, height, data }: Raster): Raster {
  const out = data.slice();
  for (let p = 0; p < width * height; p++) {
    for (let c = 0; c < 3; c++) out[p * 4 + c] += ((p * 7919 + c * 104729) % 13) - 6;
    if (p % width < 60 && p < 60 * width) out[p * 4 + 3] = 0;
  }
  return { width, height, data: out };
}

/** Does shared work with a helper that gets copies, as a thread does; counts what it did. */
async function doTogether<T>(work: Sharing<T>): Promise<{ outcome: T; helped: number }> {
  let helped = 0;
  const help = makeHelp(taskOf);
  const { helper, hear } = openHelper((message) => {
    const copy = structuredClone(message);
    setTimeout(() => hear(structuredClone(help(copy))));
    helped++;
  });
  const helpers: Helpers = { all: [helper], breathe: () => new Promise((resolve) => setTimeout(resolve)) };
  let turn = work.next(null);
  while (!turn.done) turn = work.next(await workTogether(turn.value, helpers, taskOf));
  return { outcome: turn.value, helped };
}

describe("colours found with a helper", () => {
  it.each([
    ["a clean picture", clean, 0],
    ["a noisy one", withGrain(clean), 1],
  ])("are the same in %s", async (_, raster, leastNoise) => {
    const alone = doAlone(findColoursTogether(raster));
    const { outcome, helped } = await doTogether(findColoursTogether(raster));
    expect(alone.noise).toBeGreaterThanOrEqual(leastNoise);
    expect(helped).toBeGreaterThan(4);
    expect(outcome.found).toEqual(alone.found);
    expect(outcome.opaquePx).toBe(alone.opaquePx);
    expect(outcome.labels.data.findIndex((label, p) => label !== alone.labels.data[p])).toBe(-1);
    expect(outcome.raster.data.findIndex((value, i) => value !== alone.raster.data[i])).toBe(-1);
    // Browsers store no shared memory, and draw none.
    expect(outcome.labels.data.buffer).toBeInstanceOf(ArrayBuffer);
    expect(outcome.raster.data.buffer).toBeInstanceOf(ArrayBuffer);
  });
});
