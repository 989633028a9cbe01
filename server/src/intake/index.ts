export { type ArtworkFacts, type ArtworkView, decodeArtwork, MAX_BYTES, MAX_PIXELS, makeThumbnail } from "./decode.ts";
export { MAX_FONT_BYTES, type ReadFont, readFont } from "./font.ts";
export { IntakeError } from "./intake-error.ts";
export { readLabelFont } from "./label-font.ts";
export { type ArtworkKind, recogniseKind } from "./recognise.ts";
