// One job's recipe: edited locally at once, kept in the outbox until it is saved as a new version, undone and redone on the
// server, so that undo outlives a reload.
import { type Job, type Problem, seenOf, type TicketChange } from "@plain-palette/contract";
import type { Recipe } from "@plain-palette/core/recipe";
import { v4 as newId } from "uuid";
import { createStore, type StoreApi } from "zustand";
import { shallow } from "zustand/shallow";
import { api } from "../api/client.ts";
import { RequestProblem } from "../api/requests.ts";
import type { Letter } from "../outbox/kept-letters.ts";
import type { ContentOf } from "../outbox/letters.ts";
import type { Outbox } from "../outbox/outbox.ts";
import { withTicket } from "../outbox/waiting.ts";

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
  /** Why the last undo or redo did not come about. */
  readonly moveProblem: Problem | null;
  /** Replaces the recipe; saved after a short quiet. */
  edit(change: (recipe: Recipe) => Recipe): void;
  undo(): Promise<void>;
  redo(): Promise<void>;
  /** After a conflict: goes on with ours or theirs. */
  resolve(side: "ours" | "theirs"): Promise<void>;
  patch(change: TicketChange): void;
  /** Goes on with what the server made of the job, e.g. with another file. */
  adopt(job: Job): void;
  /** Shows what another window made of the job, unless something of this one is still to be sent. */
  follow(job: Job): void;
  /** Saves at once what is unsaved; resolves with the version then in force. Throws a RequestProblem if it cannot be now. */
  flush(): Promise<number>;
}

/** A drag on a slider is one version, not a hundred. */
const QUIET_MS = 350;
/** Nothing is sent while undo or redo is on its way: it is made from where that arrives. */
const WHILE_MOVING_MS = 60_000;
/** While the server is away each edit is a version of its own, up to so many. */
const MOST_WAITING = 60;

export type RecipeStore = ReturnType<typeof makeRecipeStore>;
type Store = StoreApi<RecipeState>;

export const recipeThread = (job: string) => `recipe ${job}`;
export const ticketThread = (job: string) => `ticket ${job}`;

/** @returns The store; `stop` ends its hearing of the outbox. */
export function makeRecipeStore(first: Job, outbox: Outbox) {
  const mail = jobMail(first.id, outbox);
  const store = createStore<RecipeState>((set, get) => {
    const mover = makeMover(set, get, mail, outbox);
    return {
      job: mail.withTicket(first),
      moveProblem: null,
      recipe: mail.newest() ?? first.recipe,
      save: mail.saveState(),
      edit(change) {
        const { job, recipe: before } = get();
        const recipe = change(before);
        if (recipe === before) return;
        set({ recipe, moveProblem: null });
        mail.post(job, recipe, mover.isMoving() ? WHILE_MOVING_MS : QUIET_MS);
      },
      undo: () => mover.move("undo"),
      redo: () => mover.move("redo"),
      async resolve(side) {
        const letter = mail.last();
        if (letter?.held?.kind !== "conflict") return;
        const current = mail.withTicket(await api.findJob(first.id));
        // Ours, with whatever was edited since, becomes the next version on top of theirs.
        if (side === "ours") mail.repost(letter, current, get().recipe);
        else outbox.withdraw(letter.id);
        set(side === "ours" ? { job: current } : { job: current, recipe: current.recipe });
        await outbox.settle(recipeThread(first.id));
      },
      patch(change) {
        mail.forgetRefusedTickets();
        const { job } = get();
        set({ job: { ...job, ...change } });
        const patch = seenOf<TicketChange, TicketChange>(job, change);
        outbox.post(sayJob(job), { kind: "ticket", job: first.id, patch });
      },
      adopt: (job) => set({ job, recipe: job.recipe }),
      follow(job) {
        if (mail.newest() || mover.isMoving() || job.updatedAt <= get().job.updatedAt) return;
        set({ job: mail.withTicket(job), recipe: job.recipe });
      },
      async flush() {
        await mover.isOver();
        await outbox.settle(ticketThread(first.id));
        await outbox.settle(recipeThread(first.id));
        const { save, job } = get();
        if (save.kind === "retrying") throw new RequestProblem({ ...NOT_YET, detail: save.why });
        if (save.kind === "refused") throw new RequestProblem(save.problem);
        if (save.kind === "conflict") throw new RequestProblem(TWO_VERSIONS);
        return job.head;
      },
    };
  });
  return Object.assign(store, { stop: followOutbox(store, outbox, mail) });
}

const sayJob = ({ number, title }: Job) => `No. ${number} ${title}`;

const NOT_YET = { type: "about:blank", title: "The job as it is here is not saved yet", status: 0 };
const TWO_VERSIONS = {
  type: "about:blank",
  title: "There are two versions of this job",
  status: 409,
  cure: "Choose first which of the two goes on.",
};

/** Keeps a job's state as the outbox and its answers say. Returns what ends that. */
function followOutbox(store: Store, outbox: Outbox, mail: JobMail): () => void {
  const { id } = store.getState().job;
  const stopHearing = outbox.hear(({ content }, answer) => {
    if (answer.of !== "job" || answer.job.id !== id) return;
    // The recipe that was sent is the saved one now: identity tells if there were edits meanwhile.
    if (content.kind === "recipe") store.setState({ job: { ...answer.job, recipe: content.save.recipe } });
    else takeTicket(answer.job);
  });
  const takeTicket = ({ title, client, step, clientMail, dueDay, state, updatedAt }: Job) =>
    store.setState(({ job }) => ({ job: { ...job, title, client, step, clientMail, dueDay, state, updatedAt } }));
  let known = mail.refusedTickets();
  const stopLooking = outbox.state.subscribe(() => {
    const { job, save } = store.getState();
    const now = mail.saveState();
    store.setState({ job: mail.withTicket(job), save: shallow(save, now) ? save : now });
    const refused = mail.refusedTickets();
    // Somebody else was quicker: theirs is shown beside what is said of it.
    if (refused > known) void api.findJob(id).then(takeTicket, () => {});
    known = refused;
  });
  return () => {
    stopHearing();
    stopLooking();
  };
}

