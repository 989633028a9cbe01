// What a recipe names but does not hold: typefaces, shipped ones and the shop's own, and motifs, from files that are given along.
import { readFile } from "node:fs/promises";
import { basename } from "node:path";
import type { Motif } from "@plain-palette/core/motif";
import { type Library, neededBy, type Recipe } from "@plain-palette/core/recipe";
import { type FontFiles, openTypefaces, type Typefaces } from "@plain-palette/core/typeface";
import { hashMotif, readFont, readMotifFile } from "@plain-palette/server/intake";
import { readShippedFiles } from "@plain-palette/server/shipped-typefaces";

/** Files of the shop's own typefaces, and of motifs: each its SVG, or an archive of many. */
export interface LibraryFiles {
  readonly fonts: readonly string[];
  readonly motifs: readonly string[];
}

/** Throws what readFont, readMotifFile and the file system throw. */
export async function openLibrary({ shapes }: Recipe, { fonts, motifs }: LibraryFiles): Promise<Library> {
  const needed = neededBy(shapes.entries);
  const kept = new Map<string, Motif>();
  for (const file of motifs)
    for (const { motif } of await readMotifFile(await readFile(file), basename(file)))
      kept.set(hashMotif(motif), motif);
  return {
    typefaces: await openFonts(needed.typefaces, fonts),
    motifs: { get: (hash) => kept.get(hash) ?? null },
  };
}

async function openFonts(ids: readonly string[], given: readonly string[]): Promise<Typefaces> {
  const own = new Map<string, Uint8Array>();
  for (const file of given) {
    const { hash, sfnt } = await readFont(await readFile(file));
    own.set(hash, sfnt);
  }
  const fonts: FontFiles[] = [];
  for (const id of ids) {
    const bytes = own.get(id);
    const files = bytes ? [bytes] : await readShippedFiles(id);
    if (files) fonts.push({ id, files });
  }
  return openTypefaces(fonts);
}
