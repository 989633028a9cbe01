// Steps done with helpers: the same to the last bit as alone, however many there are, in whatever order they answer, and even
// where one of them ends.
import { describe, expect, it } from "vitest";
import { type Helpers, makeHelp, openHelper } from "../share/index.ts";
import { taskOf } from "../tasks/index.ts";
import { drawSvg } from "../testing/pictures.test.support.ts";
import { makeRecipe, makeResultCache, type Results, runPipeline, runStepsTogether } from "./index.ts";

const artwork = {
  key: "boats",
  raster: drawSvg(
    260,
    '<rect width="260" height="260" fill="#ffffff"/><circle cx="120" cy="130" r="90" fill="#d8412f"/><path d="M40 60L220 100L130 240Z" fill="#14304f"/><g fill="#f2b134">' +
      Array.from({ length: 24 }, (_, k) => {
        const [x, y] = [20 + (k % 6) * 42, 24 + Math.floor(k / 6) * 62];
        return `<ellipse cx="${x}" cy="${y}" rx="${6 + (k % 5) * 3}" ry="${14 - (k % 4) * 2}" transform="rotate(${k * 31} ${x} ${y})"/>`;
      }).join("") +
      "</g>",
  ),
};
const recipe = makeRecipe({ artwork: { garment: "#1d2a44" } });

/** Helpers as threads are: what passes is copied, and answers come late and out of turn. `endsAfter`: parts the first one does. */
function pretendThreads(count: number, endsAfter = Number.POSITIVE_INFINITY) {
  const helped: number[] = new Array(count).fill(0);
  const all = helped.map((_, n) => {
    const help = makeHelp(taskOf);
    const { helper, hear, end } = openHelper((message) => {
      const copy = structuredClone(message);
      setTimeout(() => {
        if (n === 0 && helped[n] >= endsAfter) return end("the thread has ended");
        helped[n]++;
        hear(structuredClone(help(copy)));
      }, copy.part % 3);
    });
    return helper;
  });
  const helpers: Helpers = { all, breathe: () => new Promise((resolve) => setTimeout(resolve)) };
  return { helpers, helped };
}

async function runTogether(helpers: Helpers): Promise<Results> {
  const steps = runStepsTogether(helpers, artwork, recipe, makeResultCache());
  let step = await steps.next();
  while (!step.done) step = await steps.next();
  return step.value;
}

/** What a person gets: shapes and plates. */
const seen = ({ map, made }: Results) =>
  JSON.stringify([map, made], (_, value) => (value instanceof Float64Array ? [...value] : value));

const alone = seen(runPipeline(artwork, recipe));

describe("steps done together", () => {
  it.each([1, 2, 3])(
    "are the same to the last bit with %i helpers, each of whom had something to do",
    async (count) => {
      const { helpers, helped } = pretendThreads(count);
      expect(seen(await runTogether(helpers))).toBe(alone);
      expect(Math.min(...helped)).toBeGreaterThan(1);
    },
  );
  it("are the same where a helper ends in the middle", async () => {
    const { helpers, helped } = pretendThreads(2, 1);
    expect(seen(await runTogether(helpers))).toBe(alone);
    expect(helped[0]).toBe(1);
  });
});
