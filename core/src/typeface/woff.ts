// Font files as the web carries them (WOFF File Format 1.0, W3C 2012), unpacked: the same tables in an sfnt.
import { unzlibSync } from "fflate";

const WOFF_HEADER = 44;
const WOFF_ENTRY = 20;
const SFNT_HEADER = 12;
const SFNT_ENTRY = 16;
const MOST_TABLES = 200;

/** What a font file is by its first bytes. */
export type FontContainer = "sfnt" | "woff" | "woff2" | "collection";

/** Null where the bytes are no font at all. */
export function fontContainer(bytes: Uint8Array): FontContainer | null {
  if (bytes.length < 4) return null;
  const tag = String.fromCharCode(...bytes.subarray(0, 4));
  if (tag === "wOFF") return "woff";
  if (tag === "wOF2") return "woff2";
  if (tag === "ttcf") return "collection";
  return tag === "OTTO" || tag === "true" || tag === "\0\u0001\0\0" ? "sfnt" : null;
}

/** A font file that cannot be read; the message says what is wrong with it. */
export class FontError extends Error {
  override readonly name = "FontError";
}

/** A WOFF as an sfnt of at most `mostBytes`. Throws a FontError. */
export function unpackWoff(woff: Uint8Array, mostBytes: number): Uint8Array {
  if (woff.length < WOFF_HEADER) throw new FontError("The font file is cut off.");
  const view = new DataView(woff.buffer, woff.byteOffset, woff.byteLength);
  const count = view.getUint16(12);
  if (count === 0 || count > MOST_TABLES || WOFF_HEADER + count * WOFF_ENTRY > woff.length)
    throw new FontError("The font file is damaged: its list of tables does not fit it.");
  const tables = Array.from({ length: count }, (_, k) => {
    const at = WOFF_HEADER + k * WOFF_ENTRY;
    const [from, packed, length] = [view.getUint32(at + 4), view.getUint32(at + 8), view.getUint32(at + 12)];
    if (from + packed > woff.length) throw new FontError("The font file is cut off.");
    return { tag: view.getUint32(at), checksum: view.getUint32(at + 16), from, packed, length };
  });
  const whole = tables.reduce((sum, { length }) => sum + padded(length), SFNT_HEADER + count * SFNT_ENTRY);
  if (whole > mostBytes) throw new FontError(`The font is larger than ${Math.floor(mostBytes / 2 ** 20)} MB unpacked.`);
  const sfnt = new Uint8Array(whole);
  const out = new DataView(sfnt.buffer);
  out.setUint32(0, view.getUint32(4));
  out.setUint16(4, count);
  let at = SFNT_HEADER + count * SFNT_ENTRY;
  tables.forEach(({ tag, checksum, from, packed, length }, k) => {
    const entry = SFNT_HEADER + k * SFNT_ENTRY;
    for (const [o, value] of [tag, checksum, at, length].entries()) out.setUint32(entry + 4 * o, value);
    sfnt.set(unpackTable(woff.subarray(from, from + packed), length), at);
    at += padded(length);
  });
  return sfnt;
}

function unpackTable(bytes: Uint8Array, length: number): Uint8Array {
  if (bytes.length === length) return bytes;
  try {
    return unzlibSync(bytes, { out: new Uint8Array(length) });
  } catch {
    throw new FontError("The font file is damaged: one of its tables cannot be unpacked.");
  }
}

/** Tables begin at multiples of four. */
function padded(length: number): number {
  return (length + 3) & ~3;
}
