// Working processes and who waits for them: by turns for each client, each task with its own time, and whatever goes wrong
// inside one costs one process, which is replaced.
import type { Limits } from "./confine.ts";
import { type Hand, HandDied, type HandKind, type Order, startHand } from "./hand.ts";
import { makeTurns } from "./turns.ts";

/** A task took more time or memory than there is. */
export class Overrun extends Error {
  override readonly name = "Overrun";
}

/** So many wait that nobody else is let in. */
export class FullHouse extends Error {
  override readonly name = "FullHouse";
}

export interface Terms {
  /** Whose task it is: each client's tasks wait behind each other, not before another's. */
  readonly client: string;
  /** Longest from the moment the work starts, s. */
  readonly timeS: number;
  /** Ends it: nobody waits for it any more. */
  readonly signal?: AbortSignal | undefined;
  readonly onProgress?: ((progress: unknown) => void) | undefined;
}

export interface PoolState {
  readonly processes: number;
  readonly working: number;
  readonly waiting: number;
}

export interface ProcessPool {
  /** What the task gives. Rejects with FullHouse, Overrun, the signal's reason, or the task's own error. */
  run(order: Order, terms: Terms): Promise<unknown>;
  /** Somebody may soon need it: one process stands by. */
  standBy(): void;
  state(): PoolState;
  close(): Promise<void>;
}

export interface PoolOptions extends HandKind {
  /** Processes that stand by, and most of them. */
  readonly least: number;
  readonly most: number;
  /** Most tasks that wait. */
  readonly mostWaiting: number;
  /** One that holds much memory and has had nothing to do for so long gives it back, s: it is replaced. */
  readonly idleS: number;
}

/** A process that has used up so much is replaced before its own limits end it in the middle of a task. */
const TIRED_PROCESSOR_SHARE = 0.4;
const TIRED_BYTES = 1e9;
/** Beyond what one needs that has read nothing large. */
const MUCH_BYTES = 3.2e8;
/** So often in a row none may come up before those who wait are told. */
const MOST_FALSE_STARTS = 3;
/** A task that so many processes did not outlive is what ends them; all its tries share one time. */
const MOST_DEATHS = 3;

interface Ticket {
  readonly client: string;
  readonly order: Order;
  readonly terms: Terms;
  /** Time that is left to it, ms. */
  leftMs: number;
  /** Processes that ended while they had it. */
  deaths: number;
  /** Nobody waits for it. */
  isOver: boolean;
  resolve(value: unknown): void;
  reject(error: unknown): void;
}

export function startPool({ least, most, mostWaiting, idleS, ...kind }: PoolOptions): ProcessPool {
  const waiting = makeTurns<Ticket>();
  const hands = new Set<Hand>();
  const idle: Hand[] = [];
  let working = 0;
  let falseStarts = 0;
  let isClosing = false;

  const remove = (hand: Hand) => {
    hands.delete(hand);
    const at = idle.indexOf(hand);
    if (at >= 0) idle.splice(at, 1);
  };

  const memories = watchMemory(idleS, (hand) => {
    remove(hand);
    hand.kill();
    grow();
  });

  const grow = () => {
    if (isClosing || hands.size >= most) return;
    const hand = startHand(kind);
    hands.add(hand);
    void hand.ended.then(() => {
      remove(hand);
      if (falseStarts < MOST_FALSE_STARTS && (hands.size < least || waiting.size() > 0)) grow();
    });
    hand.ready.then(
      () => {
        falseStarts = 0;
        void rest(hand);
      },
      () => {
        if (isClosing || ++falseStarts < MOST_FALSE_STARTS) return;
        const error = new Error(`no process for ${kind.tasks} comes up`);
        for (let ticket = waiting.next(); ticket; ticket = waiting.next()) ticket.reject(error);
        falseStarts = 0;
      },
    );
  };

  /** A hand that is free takes the next task, if there is one. */
  const rest = async (hand: Hand): Promise<void> => {
    const memory = memories.of(hand);
    for (let ticket = waiting.next(); ticket; ticket = waiting.next()) {
      working++;
      const then = await serve(hand, ticket, kind.limits, memory.holds);
      working--;
      if (then === "again") {
        waiting.first(ticket);
        wake();
      }
      if (then === "tired") hand.kill();
      if (then !== "fit") return;
    }
    idle.push(hand);
    memory.rests();
  };

  const wake = () => {
    const hand = idle.pop();
    if (hand) void rest(hand);
    else grow();
  };

  for (let i = 0; i < least; i++) grow();
  return {
    run: (order, terms) =>
      new Promise((resolve, reject) => {
        const { signal } = terms;
        if (signal?.aborted) return reject(signal.reason);
        if (waiting.size() >= mostWaiting) return reject(new FullHouse("too many tasks wait"));
        waiting.add(ticketOf(order, terms, resolve, reject));
        wake();
      }),
    standBy() {
      if (hands.size === 0) grow();
    },
    state: () => ({ processes: hands.size, working, waiting: waiting.size() }),
    async close() {
      isClosing = true;
      const all = [...hands];
      for (const hand of all) hand.kill();
      await Promise.all(all.map((hand) => hand.ended));
    },
  };
}

