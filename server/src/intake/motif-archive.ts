// All motifs as one archive: a ZIP of their SVGs with a list. Its comment is the SHA-256 of all that comes before it, so that
// one that is not just as it was written is refused as a whole.
import { createHash } from "node:crypto";
import { type FiledMotif, readMotifSvg, writeMotifSvg } from "@plain-palette/core/formats";
import { unzipSync, zipSync } from "fflate";
import { z } from "zod";
import { IntakeError } from "./intake-error.ts";
import { hashMotif } from "./motif-content.ts";

/** Largest archive, packed and unpacked. */
export const MAX_ARCHIVE_BYTES = 128 * 1024 * 1024;
const MAX_UNPACKED = 512 * 1024 * 1024;
const LIST = "motifs.json";
/** A ZIP's times begin then (APPNOTE 4.4.6, MS-DOS time): the same motifs are the same archive. */
const NO_TIME = new Date(1980, 0, 1);
const DIGEST_LENGTH = 64;

const listSchema = z.object({
  format: z.literal(1),
  motifs: z.array(z.object({ file: z.string(), hash: z.string() })),
});

/** The archive's bytes. */
export function writeMotifArchive(motifs: readonly FiledMotif[]): Uint8Array {
  const listed = motifs.map((one) => {
    const hash = hashMotif(one.motif);
    const folder = fileSafe(one.facts.folder);
    return {
      one,
      hash,
      file: `${folder && `${folder}/`}${fileSafe(one.facts.name) || "motif"} ${hash.slice(0, 12)}.svg`,
    };
  });
  const list = { format: 1, motifs: listed.map(({ file, hash }) => ({ file, hash })) };
  const text = (words: string) => new TextEncoder().encode(words);
  const files = Object.fromEntries(listed.map(({ file, one }) => [file, text(writeMotifSvg(one))]));
  const zip = zipSync({ [LIST]: text(`${JSON.stringify(list, null, 1)}\n`), ...files }, { mtime: NO_TIME });
  return seal(zip);
}

/** Names that every file system takes. */
function fileSafe(name: string): string {
  return name
    .normalize()
    .replace(/[^\p{L}\p{N} _-]+/gu, " ")
    .trim()
    .slice(0, 60);
}

/** The ZIP with the hash of itself as its comment, whose length its last two bytes are (APPNOTE 4.3.16). */
function seal(zip: Uint8Array): Uint8Array {
  const sealed = new Uint8Array(zip.length + DIGEST_LENGTH);
  sealed.set(zip);
  sealed[zip.length - 2] = DIGEST_LENGTH;
  sealed[zip.length - 1] = 0;
  const digest = createHash("sha256").update(sealed.subarray(0, zip.length)).digest("hex");
  sealed.set(new TextEncoder().encode(digest), zip.length);
  return sealed;
}

/** The motifs of an archive. Throws an IntakeError, with the reason, for any that is not just as it was written. */
export function readMotifArchive(bytes: Uint8Array): FiledMotif[] {
  if (bytes.length > MAX_ARCHIVE_BYTES)
    throw new IntakeError("The archive has more than 128 MB. Ask for the motifs in several, folder by folder.", 413);
  const body = bytes.subarray(0, Math.max(0, bytes.length - DIGEST_LENGTH));
  const digest = new TextDecoder("latin1").decode(bytes.subarray(body.length));
  if (createHash("sha256").update(body).digest("hex") !== digest)
    throw new IntakeError(
      "The archive is not as it was written: it was cut off, changed, or packed anew. Ask for it again, or take its SVGs in one by one.",
    );
  const files = unpack(bytes);
  const list = listSchema.safeParse(parseJson(files[LIST]));
  if (!list.success) throw new IntakeError("The archive has no list of motifs that can be read. Ask for it again.");
  return list.data.motifs.map(({ file, hash }) => {
    const read = files[file] && readMotifSvg(new TextDecoder().decode(files[file]));
    if (!read || hashMotif(read.motif) !== hash)
      throw new IntakeError(`"${file}" in the archive is not the motif that its list says. Ask for the archive again.`);
    return read;
  });
}

function unpack(bytes: Uint8Array): Record<string, Uint8Array> {
  let size = 0;
  try {
    return unzipSync(bytes, {
      filter: ({ originalSize }) => {
        size += originalSize;
        if (size > MAX_UNPACKED) throw new IntakeError("The archive unpacks to more than 512 MB.", 413);
        return true;
      },
    });
  } catch (error) {
    if (error instanceof IntakeError) throw error;
    throw new IntakeError("The archive cannot be unpacked. Ask for it again.");
  }
}

function parseJson(bytes: Uint8Array | undefined): unknown {
  try {
    return JSON.parse(new TextDecoder().decode(bytes));
  } catch {
    return null;
  }
}
