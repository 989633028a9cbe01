// What kind of file this is, by its content; the name's extension is often missing or wrong.
import { IntakeError } from "./intake-error.ts";

/** Kinds that can become artwork. */
export type ArtworkKind = "png" | "jpeg" | "gif" | "webp" | "tiff" | "avif" | "bmp" | "svg" | "pdf";

const ascii = (bytes: Uint8Array, from: number, to: number) => String.fromCharCode(...bytes.subarray(from, to));

/** Recognises a file by its first bytes (the formats' own signatures). Throws an IntakeError that says what it is instead. */
export function recogniseKind(bytes: Uint8Array): ArtworkKind {
  if (bytes.length === 0)
    throw new IntakeError("The file is empty. Ask for it again, or check that the copy finished.");
  const head = ascii(bytes, 0, 16);
  if (head.startsWith("\x89PNG\r\n\x1a\n")) return "png";
  if (bytes[0] === 0xff && bytes[1] === 0xd8 && bytes[2] === 0xff) return "jpeg";
  if (head.startsWith("GIF87a") || head.startsWith("GIF89a")) return "gif";
  if (head.startsWith("RIFF") && ascii(bytes, 8, 12) === "WEBP") return "webp";
  if (head.startsWith("II*\0") || head.startsWith("MM\0*")) return "tiff";
  if (ascii(bytes, 4, 8) === "ftyp" && /avif|avis/.test(ascii(bytes, 8, 32))) return "avif";
  // ISO 32000-1, annex H: readers take the header anywhere in the first 1024 bytes.
  if (ascii(bytes, 0, 1024).includes("%PDF-")) return "pdf";
  if (head.startsWith("PK"))
    throw new IntakeError("This is a zip archive. Unpack it and send the picture inside.", 415);
  // Two letters alone would take text for a picture: the size of the second header has to be one that exists.
  if (head.startsWith("BM") && [12, 16, 40, 52, 56, 64, 108, 124].includes(bytes[14] ?? 0)) return "bmp";
  const start = new TextDecoder().decode(bytes.subarray(0, 4096));
  if (/^\s*(<\?xml[^>]*>|<!--[\s\S]*?-->|<!DOCTYPE[^>[]*(\[[\s\S]*?\])?>|\s)*<svg[\s>]/i.test(start)) return "svg";
  if (!/[^\t\n\r\x20-\x7e\u00a0-\uffff]/.test(start))
    throw new IntakeError("This is text, not a picture. Send the picture as PNG, JPEG, TIFF or SVG.", 415);
  throw new IntakeError("The file is no picture this shop can read. Send it as PNG, JPEG, TIFF or SVG.", 415);
}