/** A task that is over once its signal says that nobody waits for it. */
function ticketOf(order: Order, terms: Terms, resolve: Ticket["resolve"], reject: Ticket["reject"]): Ticket {
  const { client, timeS, signal } = terms;
  const ticket = { client, leftMs: timeS * 1000, deaths: 0, isOver: false, order, terms, resolve, reject };
  const leave = () => {
    ticket.isOver = true;
    reject(signal?.reason);
  };
  signal?.addEventListener("abort", leave, { once: true });
  return ticket;
}

/** Finds the process that holds much and has had nothing to do for so long. */
function watchMemory(idleS: number, letGo: (hand: Hand) => void) {
  const known = new WeakMap<Hand, { bytes: number; rests: ReturnType<typeof setTimeout> | undefined }>();
  return {
    /** Of one that looks for work now. */
    of(hand: Hand) {
      const memory = known.get(hand) ?? { bytes: 0, rests: undefined };
      known.set(hand, memory);
      clearTimeout(memory.rests);
      return {
        holds(bytes: number) {
          memory.bytes = bytes;
        },
        rests() {
          if (memory.bytes > MUCH_BYTES) memory.rests = setTimeout(() => letGo(hand), idleS * 1000).unref();
        },
      };
    },
  };
}

/**
 * One task on one process, settled for whoever waits for it. What becomes of the process: it is fit for the next, or
 * "tired" and to be replaced, or dead; "again": dead, perhaps through no fault of the task's, which is not settled then.
 */
async function serve(
  hand: Hand,
  ticket: Ticket,
  { processorS }: Limits,
  onHolds: (bytes: number) => void,
): Promise<"fit" | "tired" | "dead" | "again"> {
  const { terms, order } = ticket;
  const started = performance.now();
  let isLate = false;
  const timer = setTimeout(() => {
    isLate = true;
    hand.kill();
  }, ticket.leftMs);
  terms.signal?.addEventListener("abort", hand.kill, { once: true });
  try {
    const { value, spent } = await hand.work(order, (progress) => terms.onProgress?.(progress));
    ticket.resolve(value);
    onHolds(spent.memory);
    return spent.processorS > TIRED_PROCESSOR_SHARE * processorS || spent.memory > TIRED_BYTES ? "tired" : "fit";
  } catch (error) {
    if (!(error instanceof HandDied)) {
      ticket.reject(error);
      return "fit";
    }
    if (terms.signal?.aborted) return "dead";
    if (isLate || ++ticket.deaths === MOST_DEATHS) {
      ticket.reject(new Overrun(`${order.name} took a process down`));
      return "dead";
    }
    // Killed from outside, perhaps: other processes show whose fault it was.
    ticket.leftMs -= performance.now() - started;
    return "again";
  } finally {
    clearTimeout(timer);
    terms.signal?.removeEventListener("abort", hand.kill);
  }
}
