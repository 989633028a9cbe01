/** So many of something, in words. */
export function count(n: number, what: string): string {
  return `${n} ${what}${n === 1 ? "" : "s"}`;
}
