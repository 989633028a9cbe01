// Who does which part of shared work: all who help and the one who asks, each the next part when it has done one.
import type { AnyTask, Outcomes, Shared } from "./share.ts";

/** A thread that helps. */
export interface Helper {
  /** Does one part; parts of one piece of work come with the very same `common`. Rejects if the thread has ended. */
  do(task: string, common: unknown, part: unknown): Promise<unknown>;
}

/** All who help, and how the one who asks lets the others' answers in. */
export interface Helpers {
  readonly all: readonly Helper[];
  breathe(): Promise<void>;
}

/** So many parts each helper has before it, so that it need not wait for the one who asks, who is at work. */
const AHEAD = 2;

/** What came of every part of shared work. Where a helper ends, its parts are done here. No parts: null if nobody helps. */
export async function workTogether(
  { task, common, parts }: Shared,
  { all, breathe }: Helpers,
  taskOf: (name: string) => AnyTask,
): Promise<Outcomes> {
  if (parts.length === 0) return all.length > 0 ? [] : null;
  const doHere = taskOf(task).begin(common as never) as (part: unknown) => unknown;
  const outcomes = new Array<unknown>(parts.length);
  const left = parts.map((_, k) => k).reverse();
  const undone: number[] = [];
  const help = async (helper: Helper) => {
    for (let k = left.pop(); k !== undefined; k = left.pop()) {
      try {
        outcomes[k] = await helper.do(task, common, parts[k]);
      } catch {
        undone.push(k);
        return;
      }
    }
  };
  const helping = Promise.all(all.flatMap((helper) => Array.from({ length: AHEAD }, () => help(helper))));
  for (let k = left.pop(); k !== undefined; k = left.pop()) {
    outcomes[k] = doHere(parts[k]);
    await breathe();
  }
  await helping;
  // Where it is the part that is at fault and not the helper, that shows here.
  for (const k of undone) outcomes[k] = doHere(parts[k]);
  return outcomes;
}
