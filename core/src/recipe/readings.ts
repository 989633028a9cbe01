// What was found, traced and made of an artwork, as something to put away and take up later: by another thread, or after a
// reload. Plain objects and flat arrays throughout, so that a structured clone of it is as good.
import { makingOf } from "../makings/index.ts";
import type { KeptResults } from "../steps/index.ts";
import type { ResultCache, StepResults } from "./pipeline.ts";

/** The prepared picture is not among them: it is soon made again, and large. */
export interface Readings {
  readonly steps: KeptResults<Omit<StepResults, "prepare">>;
  /** What the steps of each process made, by process. */
  readonly made: ReadonlyMap<string, object>;
}

/** The latest of all that a cache has; what is of another recipe or another picture by now nobody will ask for. */
export function readingsOf({ kept: { prepare, ...steps }, makers }: ResultCache): Readings {
  return { steps: latestOf(steps), made: new Map([...makers].map(([process, { kept }]) => [process, latestOf(kept)])) };
}

function latestOf<T extends object>(kept: T): T {
  return Object.fromEntries(Object.entries(kept).map(([step, one]) => [step, { ...one, before: [] }])) as T;
}

/** Lays readings into a cache that has nothing yet. Each holds for the very keys under which it was made. */
export function takeUpReadings(cache: ResultCache, { steps, made }: Readings): void {
  Object.assign(cache.kept, steps);
  for (const [process, kept] of made) cache.makers.set(process, makingOf(process).open(kept));
}

/** What names the state of readings: the same name, the same readings. */
export function nameReadings({ steps, made }: Readings): string {
  const keys = [steps, ...made.values()].flatMap((kept) => Object.values(kept).map(({ key }: { key: string }) => key));
  return keys.join(" ");
}
