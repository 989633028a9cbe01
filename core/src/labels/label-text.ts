// What a label's typeface cannot print is spelled, so that no film or sheet carries a box where a client's name should be.
import fontkit from "@pdf-lib/fontkit";

/** The characters of `text` for which a TrueType or OpenType font has no glyph, each once, in order. */
export function missingCharacters(text: string, font: Uint8Array): string[] {
  const face = fontkit.create(font);
  return [...new Set(text)].filter((character) => !face.hasGlyphForCodePoint(character.codePointAt(0) ?? 0));
}

/** The text with those characters as their code points (Unicode's own notation), e.g. "[U+9DF9]". */
export function spellOut(text: string, missing: readonly string[]): string {
  return [...text].map((character) => (missing.includes(character) ? `[${codePoint(character)}]` : character)).join("");
}

/** A warning for the person who will read what is printed; null where every character prints. */
export function warnOfMissing(text: string, font: Uint8Array): string | null {
  const missing = missingCharacters(text, font);
  if (missing.length === 0) return null;
  const listed = missing.map((character) => `${character} (${codePoint(character)})`).join(", ");
  return `The labels' typeface has no ${listed}: in print it is spelled as its code point.`;
}

function codePoint(character: string): string {
  return `U+${(character.codePointAt(0) ?? 0).toString(16).toUpperCase().padStart(4, "0")}`;
}
