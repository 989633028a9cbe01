export { type ArtworkFacts, type ArtworkView, decodeArtwork, MAX_BYTES, MAX_PIXELS, makeThumbnail } from "./decode.ts";
export { MAX_FONT_BYTES, type ReadFont, readFont } from "./font.ts";
export { IntakeError } from "./intake-error.ts";
export { readLabelFont } from "./label-font.ts";
export { MAX_ARCHIVE_BYTES, readMotifArchive, writeMotifArchive } from "./motif-archive.ts";
export { bodyOfMotif, hashMotif } from "./motif-content.ts";
export { readMotifFile } from "./motif-file.ts";
export { prepareIntake } from "./prepare.ts";
export { type ArtworkKind, recogniseKind } from "./recognise.ts";
