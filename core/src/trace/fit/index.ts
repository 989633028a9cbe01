export { circlePath } from "./circle.ts";
export { type CurveSettings, fitLine, fitPolyline, fitTask, fitTogether, toleranceOf } from "./fit-line.ts";
export { fitOneSegment, fitStretch } from "./fit-stretch.ts";
export { roughPath } from "./rough-path.ts";
export type { Tangent } from "./segment.ts";
export { squareUp } from "./square-up.ts";
export { type Crossings, findCrossing, untangle } from "./untangle.ts";
