// The one text of a motif's content, and its hash: the same content has the same name in every shop.
import { createHash } from "node:crypto";
import { type Motif, motifSchema } from "@plain-palette/core/motif";

/** Fields in the order of the schema. */
export function bodyOfMotif(motif: Motif): string {
  return JSON.stringify(motifSchema.parse(motif));
}

/** SHA-256 of a motif's content, hexadecimal. */
export function hashMotif(motif: Motif): string {
  return createHash("sha256").update(bodyOfMotif(motif)).digest("hex");
}
