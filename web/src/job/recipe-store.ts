// One job's recipe: edited locally at once, saved by itself as a new version, undone and redone on the server, so that
// undo outlives a reload.
import {
  type Job,
  MOST_RECIPE_BYTES,
  type Problem,
  RECIPE_TOO_LARGE,
  seenOf,
  type TicketChange,
} from "@plain-palette/contract";
import type { Recipe } from "@plain-palette/core/recipe";
import { createStore, type StoreApi } from "zustand";
import { api } from "../api/client.ts";
import { RequestProblem, survivesClosing } from "../api/requests.ts";
import { leaveBehind } from "./left-behind.ts";

export type SaveState =
  | { readonly kind: "saved" }
  | { readonly kind: "unsaved" }
  | { readonly kind: "saving" }
  /** The server is away; it is tried again. */
  | { readonly kind: "retrying"; readonly why: string }
  /** It cannot be saved as it is; the version before is. */
  | { readonly kind: "refused"; readonly problem: Problem }
  /** Somebody else changed the job: ours is stored as `stored`, theirs is `head`. */
  | { readonly kind: "conflict"; readonly stored: number; readonly head: number };

export interface RecipeState {
  readonly job: Job;
  readonly recipe: Recipe;
  readonly save: SaveState;
  /** Why the last change of the ticket was not taken. */
  readonly ticketProblem: Problem | null;
  /** Replaces the recipe; saved after a short quiet. */
  edit(change: (recipe: Recipe) => Recipe): void;
  undo(): Promise<void>;
  redo(): Promise<void>;
  /** After a conflict: goes on with ours or theirs. */
  resolve(side: "ours" | "theirs"): Promise<void>;
  patch(change: TicketChange): Promise<void>;
  /** Goes on with what the server made of the job, e.g. with another file. */
  adopt(job: Job): void;
  /** Saves at once what is unsaved; resolves with the version then in force. */
  flush(): Promise<number>;
  /** The page is closing. */
  leave(): void;
}

/** A drag on a slider is one version, not a hundred. */
const QUIET_MS = 350;
const RETRY_MS = 1500;

export type RecipeStore = ReturnType<typeof makeRecipeStore>;

export function makeRecipeStore(first: Job) {
  return createStore<RecipeState>((set, get) => {
    const saver = makeSaver(set, get);
    const move = makeMover(set, get, saver);
    const takeTicket = ({ title, client, step, clientMail, dueDay, state }: Job) =>
      set({ job: { ...get().job, title, client, step, clientMail, dueDay, state } });
    return {
      job: first,
      ticketProblem: null,
      recipe: first.recipe,
      save: { kind: "saved" },
      edit(change) {
        const recipe = change(get().recipe);
        if (recipe === get().recipe) return;
        set(get().save.kind === "conflict" ? { recipe } : { recipe, save: { kind: "unsaved" } });
        if (get().save.kind !== "conflict") saver.schedule(QUIET_MS);
      },
      undo: () => move("undo"),
      redo: () => move("redo"),
      async resolve(side) {
        const { save, job, recipe } = get();
        if (save.kind !== "conflict") return;
        const current = await api.findJob(job.id);
        if (side === "theirs") set({ job: current, recipe: current.recipe, save: { kind: "saved" } });
        else {
          // Ours, with whatever was edited since, becomes the next version on top of theirs.
          set({ job: current, recipe: { ...recipe }, save: { kind: "unsaved" } });
          await saver.saveNow();
        }
      },
      async patch(change) {
        const { id } = get().job;
        try {
          takeTicket(await api.patchJob(id, seenOf(get().job, change)));
          set({ ticketProblem: null });
        } catch (error) {
          if (!(error instanceof RequestProblem)) throw error;
          set({ ticketProblem: error.problem });
          // Somebody else was quicker: theirs is shown beside what is said of it.
          if (error.problem.status === 409) takeTicket(await api.findJob(id));
        }
      },
      adopt(job) {
        set({ job, recipe: job.recipe, save: { kind: "saved" } });
      },
      async flush() {
        await saver.saveNow();
        return get().job.head;
      },
      leave() {
        const { job, recipe } = get();
        if (recipe === job.recipe) return;
        const save = { basedOn: job.head, recipe };
        if (!survivesClosing(save)) leaveBehind(job.id, save);
        // What is on its way already need not be sent twice; what came after it is kept as a version beside it.
        else if (!saver.isSending(recipe)) void api.saveRecipe(job.id, save);
      },
    };
  });
}

