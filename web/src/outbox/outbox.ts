// What was changed and is not acknowledged by the server yet: kept in the browser, sent in order, once, until it is.
import { v4 as newId } from "uuid";
import { createStore, type StoreApi } from "zustand";
import { RequestProblem } from "../api/requests.ts";
import type { KeptLetters, Letter } from "./kept-letters.ts";
import { type Answer, type Content, follow, threadOf, versionAfter } from "./letters.ts";

export interface OutboxState {
  /** In the order in which they were written. */
  readonly letters: readonly Letter[];
  /** Those on their way, by id. */
  readonly sending: ReadonlySet<string>;
}

export interface Outbox {
  readonly state: StoreApi<OutboxState>;
  /** What windows that are gone have left is taken up. */
  readonly ready: Promise<void>;
  /** Keeps a change and sends it, after a quiet, ms, in which it may be amended. */
  post(about: string, content: Content, quietMs?: number): void;
  /** Puts something else in place of what was not sent yet, or waits for a person; `null`: it goes on waiting for that. */
  amend(id: string, content: Content, quietMs: number | null): void;
  /** Whether `amend` may be asked to. */
  isOpen(letter: Letter): boolean;
  withdraw(id: string): void;
  lettersOf(thread: string): readonly Letter[];
  /** Calls back with each answer, before its letter is gone. Returns what ends that. */
  hear(heard: (letter: Letter, answer: Answer) => void): () => void;
  /** Sends what waits of a thread; resolves when there is nothing more to be waited for: all is sent, or it cannot be now. */
  settle(thread: string): Promise<void>;
  /** Sends all that waits, without waiting any longer. */
  tryNow(): void;
  /** The page is closing. */
  leave(): void;
}

/** Before a letter is sent again, ms: longer each time, up to the most. */
const FIRST_PAUSE_MS = 1000;
const MOST_PAUSE_MS = 8000;
/** Refusals that are none: they say "not now". */
const NOT_NOW: ReadonlySet<number> = new Set([408, 425, 429]);

interface Parts {
  readonly kept: KeptLetters;
  send(content: Content): Promise<Answer>;
  readonly window: string;
}

export function makeOutbox({ kept, send, window }: Parts): Outbox {
  const state = createStore<OutboxState>(() => ({ letters: [], sending: new Set() }));
  const list = makeList(state, kept);
  const heard = new Set<(letter: Letter, answer: Answer) => void>();
  let timer: ReturnType<typeof setTimeout> | undefined;

  const isSending = (id: string) => state.getState().sending.has(id);

  const sendOne = async (waiting: Letter): Promise<void> => {
    const letter = list.change(waiting, { tries: waiting.tries + 1 });
    setSending(state, letter.id, true);
    try {
      const answer = await send(letter.content);
      for (const hear of heard) hear(letter, answer);
      list.pass(letter, versionAfter(answer));
    } catch (error) {
      list.keepBack(letter, error);
    } finally {
      setSending(state, letter.id, false);
      pump();
    }
  };

  /** Sends what is due, the first of each thread. */
  const pump = (): void => {
    clearTimeout(timer);
    const waiting = list.firsts().filter(({ id }) => !isSending(id));
    const due = waiting.filter(({ dueAt }) => dueAt <= Date.now());
    for (const letter of due) void sendOne(letter);
    const next = Math.min(...waiting.filter((one) => !due.includes(one)).map(({ dueAt }) => dueAt));
    if (Number.isFinite(next)) timer = setTimeout(pump, Math.max(0, next - Date.now()));
  };

  const hurry = (isMeant: (letter: Letter) => boolean): void => {
    for (const letter of state.getState().letters)
      if (isMeant(letter) && letter.dueAt > 0) list.change(letter, { dueAt: 0 });
    pump();
  };

  const takeUp = async (): Promise<void> => {
    const left = await kept.takeUp().catch(() => []);
    list.takeUp(left);
    pump();
  };
  kept.onGone(() => void takeUp());

  return {
    state,
    ready: takeUp(),
    post(about, content, quietMs = 0) {
      const blank = { tries: 0, trouble: null, held: null, window };
      list.add({ ...blank, id: newId(), order: list.nextOrder(), about, content, dueAt: Date.now() + quietMs });
      pump();
    },
    amend(id, content, quietMs) {
      const letter = state.getState().letters.find((one) => one.id === id);
      const again = quietMs === null ? {} : { held: null, trouble: null, tries: 0, dueAt: Date.now() + quietMs };
      if (letter) list.change(letter, { content, ...again });
      pump();
    },
    isOpen: ({ id, tries, held }) => (tries === 0 || held !== null) && !isSending(id),
    withdraw: (id) => list.remove(id),
    lettersOf: (thread) => list.ofThread(thread),
    hear(hear) {
      heard.add(hear);
      return () => heard.delete(hear);
    },
    async settle(thread) {
      hurry(({ content, trouble }) => threadOf(content) === thread && trouble === null);
      await untilTrue(state, () => {
        const first = list.firstOf(thread);
        return !first || first.trouble !== null;
      });
    },
    tryNow: () => hurry(() => true),
    leave() {
      hurry(({ trouble }) => trouble === null);
      kept.hurry();
      kept.sayGone();
    },
  };
}

