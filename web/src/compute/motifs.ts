// Motifs in a worker: contents fetched when an entry first places them, then kept; they never change.
import { type Motif, type Motifs, motifSchema } from "@plain-palette/core/motif";

export interface LoadedMotifs extends Motifs {
  /** Has these at hand; those that the shop does not have are left out. */
  need(hashes: readonly string[]): Promise<void>;
}

export function makeLoadedMotifs(): LoadedMotifs {
  const loaded = new Map<string, Motif>();
  return {
    get: (hash) => loaded.get(hash) ?? null,
    async need(hashes) {
      await Promise.all(
        hashes.map(async (hash) => {
          if (loaded.has(hash)) return;
          const response = await fetch(`/api/motifs/contents/${hash}`).catch(() => null);
          if (response?.ok) loaded.set(hash, motifSchema.parse(await response.json()));
        }),
      );
    },
  };
}
