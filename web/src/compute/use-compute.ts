// The page's end of the worker: sends the latest recipe, keeps the latest results.
import type { Job } from "@plain-palette/contract";
import type { Recipe, Step } from "@plain-palette/core/recipe";
import type { Separation } from "@plain-palette/core/separate";
import { useEffect, useRef, useState } from "react";
import { pixelsUrl } from "../api/client.ts";
import type { ComputeMessage, ComputeRequest, ReducedView, TracedView } from "./messages.ts";

/** Everything computed so far; parts are of the latest recipe that got that far. */
export interface Computed {
  readonly bitmap: ImageBitmap | null;
  readonly reduced: ReducedView | null;
  readonly traced: TracedView | null;
  readonly separation: Separation | null;
  readonly warnings: readonly string[];
  /** What is being computed, or null when everything shown is of the current recipe. */
  readonly busy: Step | "load" | null;
  readonly failure: string | null;
}

const NOTHING: Computed = {
  bitmap: null,
  reduced: null,
  traced: null,
  separation: null,
  warnings: [],
  busy: "load",
  failure: null,
};

function absorb(state: Computed, message: ComputeMessage): Computed {
  switch (message.type) {
    case "loaded":
      return { ...state, bitmap: message.bitmap };
    case "step":
      return { ...state, busy: message.step, failure: null };
    case "reduced":
      return { ...state, reduced: message.view };
    case "traced":
      return { ...state, traced: message.view };
    case "separated":
      return { ...state, separation: message.separation, warnings: message.warnings };
    case "done":
      return { ...state, busy: null };
    case "failed":
      return { ...state, busy: null, failure: message.message };
  }
}

/** Computes `recipe` on the job's artwork, live. `upTo` spares the separation where nobody looks at it. */
export function useCompute(artwork: Job["artwork"], recipe: Recipe, upTo: ComputeRequest["upTo"]): Computed {
  const [computed, setComputed] = useState<Computed>(NOTHING);
  const worker = useRef<Worker | null>(null);
  const latest = useRef(0);
  useEffect(() => {
    const made = new Worker(new URL("./compute-worker.ts", import.meta.url), { type: "module" });
    made.onmessage = ({ data }: MessageEvent<ComputeMessage>) => {
      if (data.type !== "loaded" && data.id !== latest.current) return;
      setComputed((state) => absorb(state, data));
    };
    worker.current = made;
    return () => made.terminate();
  }, []);
  const { hash, width, height } = artwork;
  useEffect(() => {
    latest.current++;
    const request: ComputeRequest = {
      id: latest.current,
      hash,
      width,
      height,
      pixelsUrl: pixelsUrl(hash),
      recipe,
      upTo,
    };
    worker.current?.postMessage(request);
  }, [hash, width, height, recipe, upTo]);
  return computed;
}
