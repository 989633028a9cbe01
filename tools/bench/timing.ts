// Times of one piece of work. The machine has slow moments, and a first run pays for compiling.

/** How often a time is taken where the middle one counts. */
export const RUNS = 3;

/** The middle value. */
export function middle(values: readonly number[]): number {
  return [...values].sort((a, b) => a - b)[values.length >> 1];
}

export async function timed<T>(work: () => T | Promise<T>): Promise<{ ms: number; value: T }> {
  global.gc?.();
  const before = performance.now();
  const value = await work();
  return { ms: performance.now() - before, value };
}

/** Middle time of several runs, ms. */
export async function middleTime(work: () => unknown): Promise<number> {
  const times: number[] = [];
  for (let run = 0; run < RUNS; run++) times.push((await timed(work)).ms);
  return middle(times);
}
