// The page's end of the worker: sends the latest recipe, keeps the latest results.
import type { Job } from "@plain-palette/contract";
import type { Warning } from "@plain-palette/core/checks";
import type { Made, ProcessReport } from "@plain-palette/core/process";
import type { Recipe } from "@plain-palette/core/recipe";
import type { Spot } from "@plain-palette/core/reduce";
import { createContext, useCallback, useContext, useEffect, useMemo, useRef, useState } from "react";
import { whenIdle } from "../parts/when-idle.ts";
import type {
  ChecksView,
  ComputeMessage,
  ComputeRequest,
  DifferenceView,
  LetteringView,
  MadeView,
  PreparedView,
  Questions,
  ReducedView,
  StopRequest,
  TracedView,
} from "./messages.ts";
import { keepSpare, takeWorker } from "./spare-worker.ts";

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
  /** With the spots that it was traced from. */
  readonly traced: (TracedView & { readonly spots: readonly Spot[] }) | null;
  /** What each process of the job made; null: nothing yet. */
  readonly made: readonly MadeView[] | null;
  /** Lettering as it is set, while someone works on it. */
  readonly lettering: readonly LetteringView[];
  readonly difference: DifferenceView | null;
  readonly checks: ChecksView | null;
  readonly warnings: readonly Warning[];
  /** What is being done, in words. */
  readonly busy: string | null;
  /** How much of it is done, 0..1. */
  readonly done: number;
  /** Left where it was by a person: what is shown is of the recipe before. */
  readonly isStopped: boolean;
  readonly failure: string | null;
}

/** Whether everything shown is of the current recipe. */
export const isCurrent = ({ busy, isStopped, failure }: Computed) => busy === null && !isStopped && failure === null;

const NOTHING: Computed = {
  source: null,
  prepared: null,
  reduced: null,
  traced: null,
  made: null,
  lettering: [],
  difference: null,
  checks: null,
  warnings: [],
  busy: "Fetching the artwork",
  done: 0,
  isStopped: false,
  failure: null,
};

/** Messages that bring something to show of a recipe, in the order in which it was computed. */
const RESULTS: ReadonlySet<ComputeMessage["type"]> = new Set(["prepared", "reduced", "traced", "lettered"]);