/** The letters in their order, each change of them kept. */
function makeList(state: StoreApi<OutboxState>, kept: KeptLetters) {
  const all = () => state.getState().letters;
  const ofThread = (thread: string) => all().filter(({ content }) => threadOf(content) === thread);
  const firsts = () => {
    const found = new Map<string, Letter>();
    for (const letter of all()) {
      const thread = threadOf(letter.content);
      if (!letter.held && !found.has(thread)) found.set(thread, letter);
    }
    return found;
  };

  const change = (letter: Letter, part: Partial<Letter>): Letter => {
    const changed = { ...letter, ...part };
    if (!all().some(({ id }) => id === letter.id)) return changed;
    state.setState(({ letters }) => ({ letters: letters.map((one) => (one.id === letter.id ? changed : one)) }));
    kept.put(changed);
    return changed;
  };

  const remove = (id: string): void => {
    state.setState(({ letters }) => ({ letters: letters.filter((one) => one.id !== id) }));
    kept.remove(id);
  };

  /** What is still to be sent of a letter's thread after it. */
  const following = (letter: Letter) =>
    ofThread(threadOf(letter.content)).filter(({ order, held }) => order > letter.order && !held);

  /** Takes out a letter that the server has; the next one follows the version that it left. */
  const pass = (letter: Letter, version: number): void => {
    for (const next of following(letter)) change(next, { content: follow(next.content, version) });
    remove(letter.id);
  };

  return {
    change,
    remove,
    pass,
    ofThread,
    firsts: () => [...firsts().values()],
    /** The next to be sent of a thread. */
    firstOf: (thread: string) => firsts().get(thread),
    nextOrder: () => Math.max(Date.now(), (all().at(-1)?.order ?? 0) + 1),
    add(letter: Letter) {
      state.setState(({ letters }) => ({ letters: [...letters, letter] }));
      kept.put(letter);
    },
    takeUp(left: readonly Letter[]) {
      state.setState(({ letters }) => ({ letters: [...left, ...letters].sort((a, b) => a.order - b.order) }));
    },
    /** A letter that was not taken: sent again later, or left to a person. */
    keepBack(letter: Letter, error: unknown) {
      const { problem, retryAfterS } =
        error instanceof RequestProblem ? error : new RequestProblem({ ...UNKNOWN, detail: String(error) });
      const { status, stored, head, title } = problem;
      const isLast = following(letter).length === 0;
      if (status === 409 && stored !== undefined && head !== undefined) {
        if (isLast) change(letter, { held: { kind: "conflict", stored, head } });
        else pass(letter, stored);
      } else if (status >= 400 && status < 500 && !NOT_NOW.has(status)) {
        // The recipe that follows a refused one has all of it, and is what is refused or taken.
        if (!isLast && letter.content.kind === "recipe") remove(letter.id);
        else change(letter, { held: { kind: "refused", problem }, trouble: null });
      } else {
        const pauseMs = Math.min(MOST_PAUSE_MS, FIRST_PAUSE_MS * 1.5 ** (letter.tries - 1));
        change(letter, { trouble: title, dueAt: Date.now() + (retryAfterS === null ? pauseMs : retryAfterS * 1000) });
      }
    },
  };
}

const UNKNOWN = { type: "about:blank", title: "It could not be sent", status: 0 };

function setSending(state: StoreApi<OutboxState>, id: string, isSending: boolean): void {
  state.setState(({ sending }) => {
    const next = new Set(sending);
    if (isSending) next.add(id);
    else next.delete(id);
    return { sending: next };
  });
}

function untilTrue(state: StoreApi<OutboxState>, isTrue: () => boolean): Promise<void> {
  return new Promise((resolve) => {
    const look = () => {
      if (!isTrue()) return;
      stop();
      resolve();
    };
    const stop = state.subscribe(look);
    look();
  });
}
