// What passes between the thread that asks and one that helps, whatever kind of thread it is.

import type { AnyTask } from "./share.ts";
import type { Helper } from "./work-together.ts";

/** One part; `common` comes with the first of its piece of work only, which has this number. */
export interface PartMessage {
  readonly work: number;
  readonly part: number;
  readonly task: string;
  readonly common?: unknown;
  readonly input: unknown;
}

/** What came of it, or what went wrong. */
export interface OutcomeMessage {
  readonly part: number;
  readonly outcome?: unknown;
  readonly problem?: string;
}

/** The asking end. `hear` takes what the thread answers, `end` says that it has ended. */
export function openHelper(post: (message: PartMessage) => void): {
  readonly helper: Helper;
  hear(message: OutcomeMessage): void;
  end(reason: string): void;
} {
  const waiting = new Map<number, { resolve(outcome: unknown): void; reject(reason: Error): void }>();
  let ended: string | null = null;
  let work = 0;
  let part = 0;
  let last: unknown;
  return {
    helper: {
      do(task, common, input) {
        if (ended !== null) return Promise.reject(new Error(ended));
        const isNew = common !== last || work === 0;
        if (isNew) work++;
        last = common;
        const number = part++;
        post({ work, part: number, task, input, ...(isNew ? { common } : {}) });
        return new Promise((resolve, reject) => waiting.set(number, { resolve, reject }));
      },
    },
    hear({ part: number, outcome, problem }) {
      const asked = waiting.get(number);
      waiting.delete(number);
      if (problem === undefined) asked?.resolve(outcome);
      else asked?.reject(new Error(problem));
    },
    end(reason) {
      ended = reason;
      for (const { reject } of waiting.values()) reject(new Error(reason));
      waiting.clear();
    },
  };
}

/** The helping end: answers each message with what came of it. */
export function makeHelp(taskOf: (name: string) => AnyTask): (message: PartMessage) => OutcomeMessage {
  let begun = 0;
  let doPart: (input: never) => unknown = () => undefined;
  return ({ work, part, task, common, input }) => {
    try {
      if (work !== begun) {
        doPart = taskOf(task).begin(common as never);
        begun = work;
      }
      return { part, outcome: doPart(input as never) };
    } catch (error) {
      return { part, problem: error instanceof Error ? error.message : String(error) };
    }
  };
}
