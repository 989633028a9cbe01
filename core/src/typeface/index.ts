export { type FontFiles, openTypefaces } from "./open-typefaces.ts";
export { type Letter, type ShapedLine, shapeText } from "./shape-text.ts";
export {
  type FontFacts,
  NO_TYPEFACES,
  openTypeface,
  type PlacedGlyph,
  readFontFacts,
  type Typeface,
  type Typefaces,
} from "./typeface.ts";
export { type FontContainer, FontError, fontContainer, unpackWoff } from "./woff.ts";
