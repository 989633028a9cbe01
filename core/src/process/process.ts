// What a process is to the rest of the program: a way of making a design, whose settings and results are its own.
import type { ThinLimits, ThinPlace, Warning } from "../checks/index.ts";
import type { Rgb } from "../colour/index.ts";
import type { Output, OutputFacts } from "../output/index.ts";
import type { Frame, Raster } from "../raster/index.ts";
import type { Spot } from "../reduce/index.ts";
import type { Outcomes, Shared } from "../share/index.ts";
import type { ShopSettings, SpotStockKind, StockReference } from "../shelf/index.ts";
import type { Drawing } from "../trace/index.ts";
import type { z } from "../zod/index.ts";
import type { Portrait } from "./portrait.ts";

/** What every process starts from. */
export interface Design {
  /** The traced picture, as it was simplified. */
  readonly map: Drawing;
  /** The prepared picture that it was traced from, and where it lies on the client's. */
  readonly picture: Raster;
  readonly frame: Frame;
  /** Its spots. Those that are made another way are dropped here. */
  readonly spots: readonly Spot[];
  /** Ids of spots in the order in which they lie over each other, as far as the person chose it. */
  readonly order: readonly string[];
  /** How wide it comes out, mm. */
  readonly widthMm: number;
  readonly garment: Rgb;
  /** What of the shelf a spot is made with, by its id. */
  readonly stock: Readonly<Record<string, StockReference>>;
  /** Where on the garment it goes; null: nothing was chosen. */
  readonly placement: { readonly name: string } | null;
  /** How many are made. */
  readonly pieces: number;
}

/** What the steps of a process work with. */
export interface Work<S> {
  readonly design: Design;
  readonly settings: S;
}

/** Any recipe, as far as processes read it: the settings of each, under its id. */
export interface HasProcesses {
  readonly processes: Readonly<Record<string, unknown>>;
}

/** A step that is done next: what a person is told, how much of the whole (0..1) lies before it, what its time is part of. */
export interface StepNotice {
  readonly name: string;
  readonly doing: string;
  readonly done: number;
  readonly part: string;
}

/** What a process made of a design. Data alone: it crosses from thread to thread. */
export interface Made<R = unknown> {
  readonly process: string;
  readonly result: R;
}

/** What a person should know of it. */
export interface ProcessReport {
  /** Parts of report.json. */
  readonly facts: Readonly<Record<string, unknown>>;
  /** Places of its own that are thinner than can be made. */
  readonly thin: readonly ThinPlace[];
  readonly warnings: readonly Warning[];
}

/** The files that are given out, and what a person should know of them. */
export interface Outputs {
  readonly outputs: readonly Output[];
  readonly notes: readonly string[];
}

/** What was made, with the ways to look into it and to give it out. */
export interface Product extends Made {
  report(): ProcessReport;
  /** What of it is seen. */
  portray(): Portrait;
  /** What writes files is read when first asked: it is large, and nobody else needs it. */
  outputs(facts: OutputFacts): Promise<Outputs>;
}

/** Makes designs one way and keeps what its steps made last: one for each job that is open. */
export interface Maker {
  /** What its steps made last, each under its key: plain objects, for another maker of the process to go on with. */
  readonly kept: object;
  /** `key` names the design's map. Tells of each step before it is done, `done` being of the process alone, and shares out what it can. */
  make(design: Design, recipe: HasProcesses, key: string): Generator<StepNotice | Shared, Product, Outcomes>;
}

/** Something that the shell sets by name: a length within limits (mm), words of a kind, or that it is so. */
export type ShellOption<S> = { readonly name: string } & (
  | {
      readonly kind: "length";
      readonly example: string;
      readonly min: number;
      readonly max: number;
      set(mm: number): Partial<S>;
    }
  | {
      readonly kind: "words";
      readonly example: string;
      /** What words it takes, as a refusal says it. */
      readonly takes: string;
      isWord(text: string): boolean;
      set(words: readonly string[], settings: S): Partial<S>;
    }
  | { readonly kind: "flag"; set(): Partial<S> }
);

/** How a process makes designs. */
export interface Making {
  /** Of its process. */
  readonly id: string;
  /** How much its steps are, beside those of the pipeline. */
  readonly weight: number;
  /** `kept`: where another maker of this process left off. */
  open(kept?: object): Maker;
}

/** A way of making a design. `S` are its settings, `R` is what it makes; nobody else needs to know them. */
export interface Process<S = unknown, R = unknown> {
  readonly id: string;
  /** What a design is made with, as a person chooses it. */
  readonly name: string;
  /** Of its step on the workbench. */
  readonly title: string;
  /** What its spots are made with. */
  readonly stock: SpotStockKind;
  readonly settings: z.ZodType<S>;
  readonly shellOptions: readonly ShellOption<S>[];
  /** As part of what the time of its files is reported. */
  readonly writing: string;
  /** What a shop decides once for all jobs, as settings of a new one. */
  fromShop(shop: ShopSettings): unknown;
  /** Which shapes are too thin for it. */
  thinLimits(shop: ShopSettings): ThinLimits;
  /** Capitals lower than this do not come out, mm. */
  readonly lettersMm: number;
  /** Whether the design's shapes are what it makes; else its own report says what of that is too thin. */
  readonly makesShapes: boolean;
  /** The same object as long as the recipe's is. */
  settingsIn(recipe: HasProcesses): S;
  /** The recipe with some of them changed. */
  withSettings<T extends HasProcesses>(recipe: T, part: Partial<S>): T;
  /** What of a print of this size does not go, or null. */
  warnOfSize(sizeMm: { readonly width: number; readonly height: number }, recipe: HasProcesses): string | null;
  /** Of its settings those that change what is seen; what only changes how it is made is not among them. */
  seenOf(recipe: HasProcesses): unknown;
  /** What it made among what was made; null: nothing. */
  resultIn(made: readonly Made[]): R | null;
}
