export { writeFilmsPdf } from "./films-pdf.ts";
export { writeSeparationsPdf } from "./separations-pdf.ts";
export { escapeXml, writeSeparationsSvg, writeShapesSvg } from "./shapes-svg.ts";
