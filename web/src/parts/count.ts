/** So many of something, in words. */
export function count(n: number, what: string, many = `${what}s`): string {
  return `${n} ${n === 1 ? what : many}`;
}
