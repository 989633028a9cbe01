// Typefaces that a recipe is set in: shipped ones, and the shop's own from files that are given along.
import { readFile } from "node:fs/promises";
import { type Recipe, typefacesIn } from "@plain-palette/core/recipe";
import { type FontFiles, openTypefaces, type Typefaces } from "@plain-palette/core/typeface";
import { readFont } from "@plain-palette/server/intake";
import { readShippedFiles } from "@plain-palette/server/shipped-typefaces";

/** Throws what readFont and the file system throw. */
export async function openFonts(recipe: Recipe, given: readonly string[]): Promise<Typefaces> {
  const own = new Map<string, Uint8Array>();
  for (const file of given) {
    const { hash, sfnt } = await readFont(await readFile(file));
    own.set(hash, sfnt);
  }
  const fonts: FontFiles[] = [];
  for (const id of typefacesIn(recipe.shapes.entries)) {
    const bytes = own.get(id);
    const files = bytes ? [bytes] : await readShippedFiles(id);
    if (files) fonts.push({ id, files });
  }
  return openTypefaces(fonts);
}
