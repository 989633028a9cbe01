// What passes between the page and its computing worker.
import type { CubicPath } from "@plain-palette/core/geometry";
import type { Recipe, Step } from "@plain-palette/core/recipe";
import type { Rung, Spot } from "@plain-palette/core/reduce";
import type { Separation } from "@plain-palette/core/separate";

/** Compute the recipe on an artwork up to a step; a later request makes an earlier one stale. */
export interface ComputeRequest {
  readonly id: number;
  readonly hash: string;
  readonly width: number;
  readonly height: number;
  readonly pixelsUrl: string;
  readonly recipe: Recipe;
  readonly upTo: "trace" | "separate";
}

/** The reduced picture as the page shows it. */
export interface ReducedView {
  readonly spots: readonly Spot[];
  readonly foundCount: number;
  readonly proposedCount: number;
  readonly rungs: readonly Rung[];
  readonly opaquePx: number;
  readonly noise: number;
}

/** The traced picture as the page shows it. */
export interface TracedView {
  readonly fills: readonly { readonly spotId: string; readonly paths: readonly CubicPath[] }[];
  readonly edges: readonly CubicPath[];
  readonly counts: { readonly shapes: number; readonly nodes: number };
  readonly coverage: ReadonlyMap<string, number>;
}

export type ComputeMessage =
  | { readonly type: "loaded"; readonly hash: string; readonly bitmap: ImageBitmap }
  | { readonly type: "step"; readonly id: number; readonly step: Step | "load" }
  | { readonly type: "reduced"; readonly id: number; readonly view: ReducedView }
  | { readonly type: "traced"; readonly id: number; readonly view: TracedView }
  | {
      readonly type: "separated";
      readonly id: number;
      readonly separation: Separation;
      readonly warnings: readonly string[];
    }
  | { readonly type: "done"; readonly id: number }
  | { readonly type: "failed"; readonly id: number; readonly message: string };
