export { CUT_FILES, CUT_FORMATS, type CutFormat, writeCutDrawing } from "./cut-formats.ts";
export { type Contour, type CutPlan, overcutOf, type PenText, planCuts, planOf } from "./cut-plan.ts";
export { UNITS_PER_MM, writeHpgl } from "./hpgl.ts";