type JobMail = ReturnType<typeof jobMail>;

/** What of a job waits in the outbox. */
function jobMail(id: string, outbox: Outbox) {
  const recipes = () => outbox.lettersOf(recipeThread(id));
  const tickets = () => outbox.lettersOf(ticketThread(id));
  const last = () => recipes().at(-1);
  const write = (basedOn: number, recipe: Recipe): ContentOf<"recipe"> => ({
    ...{ kind: "recipe", job: id, save: { saveId: newId(), basedOn, recipe } },
  });
  return {
    last,
    isOpen: outbox.isOpen,
    /** The recipe as it was left here; undefined if all is saved. */
    newest: () => recipeIn(last()),
    post(job: Job, recipe: Recipe, quietMs: number) {
      const open = last();
      if (open?.held || (open && outbox.isOpen(open) && (isQuiet(open) || recipes().length >= MOST_WAITING)))
        // What waits for a choice between two versions goes on waiting for it.
        outbox.amend(open.id, write(basisOf(open), recipe), open.held?.kind === "conflict" ? null : quietMs);
      else outbox.post(sayJob(job), write(job.head, recipe), quietMs);
    },
    /** The same letter with another recipe, made from that state of the job. */
    repost: (letter: Letter, job: Job, recipe: Recipe, quietMs = 0) =>
      outbox.amend(letter.id, write(job.head, recipe), quietMs),
    withTicket: (job: Job): Job => {
      const waiting = tickets().flatMap(({ content, held }) => (content.kind === "ticket" && !held ? [content] : []));
      return withTicket(job, waiting);
    },
    /** How many changes of the ticket were not taken. */
    refusedTickets: () => tickets().filter(({ held }) => held).length,
    forgetRefusedTickets() {
      for (const { id: letter, held } of tickets()) if (held) outbox.withdraw(letter);
    },
    saveState(): SaveState {
      const letters = recipes();
      const held = letters.at(-1)?.held;
      if (held) return held;
      const why = letters.find(({ trouble }) => trouble !== null)?.trouble;
      if (why != null) return { kind: "retrying", why };
      const { sending } = outbox.state.getState();
      if (letters.some((letter) => sending.has(letter.id))) return { kind: "saving" };
      return { kind: letters.length === 0 ? "saved" : "unsaved" };
    },
  };
}

const recipeIn = (letter: Letter | undefined) =>
  letter?.content.kind === "recipe" ? letter.content.save.recipe : undefined;
const basisOf = ({ content }: Letter) => (content.kind === "recipe" ? content.save.basedOn : 0);
const isQuiet = ({ dueAt }: Letter) => dueAt > Date.now();

/** Undo and redo, one after the other however fast they are asked for. */
function makeMover(set: Store["setState"], get: Store["getState"], mail: JobMail, outbox: Outbox) {
  let moves: Promise<void> = Promise.resolve();
  let isMoving = false;

  const go = async (to: number): Promise<void> => {
    const { job, recipe } = get();
    set({ save: { kind: "saving" } });
    isMoving = true;
    try {
      arrive(await api.moveHead(job.id, { to, seen: job.head }), recipe);
    } catch (error) {
      if (!(error instanceof RequestProblem)) throw error;
      // The head moved under us: show what is there now, nothing of ours is lost.
      const current = error.problem.status === 409 ? await api.findJob(job.id) : null;
      if (current) arrive(current, recipe);
      else set({ moveProblem: error.problem });
    } finally {
      isMoving = false;
      set({ save: mail.saveState() });
    }
  };

  /** Shows another version, unless something was changed on the way: then the change goes on top of it. */
  const arrive = (arrived: Job, left: Recipe) => {
    const job = mail.withTicket(arrived);
    const { recipe } = get();
    const letter = mail.last();
    if (recipe === left) set({ job, recipe: job.recipe });
    else {
      set({ job });
      if (letter) mail.repost(letter, job, recipe, QUIET_MS);
    }
  };

  /** Takes back what the server does not have. */
  const takeBack = () => {
    const letter = mail.last();
    if (!letter || !mail.isOpen(letter)) return set({ moveProblem: UNDO_WAITS });
    outbox.withdraw(letter.id);
    set({ recipe: mail.newest() ?? get().job.recipe });
  };

  const move = async (way: "undo" | "redo"): Promise<void> => {
    set({ moveProblem: null });
    await outbox.settle(recipeThread(get().job.id));
    const { kind } = get().save;
    const to = get().job[way];
    if (way === "undo" && (kind === "refused" || kind === "retrying")) takeBack();
    else if (kind === "saved" && to !== null) await go(to);
  };

  return {
    isMoving: () => isMoving,
    isOver: () => moves,
    move(way: "undo" | "redo"): Promise<void> {
      moves = moves.then(() => move(way));
      return moves;
    },
  };
}

const UNDO_WAITS: Problem = {
  type: "about:blank",
  title: "Undo waits until this change is saved",
  status: 0,
  kept: "It is kept in this browser.",
};