function absorb(state: Computed, message: Exclude<ComputeMessage, { type: "answered" | "refused" }>): Computed {
  switch (message.type) {
    case "loaded":
      return { ...state, source: message.bitmap, prepared: null };
    case "step":
      return { ...state, busy: message.doing, done: message.done, failure: null };
    case "prepared":
      return { ...state, prepared: absorbPrepared(state, message.view) };
    case "reduced":
      return { ...state, reduced: message.view };
    case "traced":
      return { ...state, traced: { ...message.view, spots: state.reduced?.spots ?? [] } };
    case "made":
      return { ...state, made: message.made.map((one, i) => ({ ...one, report: reportBefore(state, one, i) })) };
    case "reported":
      return {
        ...state,
        made: state.made?.map((one, i) => ({ ...one, report: message.reports[i] ?? one.report })) ?? null,
        warnings: message.warnings,
      };
    case "lettered":
      return { ...state, lettering: message.views };
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

/** What was known of what the same process made before; null: nothing yet. */
function reportBefore({ made }: Computed, { process }: Made, i: number): ProcessReport | null {
  const before = made?.[i];
  return before?.process === process ? before.report : null;
}

function absorbPrepared({ prepared, source }: Computed, view: PreparedView): PreparedPicture | null {
  const bitmap = view.bitmap ?? prepared?.bitmap;
  const upright = view.isAsSent ? source : (view.upright ?? prepared?.upright);
  return bitmap && upright ? { ...view, bitmap, upright } : null;
}

/** What is done in less is not told, ms. */
const TELL_MS = 80;

export interface ComputeWishes {
  /** Spares the steps after it where nobody looks at them. */
  readonly upTo: ComputeRequest["upTo"];
  readonly focusId?: string | null;
  readonly compare?: ComputeRequest["compare"];
  readonly checkThin?: ComputeRequest["checkThin"];
  readonly measure?: boolean;
  readonly trying?: ComputeRequest["trying"];
  readonly byHand?: boolean;
  readonly countsColours?: boolean;
}

/** Asks the worker; undefined where it could not answer, which is said on the table. */
export type Ask = <K extends keyof Questions>(
  what: K,
  wanted: Questions[K]["wanted"],
) => Promise<Questions[K]["answer"] | undefined>;

/** What an open job is computed by. */
export interface Compute {
  readonly computed: Computed;
  readonly ask: Ask;
  /** What is to be computed from here on. */
  want(request: Wanted): void;
  /** Leaves it where it is, until something else is wanted or it is gone on with. */
  stop(): void;
  goOn(): void;
}

type Wanted = Omit<ComputeRequest, "type" | "id">;

/** The worker of a job, for as long as it is open: whichever screen shows the job finds what was computed already. */
export function useComputeWorker(): Compute {
  const [computed, setComputed] = useState<Computed>(NOTHING);
  const worker = useRef<Worker | null>(null);
  const latest = useRef(0);
  const wanted = useRef<Wanted | null>(null);
  const asked = useRef(0);
  const telling = useRef<ReturnType<typeof setTimeout>>(undefined);
  const waiting = useRef(new Map<number, (answer: never) => void>());
  // Started by whoever wants something first.
  const start = useCallback((): Worker => {
    const started = takeWorker();
    started.onmessage = ({ data }: MessageEvent<ComputeMessage>) => {
      if (data.type === "answered" || data.type === "refused") {
        const answer = data.type === "answered" ? data.answer : undefined;
        if (data.type === "refused") setComputed((state) => ({ ...state, failure: data.message }));
        waiting.current.get(data.id)?.(answer as never);
        waiting.current.delete(data.id);
        return;
      }
      // What was computed for a request that became stale meanwhile is still the latest there is.
      const isResult = data.type === "loaded" || RESULTS.has(data.type);
      const take = () => {
        if (isResult || data.id === latest.current) setComputed((state) => absorb(state, data));
      };
      clearTimeout(telling.current);
      if (data.type === "step") telling.current = setTimeout(take, TELL_MS);
      else take();
    };
    started.onerror = ({ message }) => {
      const failure = `${message || "what computes could not be started"}. Reload the page.`;
      setComputed((state) => ({ ...state, busy: null, failure }));
    };
    return started;
  }, []);
  useEffect(
    () => () => {
      worker.current?.terminate();
      worker.current = null;
      whenIdle().then(keepSpare);
    },
    [],
  );
  const want: Compute["want"] = useCallback(
    (request) => {
      latest.current++;
      wanted.current = request;
      worker.current ??= start();
      worker.current.postMessage({ type: "compute", id: latest.current, ...request } satisfies ComputeRequest);
      // Said before the worker answers: what is shown is not of this recipe from here on.
      setComputed((state) =>
        state.busy === null || state.failure !== null
          ? { ...state, busy: "Computing", done: 0, isStopped: false, failure: null }
          : state,
      );
    },
    [start],
  );
  const stop = useCallback(() => {
    latest.current++;
    worker.current?.postMessage({ type: "stop", id: latest.current } satisfies StopRequest);
    setComputed((state) => ({ ...state, busy: null, isStopped: true }));
  }, []);
  const goOn = useCallback(() => {
    if (wanted.current) want(wanted.current);
  }, [want]);
  const ask: Ask = useCallback(
    (what, wanted) => {
      const id = ++asked.current;
      worker.current ??= start();
      worker.current.postMessage({ type: "ask", id, what, wanted });
      return new Promise((resolve) => waiting.current.set(id, resolve));
    },
    [start],
  );
  return useMemo(() => ({ computed, ask, want, stop, goOn }), [computed, ask, want, stop, goOn]);
}

export const ComputeContext = createContext<Compute | null>(null);

/** What computes the open job; only inside a ComputeContext. */
export function useCompute(): Compute {
  const compute = useContext(ComputeContext);
  if (!compute) throw new Error("useCompute outside a job");
  return compute;
}

/** Has `recipe` computed on the job's artwork, live. */
export function useWishes(
  { want }: Compute,
  { hash }: Job["artwork"],
  recipe: Recipe,
  {
    upTo,
    focusId = null,
    compare = null,
    checkThin = null,
    measure = false,
    trying = null,
    byHand = false,
    countsColours = false,
  }: ComputeWishes,
): void {
  useEffect(
    () => want({ hash, recipe, upTo, focusId, compare, checkThin, measure, trying, byHand, countsColours }),
    [want, hash, recipe, upTo, focusId, compare, checkThin, measure, trying, byHand, countsColours],
  );
}
