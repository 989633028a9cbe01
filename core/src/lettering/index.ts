export { ALIGNMENTS, type Alignment } from "./alignment.ts";
export { arcThrough, type Baseline, type Stand } from "./baseline.ts";
export { checkLettering, type LetteringCheck, type LetteringLimits } from "./check-lettering.ts";
export { type FoundTypeface, tryOn } from "./find/index.ts";
export { type LetterDress, type LetterLayer, letterLayers } from "./letter-layers.ts";
export {
  type Lettering,
  type Nudge,
  type SetLetter,
  type SetLettering,
  type SetLine,
  setLettering,
} from "./set-lines.ts";
