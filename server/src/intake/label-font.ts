// The typeface on film labels: shipped with the application, since a film must read the same on every machine.
import { readFile } from "node:fs/promises";
import { createRequire } from "node:module";

/** Bytes of a TrueType font that covers Latin, Greek and Cyrillic names. */
export async function readLabelFont(): Promise<Uint8Array> {
  return readFile(createRequire(import.meta.url).resolve("dejavu-fonts-ttf/ttf/DejaVuSans.ttf"));
}
