// shapes.pdf: the planar map's shapes on a page of their own size, every colour an ink of its own (ISO 32000-1, 8.6.6.4).
import type { PDFObject } from "pdf-lib";
import { trimNumber } from "../geometry/index.ts";
import {
  addPageMm,
  millimetreSpace,
  pathOperators,
  separationSpace,
  setContent,
  setResources,
  startDocument,
} from "../pdf/index.ts";
import { type ShapeDrawing, seamWidthPx } from "./shape-groups.ts";

/** Bytes of shapes.pdf. The date is given, since core has no clock. */
export async function writeShapesPdf(drawing: ShapeDrawing, date: Date): Promise<Uint8Array> {
  const { widthPx, heightPx, mmPerPx, groups } = drawing;
  const pdf = await startDocument("Shapes", date);
  const page = addPageMm(pdf, widthPx * mmPerPx, heightPx * mmPerPx);
  const width = trimNumber(seamWidthPx(drawing) * mmPerPx, 4);
  let content = millimetreSpace(heightPx * mmPerPx, widthPx * mmPerPx, false);
  const spaces: Record<string, PDFObject> = {};
  groups.forEach(({ spot, shapes, under, seams }, i) => {
    spaces[`S${i}`] = separationSpace(pdf, spot.name, spot.rgb);
    content += `/S${i} cs 1 scn /S${i} CS 1 SCN ${width} w\n`;
    for (const path of under) content += `${pathOperators([path], mmPerPx, 0, 0)}\nf*\n`;
    if (seams.length > 0) content += `${pathOperators(seams, mmPerPx, 0, 0)}\nS\n`;
    for (const shape of shapes) content += `${pathOperators(shape, mmPerPx, 0, 0)}\nf*\n`;
  });
  setResources(pdf, page, { ColorSpace: spaces });
  setContent(pdf, page, content);
  return pdf.save();
}
