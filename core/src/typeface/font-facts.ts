// What a font file says of itself, and which scripts it is made for.
import { type Font, loadHarfBuzz, openFont } from "./font.ts";
import { FontError } from "./woff.ts";

/** What a font file says of itself. */
export interface FontFacts {
  readonly family: string;
  readonly style: string;
  /** Embedding permissions (OpenType OS/2, fsType); null where it says nothing. */
  readonly fsType: number | null;
  /** Characters that it carries, and scripts of which it has letters. */
  readonly characters: number;
  readonly scripts: readonly string[];
}

/** Letters that tell which scripts a font is made for. */
const SCRIPT_LETTERS = [
  ["Latin", "AGag"],
  ["Latin with accents", "ÄÉßñ"],
  ["Central European", "ŁřőŻ"],
  ["Greek", "ΑΩαω"],
  ["Cyrillic", "АЖая"],
  ["Hebrew", "אבת"],
  ["Arabic", "ابي"],
  ["Devanagari", "अकह"],
  ["Thai", "กขฮ"],
  ["Vietnamese", "ăệơ"],
] as const;

/** Of a font, so many characters are looked at for one that is drawn. */
const MOST_TRIED = 400;

/** Reads what a font file says of itself. Throws a FontError for one that sets no text. */
export async function readFontFacts(sfnt: Uint8Array): Promise<FontFacts> {
  const hb = await loadHarfBuzz();
  const font = openFont(hb, sfnt);
  if (!hasOutlines(font)) throw new FontError("The font has no outlines: a font of pictures cannot be set as shapes.");
  const name = (ids: readonly number[]) => ids.map(font.nameOf).find(Boolean) ?? "";
  const os2 = font.table("OS/2");
  const fsType = os2 && os2.length >= 10 ? os2[8] * 256 + os2[9] : null;
  const scripts = SCRIPT_LETTERS.flatMap(([script, letters]) => (font.carries(letters) ? [script] : []));
  // Names of typographic families go before those of four styles each.
  return { family: name([16, 1]), style: name([17, 2]), fsType, characters: font.carried.size, scripts };
}

function hasOutlines({ carried, glyphOf, outline }: Font): boolean {
  return [...carried].slice(0, MOST_TRIED).some((char) => {
    const glyph = glyphOf(char);
    return glyph !== undefined && outline(glyph).length > 0;
  });
}
