// Work of a step that several may do at once. The step says what there is to do and is handed what came of it; who does it,
// and whether anyone but itself, is not its concern: what comes of a part depends on that part alone.

/**
 * What is done with each part. `Common` is what all parts need: it goes to each who helps once, and what follows from it is
 * made once. Common, parts and outcomes are data alone: they cross from thread to thread.
 */
export interface Task<Common, Part, Outcome> {
  readonly name: string;
  begin(common: Common): (part: Part) => Outcome;
}

/** A task as it is handed on, when nobody knows any more what it is about. */
export type AnyTask = Task<never, never, unknown>;

/** Parts to be done; they are best given out in their order, the longest first. */
export interface Shared {
  readonly task: string;
  readonly common: unknown;
  readonly parts: readonly unknown[];
}

/** What came of each part; null: nobody helped. */
export type Outcomes = readonly unknown[] | null;

/** Work on the way to a `T` that shares out what it can. */
export type Sharing<T> = Generator<Shared, T, Outcomes>;

/** What comes of each part, done by whoever helps, or here. */
export function* shareOut<C, P, O>(task: Task<C, P, O>, common: C, parts: readonly P[]): Sharing<readonly O[]> {
  const outcomes = parts.length > 1 ? yield { task: task.name, common, parts } : null;
  return (outcomes as readonly O[] | null) ?? parts.map(task.begin(common));
}

/** Whether anyone helps just now: for work that has to be made ready before it can be shared. */
export function* isHelped(): Sharing<boolean> {
  return (yield { task: "", common: null, parts: [] }) !== null;
}

/** The same work without anybody's help. */
export function doAlone<T>(work: Sharing<T>): T {
  let turn = work.next(null);
  while (!turn.done) turn = work.next(null);
  return turn.value;
}
