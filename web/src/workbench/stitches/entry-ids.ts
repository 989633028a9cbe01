// Ids of entries about areas.

/** One that none of the entries has. */
export function nextEntryId(entries: readonly { readonly id: string }[]): string {
  const numbers = entries.map(({ id }) => Number(id.replace(/^area-/, ""))).filter(Number.isFinite);
  return `area-${Math.max(0, ...numbers) + 1}`;
}
