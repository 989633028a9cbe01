// Steps as data: each says what it works on and what it reads. Its result is kept under a key of just that, so that a change
// redoes the steps that read it and those after them, and nothing before.
import type { Sharing } from "../share/index.ts";
import { hashText } from "./hash-text.ts";

/** Gives the result of a step that comes before. */
export type Get<R> = <P extends keyof R>(step: P) => R[P];

/** One step of a table with the results `R`, in a context `C`. */
export interface StepOf<R, K extends keyof R, C> {
  /** What a person is told meanwhile, roughly how much of the whole it is, and as part of what its time is reported. */
  readonly doing: string;
  readonly weight: number;
  readonly part: string;
  /** Steps whose keys are part of its own. */
  readonly from: readonly (keyof R)[];
  /** What decides the result beside them; JSON. */
  reads(context: C, get: Get<R>): unknown;
  /** What decides only what is shown along with it: the steps after it do not read that. */
  aside?(context: C): unknown;
  /** Whether some earlier results are kept beside the latest, for who goes back; so it is if it does not say. */
  keepsEarlier?(context: C): boolean;
  /** `last`: what it made last, of whatever; what of that still holds it tells by itself. It may share out its work. */
  compute(context: C, get: Get<R>, last: R[K] | null): R[K] | Sharing<R[K]>;
}

/** All steps, in the order in which they are done. */
export type StepTable<R, C> = { readonly [K in keyof R]: StepOf<R, K, C> };

/** A result. `key` names what it was made from, `aside` what is shown along with it. */
interface KeptResult<T> {
  readonly key: string;
  readonly aside: string;
  readonly result: T;
}

/** The latest result of every step, and some before it, the latest first. */
export type KeptResults<R> = {
  [K in keyof R]?: KeptResult<R[K]> & { readonly before?: readonly KeptResult<R[K]>[] };
};

/** How many earlier results are kept. A person compares: one colour fewer, and back. */
const EARLIER = 2;

/** What a step made last; throws where it has made nothing. */
export function resultOf<R, K extends keyof R>(kept: KeptResults<R>, step: K): R[K] {
  const found = kept[step];
  if (!found) throw new Error(`${String(step)} has made nothing yet`);
  return found.result;
}

/** How much all of a table is. */
export function totalWeight<R, C>(table: StepTable<R, C>): number {
  return Object.values<StepOf<R, keyof R, C>>(table).reduce((sum, { weight }) => sum + weight, 0);
}

/** The result of one step: kept, or computed and kept. Those before it are there. `root` is part of every key. */
export function* doStep<R, K extends keyof R, C>(
  table: StepTable<R, C>,
  step: K,
  context: C,
  kept: KeptResults<R>,
  root = "",
): Sharing<R[K]> {
  const { from, reads, aside, keepsEarlier, compute } = table[step];
  const get: Get<R> = (other) => resultOf(kept, other);
  const parents = [root, ...from.map((parent) => kept[parent]?.key)];
  const key = hashText(JSON.stringify([parents, reads(context, get)]));
  const shown = JSON.stringify(aside?.(context) ?? null);
  const last = kept[step];
  const all = last ? [last, ...(last.before ?? [])] : [];
  let found = all.find((one) => one.key === key && one.aside === shown);
  if (found && found === last) return found.result;
  if (!found) {
    const computed = compute(context, get, last?.result ?? null);
    found = { key, aside: shown, result: isSharing(computed) ? yield* computed : computed };
  }
  const { result } = found;
  const others = all.filter((one) => one !== found).slice(0, keepsEarlier?.(context) === false ? 0 : EARLIER);
  const before = others.map((one) => ({ key: one.key, aside: one.aside, result: one.result }));
  kept[step] = { key, aside: shown, result, before };
  return result;
}

/** Keeps what another table of the same work made of something else, for when that is wanted here. */
export function keepBeside<R>(kept: KeptResults<R>, other: KeptResults<R>): void {
  for (const step in other) {
    const [own, beside] = [kept[step], other[step]];
    if (!own || !beside || own.key === beside.key) continue;
    const { key, aside, result } = beside;
    const before = (own.before ?? []).filter((one) => one.key !== key);
    kept[step] = { ...own, before: [{ key, aside, result }, ...before].slice(0, EARLIER) };
  }
}

function isSharing<T>(computed: T | Sharing<T>): computed is Sharing<T> {
  return typeof computed === "object" && computed !== null && Symbol.iterator in computed && "next" in computed;
}
