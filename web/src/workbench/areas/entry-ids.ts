// Ids of entries.

/** One that none of the entries has: "area-3". */
export function nextEntryId(entries: readonly { readonly id: string }[], word: string): string {
  const numbers = entries.map(({ id }) => Number(id.replace(`${word}-`, ""))).filter(Number.isFinite);
  return `${word}-${Math.max(0, ...numbers) + 1}`;
}
