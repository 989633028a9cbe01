// What a recipe names but does not hold: it is at hand before the recipe is computed.
import { type Motifs, NO_MOTIFS } from "../motif/index.ts";
import { NO_TYPEFACES, type Typefaces } from "../typeface/index.ts";
import { typefacesIn } from "./lettering-entry.ts";
import { motifsIn } from "./motif-entry.ts";

export interface Library {
  readonly typefaces: Typefaces;
  readonly motifs: Motifs;
}

export const EMPTY_LIBRARY: Library = { typefaces: NO_TYPEFACES, motifs: NO_MOTIFS };

/** Entries as far as it matters here. */
type Entries = readonly { readonly kind: string; readonly isOn: boolean }[];

/** Ids of the typefaces, and hashes of the motifs, that entries in force need. */
export function neededBy(entries: Entries): { readonly typefaces: string[]; readonly motifs: string[] } {
  return { typefaces: typefacesIn(entries), motifs: motifsIn(entries) };
}

/** Those of them that are not there. */
export function missingOf(entries: Entries, { typefaces, motifs }: Library): readonly string[] {
  const needed = neededBy(entries);
  return [
    ...needed.typefaces.filter((id) => typefaces.get(id) === null),
    ...needed.motifs.filter((hash) => motifs.get(hash) === null),
  ];
}
