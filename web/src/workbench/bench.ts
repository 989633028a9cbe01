// The bench: what all steps work with, whichever is open.
import { printWidthMm } from "@plain-palette/core/recipe";
import { useMemo, useRef, useState } from "react";
import { useCompute } from "../compute/use-compute.ts";
import { useJob } from "../job/use-job.ts";
import type { Look } from "../light-table/look-bar.tsx";
import type { TableControls } from "../light-table/use-table-view.ts";
import { drawTrace } from "./drawn-trace.ts";
import type { Bench } from "./screen.ts";

/** All of it that is the same at every step. */
export function useBench(): Omit<Bench, "look" | "isSourceHeld" | "showPlace"> & {
  setPointer(place: Bench["pointer"]): void;
} {
  const job = useJob((state) => state.job);
  const recipe = useJob((state) => state.recipe);
  const { computed, ask } = useCompute();
  const { prepared, traced } = computed;
  const [pointer, setPointer] = useState<Bench["pointer"]>(null);
  const table = useRef<TableControls>(null);
  const size = prepared?.frame ?? job.artwork;
  const trace = useMemo(() => traced && drawTrace(traced), [traced]);
  const mmPerPx = printWidthMm(recipe, size) / size.width;
  return { job, recipe, computed, ask, size, mmPerPx, trace, pointer, setPointer, table };
}

/** How the art is looked at; kept from step to step where both can. */
export interface LookState {
  readonly wanted: Look;
  setLook(look: Look): void;
  readonly over: number;
  readonly under: number;
  setOver(fade: number): void;
  setUnder(fade: number): void;
}

export function useLookState(): LookState {
  const [wanted, setLook] = useState<Look>("result");
  const [over, setOver] = useState(0);
  const [under, setUnder] = useState(0.25);
  return { wanted, setLook, over, under, setOver, setUnder };
}
