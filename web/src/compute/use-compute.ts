// The page's end of the worker: sends the latest recipe, keeps the latest results.
import type { Job } from "@plain-palette/contract";
import type { Recipe, Step } from "@plain-palette/core/recipe";
import type { Separation } from "@plain-palette/core/separate";
import { useCallback, useEffect, useRef, useState } from "react";
import type {
  ChecksView,
  ComputeMessage,
  ComputeRequest,
  DifferenceView,
  PreparedView,
  Proposals,
  ProposeRequest,
  ReducedView,
  TracedView,
} from "./messages.ts";

/** The prepared picture with all its bitmaps. */
export interface PreparedPicture extends Omit<PreparedView, "bitmap" | "upright" | "isAsSent"> {
  readonly bitmap: ImageBitmap;
  readonly upright: ImageBitmap;
}

/** Everything computed so far; parts are of the latest recipe that got that far. */
export interface Computed {
  /** The client's picture just as it came. */
  readonly source: ImageBitmap | null;
  readonly prepared: PreparedPicture | null;
  readonly reduced: ReducedView | null;
  readonly traced: TracedView | null;
  readonly separation: Separation | null;
  readonly difference: DifferenceView | null;
  readonly checks: ChecksView | null;
  readonly warnings: readonly string[];
  /** What is being computed, or null when everything shown is of the current recipe. */
  readonly busy: Step | "load" | "check" | "compare" | null;
  readonly failure: string | null;
}

const NOTHING: Computed = {
  source: null,
  prepared: null,
  reduced: null,
  traced: null,
  separation: null,
  difference: null,
  checks: null,
  warnings: [],
  busy: "load",
  failure: null,
};

function absorb(state: Computed, message: Exclude<ComputeMessage, { type: "proposed" }>): Computed {
  switch (message.type) {
    case "loaded":
      return { ...state, source: message.bitmap, prepared: null };
    case "step":
      return { ...state, busy: message.step, failure: null };
    case "prepared":
      return { ...state, prepared: absorbPrepared(state, message.view) };
    case "reduced":
      return { ...state, reduced: message.view };
    case "traced":
      return { ...state, traced: message.view };
    case "separated":
      return { ...state, separation: message.separation, warnings: message.warnings };
    case "checked":
      return { ...state, checks: message.view };
    case "compared":
      return { ...state, difference: message.view };
    case "done":
      return { ...state, busy: null };
    case "failed":
      return { ...state, busy: null, failure: message.message };
  }
}

function absorbPrepared({ prepared, source }: Computed, view: PreparedView): PreparedPicture | null {
  const bitmap = view.bitmap ?? prepared?.bitmap;
  const upright = view.isAsSent ? source : (view.upright ?? prepared?.upright);
  return bitmap && upright ? { ...view, bitmap, upright } : null;
}

export interface ComputeWishes {
  /** Spares the steps after it where nobody looks at them. */
  readonly upTo: ComputeRequest["upTo"];
  readonly focusId?: string | null;
  readonly compare?: ComputeRequest["compare"];
  readonly checkThin?: ComputeRequest["checkThin"];
}

/** Asks the worker what it would propose for the picture as it is. */
export type Propose = <K extends keyof Proposals>(what: K) => Promise<Proposals[K]>;

/** Computes `recipe` on the job's artwork, live. */
export function useCompute(
  { hash }: Job["artwork"],
  recipe: Recipe,
  { upTo, focusId = null, compare = null, checkThin = null }: ComputeWishes,
): { readonly computed: Computed; readonly propose: Propose } {
  const [computed, setComputed] = useState<Computed>(NOTHING);
  const worker = useRef<Worker | null>(null);
  const latest = useRef(0);
  const asked = useRef(0);
  const waiting = useRef(new Map<number, (proposal: never) => void>());
  useEffect(() => {
    const made = new Worker(new URL("./compute-worker.ts", import.meta.url), { type: "module" });
    made.onmessage = ({ data }: MessageEvent<ComputeMessage>) => {
      if (data.type === "proposed") {
        waiting.current.get(data.id)?.(data.proposal as never);
        waiting.current.delete(data.id);
        return;
      }
      // Bitmaps are sent once: those of a request that became stale meanwhile are still the latest there are.
      const isBitmap = data.type === "loaded" || data.type === "prepared";
      if (isBitmap || data.id === latest.current) setComputed((state) => absorb(state, data));
    };
    worker.current = made;
    return () => made.terminate();
  }, []);
  useEffect(() => {
    latest.current++;
    const wishes = { hash, recipe, upTo, focusId, compare, checkThin };
    worker.current?.postMessage({ type: "compute", id: latest.current, ...wishes } satisfies ComputeRequest);
    // Said before the worker answers: what is shown is not of this recipe from here on.
    setComputed((state) => (state.busy === null ? { ...state, busy: "prepare" } : state));
  }, [hash, recipe, upTo, focusId, compare, checkThin]);
  const propose: Propose = useCallback(
    (what) =>
      new Promise((resolve) => {
        const id = ++asked.current;
        waiting.current.set(id, resolve);
        worker.current?.postMessage({ type: "propose", id, what } satisfies ProposeRequest);
      }),
    [],
  );
  return { computed, propose };
}
