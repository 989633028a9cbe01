// Lists that are shown are read anew after something was changed on the server.
import type { QueryClient, QueryKey } from "@tanstack/react-query";

/**
 * Reads anew what is shown under a key, and ends when it is here. A first reading that is still on its way is no such: it
 * may have left before the change, and the library would take it for the new one.
 */
export async function readAnew(queries: QueryClient, queryKey: QueryKey): Promise<void> {
  const early = queries
    .getQueryCache()
    .findAll({ queryKey, fetchStatus: "fetching", predicate: ({ state }) => state.data === undefined });
  await queries.invalidateQueries({ queryKey });
  if (early.length === 0) return;
  await Promise.allSettled(early.map(({ promise }) => promise));
  await queries.invalidateQueries({ queryKey, predicate: (query) => early.includes(query) });
}
