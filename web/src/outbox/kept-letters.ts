// Letters in the browser's own database, so that they outlive the page, the browser and the machine's restart.
import type { Problem } from "@plain-palette/contract";
import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import { type Content, contentSchema } from "./letters.ts";

export interface Letter {
  readonly id: string;
  /** Letters are sent in this order. */
  readonly order: number;
  /** The window that sends it. */
  readonly window: string;
  /** What it changes, for people. */
  readonly about: string;
  readonly content: Content;
  /** How often it was sent. */
  readonly tries: number;
  /** Not sent before, ms since 1970: more may be typed, or the server is away. */
  readonly dueAt: number;
  /** Why it was not taken the last time, though it may be the next. */
  readonly trouble: string | null;
  /** What a person has to decide before anything more comes of it. */
  readonly held: Held | null;
}

export type Held =
  | { readonly kind: "refused"; readonly problem: Problem }
  /** Stored beside what somebody else put in force. */
  | { readonly kind: "conflict"; readonly stored: number; readonly head: number };

export interface KeptLetters {
  /** What windows that are gone have left; from now on this window's. */
  takeUp(): Promise<Letter[]>;
  put(letter: Letter): void;
  remove(id: string): void;
  /** From now on writes everything at once: the page may be gone in a moment, and others may still hand in what was typed. */
  hurry(): void;
  /** Another window is gone. */
  onGone(heard: () => void): void;
  /** This one is. */
  sayGone(): void;
}

interface Shape extends DBSchema {
  letters: { key: string; value: Letter };
}

/** How long windows have to say that they are there, ms. */
const ROLL_CALL_MS = 300;

type Call = { readonly kind: "who" | "gone" } | { readonly kind: "here"; readonly window: string };

/**
 * @param window This window's name.
 * @param onLoss Called when the browser does not keep letters: it forbids it, or has no room.
 */
export function keepInBrowser(window: string, onLoss: () => void, name = "plain-palette"): KeptLetters {
  const opened = openLetters(name).catch(() => {
    onLoss();
    return null;
  });
  const calls = new BroadcastChannel(`${name} windows`);
  const { roll, onGone } = answerCalls(calls, window);
  const { change, write, hurry } = makeWriter(opened, onLoss);
  return {
    async takeUp() {
      const database = await opened;
      const kept = (await database?.getAll("letters")) ?? [];
      const foreign = kept.filter((letter) => letter.window !== window);
      if (foreign.length === 0) return [];
      const there = await roll();
      const left = foreign.filter((letter) => !there.has(letter.window)).flatMap(readLetter);
      const ours = left.map((letter) => ({ ...letter, window, dueAt: 0 })).sort((a, b) => a.order - b.order);
      for (const letter of ours) change(letter.id, letter);
      write();
      return ours;
    },
    put(letter) {
      change(letter.id, letter);
      write();
    },
    remove(id) {
      change(id, null);
      write();
    },
    hurry,
    onGone,
    sayGone: () => calls.postMessage({ kind: "gone" } satisfies Call),
  };
}

/** Also where a browser that forbids it throws at once. */
async function openLetters(name: string): Promise<IDBPDatabase<Shape>> {
  return openDB<Shape>(name, 1, {
    upgrade: (database) => void database.createObjectStore("letters", { keyPath: "id" }),
  });
}

/** A letter as today's code knows it; one of a code to come stays where it is. */
function readLetter(letter: Letter): Letter[] {
  const content = contentSchema.safeParse(letter.content);
  return content.success ? [{ ...letter, content: content.data }] : [];
}

/** One write after another, each with all that has come together. */
function makeWriter(opened: Promise<IDBPDatabase<Shape> | null>, onLoss: () => void) {
  const changes = new Map<string, Letter | null>();
  let open: IDBPDatabase<Shape> | null = null;
  let isWriting = false;
  let isInHurry = false;
  void opened.then((database) => {
    open = database;
    write();
  });

  const writeNow = async (): Promise<void> => {
    if (!open || changes.size === 0) return;
    const transaction = open.transaction("letters", "readwrite");
    const writes = [...changes].map(([id, letter]) =>
      letter ? transaction.store.put(letter) : transaction.store.delete(id),
    );
    changes.clear();
    transaction.commit();
    await Promise.all([...writes, transaction.done]).catch(onLoss);
  };

  const write = async (): Promise<void> => {
    if (isInHurry) return writeNow();
    if (isWriting) return;
    isWriting = true;
    while (open && changes.size > 0) await writeNow();
    isWriting = false;
  };

  return {
    change: (id: string, letter: Letter | null) => void changes.set(id, letter),
    write: () => void write(),
    hurry() {
      isInHurry = true;
      void writeNow();
    },
  };
}

/** Windows of one browser tell each other that they are there: nobody takes up what another one is at. */
function answerCalls(calls: BroadcastChannel, window: string) {
  let there = new Set<string>();
  let hearGone = () => {};
  calls.onmessage = ({ data: call }: MessageEvent<Call>) => {
    if (call.kind === "who") calls.postMessage({ kind: "here", window } satisfies Call);
    else if (call.kind === "here") there.add(call.window);
    else hearGone();
  };
  return {
    async roll(): Promise<ReadonlySet<string>> {
      there = new Set();
      calls.postMessage({ kind: "who" } satisfies Call);
      await new Promise((resolve) => setTimeout(resolve, ROLL_CALL_MS));
      return there;
    },
    onGone(heard: () => void) {
      hearGone = heard;
    },
  };
}
