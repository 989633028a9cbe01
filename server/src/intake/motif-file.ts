// Files that become motifs: an archive, a motif's own SVG, or art that was drawn elsewhere.
import { type FiledMotif, readMotifSvg } from "@plain-palette/core/formats";
import { MOTIF_LIMITS } from "@plain-palette/core/motif";
import { readDrawnMotif } from "./drawn-motif.ts";
import { IntakeError } from "./intake-error.ts";
import { readMotifArchive } from "./motif-archive.ts";
import { recogniseKind } from "./recognise.ts";

/** The motifs in a file. Throws an IntakeError for what is none. */
export async function readMotifFile(bytes: Uint8Array, fileName: string): Promise<FiledMotif[]> {
  // "PK" begins every ZIP (APPNOTE 4.3).
  if (bytes[0] === 0x50 && bytes[1] === 0x4b) return readMotifArchive(bytes);
  const kind = recogniseKind(bytes);
  if (kind !== "svg" && kind !== "pdf")
    throw new IntakeError(
      `A ${kind.toUpperCase()} is pixels: make a job of it, and keep its shapes from there. Motifs come in as SVG or PDF.`,
      415,
    );
  const own = kind === "svg" ? readMotifSvg(new TextDecoder().decode(bytes)) : null;
  if (own) return [own];
  const motif = await readDrawnMotif(bytes, kind);
  const name =
    fileName
      .replace(/\.[a-z0-9]{2,5}$/i, "")
      .trim()
      .slice(0, MOTIF_LIMITS.nameLength) || "Motif";
  return [{ motif, facts: { name, folder: "", words: "", from: fileName.slice(0, 2 * MOTIF_LIMITS.nameLength) } }];
}
