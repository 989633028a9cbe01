// A typeface: one style of a family, in one font file or in several that carry some scripts each.
import type { CubicPath } from "../geometry/index.ts";
import { loadHarfBuzz, openFont, type ShapedCluster, type TextRun } from "./font.ts";

/** Lengths are shares of the em. */
export interface Typeface {
  readonly id: string;
  /** Height of a capital H over the baseline. */
  readonly capHeight: number;
  /** Which of its files carries all of a piece of text; -1: none. `preferred` is asked first. */
  fileFor(text: string, preferred: number): number;
  /** Clusters from left to right. Ligatures that are not needed to read it are left out if letters are spaced. */
  shape(text: string, run: TextRun, hasLigatures: boolean): ShapedCluster[];
  /** Outlines of a glyph, y down; where they overlap, what any of them winds round is the glyph. */
  outline(file: number, glyph: number): readonly CubicPath[];
}

/** Where typefaces are taken from while a recipe is computed. */
export interface Typefaces {
  get(id: string): Typeface | null;
}

export const NO_TYPEFACES: Typefaces = { get: () => null };

/** What most typefaces have, where one says nothing. */
const USUAL_CAP_HEIGHT = 0.7;

/** Opens a typeface from its font files (sfnt), the most important first. Throws a FontError. */
export async function openTypeface(id: string, files: readonly Uint8Array[]): Promise<Typeface> {
  const hb = await loadHarfBuzz();
  const fonts = files.map((bytes) => openFont(hb, bytes));
  const capHeight = fonts.map((font) => font.heightOf("H")).find((value) => value !== null && value > 0);
  return {
    id,
    capHeight: capHeight ?? USUAL_CAP_HEIGHT,
    fileFor(text, preferred) {
      if (fonts[preferred]?.carries(text)) return preferred;
      return fonts.findIndex((font) => font.carries(text));
    },
    shape: (text, run, hasLigatures) => fonts[run.file].shape(text, run, hasLigatures),
    outline: (file, glyph) => fonts[file].outline(glyph),
  };
}
