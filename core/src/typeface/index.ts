export { type FontFacts, readFontFacts } from "./font-facts.ts";
export { type FontFiles, openTypefaces } from "./open-typefaces.ts";
export { type Letter, type ShapedLine, shapeText } from "./shape-text.ts";
export {
  NO_TYPEFACES,
  openTypeface,
  type Typeface,
  type Typefaces,
} from "./typeface.ts";
export { type FontContainer, FontError, fontContainer, unpackWoff } from "./woff.ts";
