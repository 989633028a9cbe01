/** Index `i + k` of a line's `n` points, or -1 beyond the end of an open one. */
export function offsetIndex(i: number, k: number, n: number, isLoop: boolean): number {
  const j = i + k;
  if (isLoop) return (j + 2 * n) % n;
  return j < 0 || j >= n ? -1 : j;
}
