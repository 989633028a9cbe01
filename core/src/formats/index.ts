export { readCxf3, writeCxf3 } from "./cxf3.ts";
export { drawMotifSvg, type FiledMotif, readMotifSvg, writeMotifSvg } from "./motif-svg.ts";
export {
  layShapes,
  oneColour,
  type ShapeDrawing,
  type ShapeGroup,
  type Stacking,
} from "./shape-groups.ts";
export { writeShapesDxf } from "./shapes-dxf.ts";
export { SHAPE_FORMATS, type ShapeFile, type ShapeFormat, writeShapeFiles } from "./shapes-file.ts";
export { escapeXml, SVG_DIGITS, svgRoot, writeShapesSvg } from "./shapes-svg.ts";
export { readStockCsv, writeStockCsv } from "./stock-csv.ts";
export type { LineProblem, StockFile } from "./stock-file.ts";
