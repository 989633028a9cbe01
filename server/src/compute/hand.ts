// One working process: does one task at a time, and can be killed with all that it started.
import { spawn } from "node:child_process";
import type { Readable, Writable } from "node:stream";
import { fileURLToPath } from "node:url";
import { confined, type Limits } from "./confine.ts";
import { readFrames, writeFrame } from "./frames.ts";

/** What a process is told to do. */
export interface Order {
  readonly name: string;
  readonly input: unknown;
}

/** What it says. */
export type Answer =
  | { readonly kind: "ready" }
  | { readonly kind: "progress"; readonly progress: unknown }
  | { readonly kind: "done"; readonly value: unknown; readonly spent: Spent }
  | { readonly kind: "failed"; readonly message: string };

/** What the process has used up so far. */
export interface Spent {
  readonly processorS: number;
  /** Bytes. */
  readonly memory: number;
}

/** The tasks of a kind of process. */
export interface Tasks {
  /** Reads all code and data that any task needs: afterwards the process may read no file any more. */
  prepare(): Promise<void>;
  run(name: string, input: unknown, tell: (progress: unknown) => void): Promise<unknown>;
}

/** A process ended while it had a task: something in the task, or somebody, has killed it. */
export class HandDied extends Error {
  override readonly name = "HandDied";
}

export interface HandKind {
  readonly tasks: "reading" | "making";
  readonly limits: Limits;
  /** 0 to 19: how much it stands back behind the server. */
  readonly niceness: number;
}

export interface Hand {
  /** Resolves when it can take its first task; rejects if it ends before. */
  readonly ready: Promise<void>;
  readonly ended: Promise<void>;
  /** Rejects with HandDied if the process ends first, with a plain error for one inside the task. */
  work(order: Order, onProgress: (progress: unknown) => void): Promise<{ value: unknown; spent: Spent }>;
  /** SIGKILL to its group. */
  kill(): void;
}

/** Beside this file, in the source as in what is built from it; the source needs a loader. */
const [EXTENSION, LOADER] = import.meta.url.endsWith(".ts")
  ? ["ts", ["--import", import.meta.resolve("tsx")]]
  : ["js", []];
const CHILD = fileURLToPath(new URL(`./child.${EXTENSION}`, import.meta.url));

/** Of the server's environment a working process sees this much: no password is in it. */
function environment(): NodeJS.ProcessEnv {
  const { PATH, TMPDIR, LANG, NODE_OPTIONS, NODE_ENV } = process.env;
  // Few heaps of the C library: each holds on to what it once had.
  return { PATH, TMPDIR, LANG, NODE_OPTIONS, NODE_ENV, HOME: "/nonexistent", MALLOC_ARENA_MAX: "2" };
}

export function startHand({ tasks, limits, niceness }: HandKind): Hand {
  const [command, args] = confined(limits, [process.execPath, ...LOADER, CHILD, tasks, `${niceness}`]);
  const child = spawn(command, args, {
    detached: true,
    env: environment(),
    stdio: ["pipe", "ignore", "inherit", "pipe", "pipe"],
  });
  let isOver = false;
  let onAnswer: ((answer: Answer) => void) | null = null;
  let onEnd: (() => void) | null = null;
  const kill = () => {
    try {
      process.kill(-(child.pid ?? 0), "SIGKILL");
    } catch {
      // There is none any more.
    }
  };
  const ended = new Promise<void>((resolve) => {
    const end = () => {
      isOver = true;
      // What it started may have outlived it.
      if (child.pid) kill();
      onEnd?.();
      resolve();
    };
    child.once("exit", end);
    child.once("error", end);
  });
  const input = child.stdio[0] as Writable;
  // A process that is gone says so by its end.
  for (const pipe of child.stdio) pipe?.on("error", () => {});
  readFrames(child.stdio[4] as Readable, (message) => onAnswer?.(message as Answer), kill);

  const answered = <T>(take: (answer: Answer, done: (value: T) => void, fail: (error: Error) => void) => void) =>
    new Promise<T>((resolve, reject) => {
      if (isOver) return reject(new HandDied("the process has ended"));
      onAnswer = (answer) => take(answer, resolve, reject);
      onEnd = () => reject(new HandDied("the process has ended"));
    });

  return {
    ready: answered<void>((answer, done) => {
      if (answer.kind === "ready") done();
    }),
    ended,
    work(order, onProgress) {
      const done = answered<{ value: unknown; spent: Spent }>((answer, resolve, reject) => {
        if (answer.kind === "progress") onProgress(answer.progress);
        if (answer.kind === "done") resolve(answer);
        if (answer.kind === "failed") reject(new Error(answer.message));
      });
      writeFrame(input, order).catch(kill);
      return done;
    },
    kill,
  };
}