type Store = StoreApi<RecipeState>;

/** Saves what is unsaved, one version after the other. */
interface Saver {
  schedule(ms: number): void;
  saveNow(): Promise<void>;
  isSending(recipe: Recipe): boolean;
  /** Nothing is sent before this is over. */
  hold(until: Promise<void>): void;
}

function makeSaver(set: Store["setState"], get: Store["getState"]): Saver {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let inFlight: Promise<void> | null = null;
  let sending: Recipe | null = null;
  let held: Promise<void> | null = null;

  const schedule = (ms: number) => {
    clearTimeout(timer);
    timer = setTimeout(() => void saveNow(), ms);
  };

  const saveNow = (): Promise<void> => {
    clearTimeout(timer);
    inFlight ??= send().finally(() => {
      inFlight = null;
    });
    return inFlight;
  };

  const send = async (): Promise<void> => {
    if (held) await held;
    while (get().recipe !== get().job.recipe) {
      const { recipe, job } = get();
      sending = recipe;
      if (!fitsIn(recipe)) {
        set({ save: { kind: "refused", problem: RECIPE_TOO_LARGE } });
        return;
      }
      set({ save: { kind: "saving" } });
      try {
        const saved = await api.saveRecipe(job.id, { basedOn: job.head, recipe });
        // The recipe object that was sent is the saved one now: identity tells if there were edits meanwhile.
        set({ job: { ...saved, recipe } });
      } catch (error) {
        if (!(error instanceof RequestProblem)) throw error;
        const { status, stored, head, title } = error.problem;
        if (status === 409 && stored !== undefined && head !== undefined)
          set({ save: { kind: "conflict", stored, head } });
        else if (status >= 400 && status < 500) set({ save: { kind: "refused", problem: error.problem } });
        else {
          set({ save: { kind: "retrying", why: title } });
          schedule(RETRY_MS);
        }
        return;
      }
    }
    set({ save: { kind: "saved" } });
  };

  return {
    schedule,
    saveNow,
    isSending: (recipe) => inFlight !== null && recipe === sending,
    hold(until) {
      const letGo = () => {
        held = null;
      };
      held = until.then(letGo, letGo);
    },
  };
}

function fitsIn(recipe: Recipe): boolean {
  return new TextEncoder().encode(JSON.stringify(recipe)).length <= MOST_RECIPE_BYTES;
}

/** Undo and redo, one after the other however fast they are asked for. */
function makeMover(set: Store["setState"], get: Store["getState"], saver: Saver) {
  let moves: Promise<void> = Promise.resolve();

  const go = async (to: number): Promise<void> => {
    const { job, recipe } = get();
    set({ save: { kind: "saving" } });
    try {
      arrive(await api.moveHead(job.id, { to, seen: job.head }), recipe);
    } catch (error) {
      if (!(error instanceof RequestProblem)) throw error;
      // The head moved under us: show what is there now, nothing of ours is lost.
      const current = error.problem.status === 409 ? await api.findJob(job.id) : null;
      if (current) arrive(current, recipe);
      else {
        set({ save: { kind: "retrying", why: error.problem.title } });
        saver.schedule(RETRY_MS);
      }
    }
  };

  /** Shows another version, unless something was changed on the way: then the change goes on top of it. */
  const arrive = (job: Job, left: Recipe) => {
    if (get().recipe === left) set({ job, recipe: job.recipe, save: { kind: "saved" } });
    else {
      set({ job, save: { kind: "unsaved" } });
      saver.schedule(QUIET_MS);
    }
  };

  return (way: "undo" | "redo"): Promise<void> => {
    moves = moves.then(async () => {
      await saver.saveNow();
      // What could not be saved is what is undone.
      if (get().save.kind === "refused" && way === "undo") {
        set({ recipe: get().job.recipe, save: { kind: "saved" } });
        return;
      }
      const to = get().job[way];
      if (get().save.kind !== "saved" || to === null) return;
      const going = go(to);
      saver.hold(going);
      await going;
    });
    return moves;
  };
}
