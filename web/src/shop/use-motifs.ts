// Motifs of the shop: what is looked for, contents, and which motif a content belongs to.
import type { ListedMotif, MotifPage, MotifSearch } from "@plain-palette/contract";
import type { Motif } from "@plain-palette/core/motif";
import { keepPreviousData, useQueries, useQuery } from "@tanstack/react-query";
import { api } from "../api/client.ts";

/** What is found; while something else is looked for, what was found before. */
export function useMotifs(search: MotifSearch) {
  return useQuery<MotifPage>({
    queryKey: ["motifs", "found", search],
    queryFn: () => api.findMotifs(search),
    placeholderData: keepPreviousData,
  });
}

/** Contents never change; null until it is here. */
export function useMotifContent(hash: string | null): Motif | null {
  const content = useQuery({
    queryKey: ["motif-content", hash],
    queryFn: () => (hash === null ? null : api.motifContent(hash)),
    enabled: hash !== null,
    staleTime: Number.POSITIVE_INFINITY,
  });
  return content.data ?? null;
}

/** The motifs that have had these contents, by the content. */
export function useMotifsOf(hashes: readonly string[]): ReadonlyMap<string, ListedMotif> {
  const found = useQueries({
    queries: hashes.map((hash) => ({
      queryKey: ["motifs", "of", hash],
      queryFn: () => api.findMotifs({ hash }),
    })),
  });
  return new Map(
    hashes.flatMap((hash, k) => {
      const motif = found[k]?.data?.motifs[0];
      return motif ? [[hash, motif] as const] : [];
    }),
  );
}
