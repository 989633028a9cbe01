export { type DrawnArt, type FilledArea, flattenDrawn, type Painted } from "./flatten-drawn.ts";
export { type KeptSpot, keepMotif } from "./keep-motif.ts";
export { type JobSpot, matchSpots } from "./match-spots.ts";
export { countMotifShapes, countSegments, motifAreas } from "./measure-motif.ts";
export {
  MOTIF_LIMITS,
  type Motif,
  type MotifFacts,
  type MotifSpot,
  type Motifs,
  motifFactsSchema,
  motifSchema,
  NO_MOTIFS,
} from "./motif.ts";
export { layMotif, type MotifLayer, type MotifPlace } from "./place-motif.ts";
export { copiesIn, type Row, type RowStep, rowSteps } from "./rows.ts";
