import { describe, expect, it } from "vitest";
import { type AnyTask, type Helpers, makeHelp, openHelper, workTogether } from "./index.ts";

const begun: number[] = [];
const root: AnyTask = {
  name: "root",
  begin: (common: number) => {
    begun.push(common);
    return (part: number) => {
      if (part < 0) throw new Error(`${part} has no root`);
      return Math.sqrt(part) * common;
    };
  },
};

/** One helper, which answers in its own time. */
function oneHelper(): Helpers {
  const help = makeHelp(() => root);
  const { helper, hear } = openHelper((message) => queueMicrotask(() => hear(help(message))));
  return { all: [helper], breathe: () => Promise.resolve() };
}

describe("work that is shared out", () => {
  it("comes back in its order; what all parts need goes to each who helps once for each piece of work", async () => {
    const helpers = oneHelper();
    const work = (common: number, parts: readonly number[]) =>
      workTogether({ task: "root", common, parts }, helpers, () => root);
    expect(await work(2, [1, 4, 9, 16, 25, 36])).toEqual([2, 4, 6, 8, 10, 12]);
    expect(begun).toEqual([2, 2]);
    expect(await work(3, [4, 9, 1, 0])).toEqual([6, 9, 3, 0]);
    expect(begun).toEqual([2, 2, 3, 3]);
  });
  it("fails with the part's own error, whoever did it", async () => {
    for (const parts of [
      [-1, 4, 9, 16],
      [4, 9, 16, -1],
    ])
      await expect(workTogether({ task: "root", common: 1, parts }, oneHelper(), () => root)).rejects.toThrow(
        "-1 has no root",
      );
  });
});
