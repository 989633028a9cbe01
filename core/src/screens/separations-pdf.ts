// separations.pdf: one page of the art's own size, every plate in its own Separation colour space (ISO 32000-1, 8.6.6.4),
// overprinting (8.6.7), so that any RIP splits it into exactly these plates.
import type { PDFObject } from "pdf-lib";
import {
  addPageMm,
  millimetreSpace,
  pathOperators,
  separationSpace,
  setContent,
  setResources,
  startDocument,
} from "../pdf/index.ts";
import type { Separation } from "./separate.ts";

/** Bytes of separations.pdf. */
export async function writeSeparationsPdf(separation: Separation, date: Date): Promise<Uint8Array> {
  const pdf = await startDocument("Separations", date);
  const { context } = pdf;
  const widthMm = separation.widthPx * separation.mmPerPx;
  const heightMm = separation.heightPx * separation.mmPerPx;
  const page = addPageMm(pdf, widthMm, heightMm);
  let content = `${millimetreSpace(heightMm, widthMm, false)}/Overprint gs\n`;
  const spaces: Record<string, PDFObject> = {};
  separation.plates.forEach((plate, index) => {
    spaces[`S${index}`] = separationSpace(pdf, plate.name, plate.rgb);
    content += `/S${index} cs 1 scn\n${pathOperators(plate.region, separation.mmPerPx, 0, 0)}\nf*\n`;
  });
  const overprint = context.obj({ Type: "ExtGState", OP: true, op: true, OPM: 1 });
  setResources(pdf, page, { ColorSpace: spaces, ExtGState: { Overprint: overprint } });
  setContent(pdf, page, content);
  return pdf.save();
}
