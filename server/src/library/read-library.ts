// What a recipe names but does not hold, read for a working process, which has no database.
import type { Motif } from "@plain-palette/core/motif";
import { neededBy, type Recipe } from "@plain-palette/core/recipe";
import type { FontFiles } from "@plain-palette/core/typeface";
import type { LibraryFiles } from "../compute/index.ts";
import type { MotifStore } from "../motifs/index.ts";
import type { TypefaceStore } from "../typefaces/index.ts";

/** Those that are there; an entry that needs another says so in the report. */
export async function readLibrary(
  { shapes }: Recipe,
  { typefaces, motifs }: { readonly typefaces: TypefaceStore; readonly motifs: MotifStore },
): Promise<LibraryFiles> {
  const needed = neededBy(shapes.entries);
  const fonts: FontFiles[] = [];
  for (const id of needed.typefaces) {
    const files = await typefaces.files(id);
    if (files) fonts.push({ id, files });
  }
  const contents = new Map<string, Motif>();
  for (const hash of needed.motifs) {
    const motif = await motifs.content(hash);
    if (motif) contents.set(hash, motif);
  }
  return { fonts, motifs: contents };
}
