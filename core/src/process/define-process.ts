// A process from its parts: what is told to the rest of the program without its types; and how it makes a design, apart from
// it, since that is large and most of the program only asks what a process is.

import type { ThinLimits } from "../checks/index.ts";
import type { OutputFacts } from "../output/index.ts";
import type { ShopSettings } from "../shelf/index.ts";
import { doStep, type KeptResults, resultOf, type StepTable, totalWeight } from "../steps/index.ts";
import { SCREEN_LETTERS_MM } from "../trade/index.ts";
import { type Portrait, portrayShapes } from "./portrait.ts";
import type { HasProcesses, Made, Maker, Making, Outputs, Process, ProcessReport, Work } from "./process.ts";

/** What describes a process. `S` are its settings, `R` is what it makes. */
export interface ProcessParts<S, R>
  extends Pick<Process<S, R>, "id" | "name" | "title" | "stock" | "settings" | "writing">,
    Partial<Pick<Process<S, R>, "shellOptions" | "fromShop" | "thinLimits" | "lettersMm" | "makesShapes">> {
  warnOfSize?(sizeMm: { readonly width: number; readonly height: number }, settings: S): string | null;
  /** Of its settings those that change what is seen; none, if nothing is said. */
  seen?(settings: S): unknown;
}

/** How it makes a design. `T` are the results of its steps, of which `L` is what it is about. */
export interface MakingParts<S, T, L extends keyof T> {
  readonly process: Process<S, T[L]>;
  readonly steps: StepTable<T, Work<S>>;
  readonly result: L;
  report(work: Work<S>, result: T[L]): ProcessReport;
  outputs(work: Work<S>, result: T[L], facts: OutputFacts): Promise<Outputs>;
  /** What of it is seen, where that is not the design's shapes. */
  portray?(work: Work<S>, result: T[L]): Portrait;
}

const ofInk = (shop: ShopSettings): ThinLimits => ({ lineMm: shop.thinnestLineMm, gapMm: shop.thinnestGapMm });

/** The process that these parts make. Nothing said of what is too thin, it is what is for ink. */
export function defineProcess<S extends object, R = unknown>(parts: ProcessParts<S, R>): Process<S, R> {
  const { id, name, title, stock, settings, writing, shellOptions = [], fromShop = () => ({}) } = parts;
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
  const isOurs = (made: Made): made is Made<R> => made.process === id;
  return {
    id,
    name,
    title,
    stock,
    settings,
    writing,
    shellOptions,
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
    resultIn: (made) => made.find(isOurs)?.result ?? null,
  };
}

/** How the process makes designs, from these parts. */
export function defineMaking<S extends object, T extends object, L extends keyof T>(
  parts: MakingParts<S, T, L>,
): Making {
  return { id: parts.process.id, weight: totalWeight(parts.steps), open: (kept) => openMaker(parts, kept) };
}

function openMaker<S, T, L extends keyof T>(parts: MakingParts<S, T, L>, kept: KeptResults<T> = {}): Maker {
  const { steps, result: wanted, report, outputs, portray } = parts;
  const { id, settingsIn } = parts.process;
  return {
    kept,
    *make(design, recipe, key) {
      const work = { design, settings: settingsIn(recipe) };
      const whole = totalWeight(steps);
      let before = 0;
      for (const step in steps) {
        const { doing, part, weight } = steps[step];
        yield { name: `${id}.${step}`, doing, part, done: before / whole };
        before += weight;
        yield* doStep(steps, step, work, kept, key);
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
