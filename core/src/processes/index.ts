// The ways in which a design is made. This is the one place outside their folders that names them.
import type { Process } from "../process/index.ts";
import { screens } from "../screens/index.ts";
import { stitches } from "../stitch/index.ts";
import { stones } from "../stone/index.ts";
import { transfer } from "../transfer/index.ts";
import { z } from "../zod/index.ts";

const processes: Process[] = [screens, transfer, stitches, stones];

/** All of them, as a person is offered them. */
export const allProcesses = (): readonly Process[] => processes;

/** How jobs are made that say nothing else, as all were at first. */
export const FIRST_PROCESS: Process = screens;

let isSettled = false;

/** One more. Throws once a recipe was read: from then on it is settled which there are. */
export function addProcess(process: Process): void {
  if (isSettled) throw new Error(`the process "${process.id}" comes too late: recipes were read without it`);
  processes.push(process);
}

/** The process of this id; throws where there is none. */
export function processOf(id: string): Process {
  const found = processes.find((one) => one.id === id);
  if (!found) throw new RangeError(`there is no process "${id}"`);
  return found;
}

/** A process as a recipe names it. */
export const processIdSchema = z.string().refine((id) => processes.some((one) => one.id === id), {
  error: ({ input }) => `there is no process "${input}", only ${processes.map(({ id }) => id).join(", ")}`,
});

/** The settings of every process: who changes the process finds what was decided for it before. */
export const processesSchema = z.lazy(() => {
  isSettled = true;
  return z.looseObject(Object.fromEntries(processes.map(({ id, settings }) => [id, settings.prefault({})])));
});
