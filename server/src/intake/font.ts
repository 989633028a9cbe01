// Font files that the shop adds: recognised by their content, unpacked within limits, read by the engine that sets them.
import { createHash } from "node:crypto";
import { FontError, type FontFacts, fontContainer, readFontFacts, unpackWoff } from "@plain-palette/core/typeface";
import decompressWoff2 from "woff2-encoder/decompress";
import { IntakeError } from "./intake-error.ts";

/** Largest font file taken in, and largest unpacked: the largest of Chinese have some 20 MB. */
export const MAX_FONT_BYTES = 24 * 2 ** 20;
const MAX_UNPACKED_BYTES = 30 * 2 ** 20;

export interface ReadFont {
  /** SHA-256 of the file as it came. */
  readonly hash: string;
  readonly sfnt: Uint8Array;
  readonly facts: FontFacts;
}

/** Reads a font file. Throws an IntakeError that says what is wrong with it. */
export async function readFont(bytes: Uint8Array): Promise<ReadFont> {
  try {
    const sfnt = await unpackFont(bytes);
    const facts = await readFontFacts(sfnt);
    return { hash: createHash("sha256").update(bytes).digest("hex"), sfnt, facts };
  } catch (error) {
    if (error instanceof FontError) throw new IntakeError(error.message);
    throw error;
  }
}

/** The tables of a font file, whatever they came in. */
async function unpackFont(bytes: Uint8Array): Promise<Uint8Array> {
  switch (fontContainer(bytes)) {
    case "sfnt":
      return bytes;
    case "woff":
      return unpackWoff(bytes, MAX_UNPACKED_BYTES);
    case "woff2":
      return unpackWoff2(bytes);
    case "collection":
      throw new FontError("This is a collection of several fonts. Send the one that is wanted by itself.");
    case null:
      throw new FontError("This is no font file. Fonts come as .ttf, .otf, .woff or .woff2.");
  }
}

async function unpackWoff2(bytes: Uint8Array): Promise<Uint8Array> {
  // WOFF File Format 2.0 (W3C 2022), 4.1: what it says it unpacks to, at byte 16.
  const size = bytes.length < 48 ? 0 : new DataView(bytes.buffer, bytes.byteOffset).getUint32(16);
  if (size > MAX_UNPACKED_BYTES)
    throw new FontError(`The font is larger than ${MAX_UNPACKED_BYTES / 2 ** 20} MB unpacked.`);
  try {
    return await decompressWoff2(bytes);
  } catch {
    throw new FontError("The font file is damaged or cut off: it cannot be unpacked.");
  }
}
