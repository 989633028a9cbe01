// All that threads can help with, by name.
import { decideTask, flatTask, smoothTask } from "../reduce/index.ts";
import { spreadTask } from "../screens/index.ts";
import type { AnyTask } from "../share/index.ts";
import { fitTask } from "../trace/index.ts";

const TASKS: readonly AnyTask[] = [smoothTask, flatTask, decideTask, fitTask, spreadTask];

/** The task of this name. Throws if there is none. */
export function taskOf(name: string): AnyTask {
  const found = TASKS.find((task) => task.name === name);
  if (!found) throw new Error(`there is no task "${name}"`);
  return found;
}
