// A process from its parts: what is told to the rest of the program without its types.

import type { ThinLimits } from "../checks/index.ts";
import type { OutputFacts } from "../output/index.ts";
import type { ShopSettings } from "../shelf/index.ts";
import { doStep, type KeptResults, resultOf, type StepTable, totalWeight } from "../steps/index.ts";
import { SCREEN_LETTERS_MM } from "../trade/index.ts";
import { type Portrait, portrayShapes } from "./portrait.ts";
import type { HasProcesses, Made, Maker, Outputs, Process, ProcessReport, Work } from "./process.ts";

/** What makes a process. `T` are the results of its steps, of which `L` is what it is about. */
export interface ProcessParts<S, T, L extends keyof T>
  extends Pick<Process<S, T[L]>, "id" | "name" | "title" | "stock" | "settings" | "writing">,
    Partial<Pick<Process<S, T[L]>, "shellOptions" | "fromShop" | "thinLimits" | "lettersMm" | "makesShapes">> {
  readonly steps: StepTable<T, Work<S>>;
  readonly result: L;
  warnOfSize?(sizeMm: { readonly width: number; readonly height: number }, settings: S): string | null;
  report(work: Work<S>, result: T[L]): ProcessReport;
  outputs(work: Work<S>, result: T[L], facts: OutputFacts): Outputs;
  /** What of it is seen, where that is not the design's shapes. */
  portray?(work: Work<S>, result: T[L]): Portrait;
  /** Of its settings those that change what is seen; none, if nothing is said. */
  seen?(settings: S): unknown;
}

const ofInk = (shop: ShopSettings): ThinLimits => ({ lineMm: shop.thinnestLineMm, gapMm: shop.thinnestGapMm });

/** The process that these parts make. Nothing said of what is too thin, it is what is for ink. */
export function defineProcess<S extends object, T extends object, L extends keyof T>(
  parts: ProcessParts<S, T, L>,
): Process<S, T[L]> {
  const { id, name, title, stock, settings, writing, steps, shellOptions = [], fromShop = () => ({}) } = parts;
  const { thinLimits = ofInk, lettersMm = SCREEN_LETTERS_MM, makesShapes = true } = parts;
  const nothingDecided = settings.parse({});
  const read = new WeakMap<object, S>();
  const settingsIn = ({ processes }: HasProcesses): S => {
    const kept = processes[id];
    if (typeof kept !== "object" || kept === null) return nothingDecided;
    const found = read.get(kept) ?? settings.parse(kept);
    read.set(kept, found);
    return found;
  };
  const isOurs = (made: Made): made is Made<T[L]> => made.process === id;
  return {
    id,
    name,
    title,
    stock,
    settings,
    writing,
    shellOptions,
    weight: totalWeight(steps),
    fromShop,
    thinLimits,
    lettersMm,
    makesShapes,
    settingsIn,
    withSettings: (recipe, part) => ({
      ...recipe,
      processes: { ...recipe.processes, [id]: { ...settingsIn(recipe), ...part } },
    }),
    warnOfSize: (sizeMm, recipe) => parts.warnOfSize?.(sizeMm, settingsIn(recipe)) ?? null,
    seenOf: (recipe) => parts.seen?.(settingsIn(recipe)) ?? null,
    open: () => openMaker(parts, settingsIn),
    resultIn: (made) => made.find(isOurs)?.result ?? null,
  };
}

function openMaker<S, T, L extends keyof T>(
  { id, steps, result: wanted, report, outputs, portray }: ProcessParts<S, T, L>,
  settingsIn: (recipe: HasProcesses) => S,
): Maker {
  const kept: KeptResults<T> = {};
  return {
    *make(design, recipe, key) {
      const work = { design, settings: settingsIn(recipe) };
      const whole = totalWeight(steps);
      let before = 0;
      for (const step in steps) {
        const { doing, part, weight } = steps[step];
        yield { name: `${id}.${step}`, doing, part, done: before / whole };
        before += weight;
        doStep(steps, step, work, kept, key);
      }
      const result = resultOf(kept, wanted);
      return {
        process: id,
        result,
        report: () => report(work, result),
        portray: () => portray?.(work, result) ?? portrayShapes(design),
        outputs: (facts) => outputs(work, result, facts),
      };
    },
  };
}
