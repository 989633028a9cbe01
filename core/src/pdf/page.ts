// What the PDF writers share: a document without a clock, and page content in millimetres with y down.
import fontkit from "@pdf-lib/fontkit";
import { strToU8, zlibSync } from "fflate";
import { PDFArray, PDFDict, PDFDocument, type PDFFont, PDFName, type PDFObject, type PDFPage } from "pdf-lib";
import type { Rgb } from "../colour/index.ts";
import { type CubicPath, isClosed, isLine, segmentCount, trimNumber } from "../geometry/index.ts";

/** Points in a millimetre (ISO 32000-1, 8.3.2.3: user space units are 1/72 inch). */
export const PT_PER_MM = 72 / 25.4;

/** An empty pdf. The date is given, since core has no clock: same input, same bytes. */
export async function startDocument(title: string, date: Date): Promise<PDFDocument> {
  const pdf = await PDFDocument.create({ updateMetadata: false });
  pdf.registerFontkit(fontkit);
  pdf.setTitle(title);
  pdf.setProducer("Plain Palette");
  pdf.setCreationDate(date);
  pdf.setModificationDate(date);
  return pdf;
}

/** Adds a page of the given size in mm whose boxes all are that size. */
export function addPageMm(pdf: PDFDocument, widthMm: number, heightMm: number): PDFPage {
  return pdf.addPage([widthMm * PT_PER_MM, heightMm * PT_PER_MM]);
}

/** Sets compressed page content. */
export function setContent(pdf: PDFDocument, page: PDFPage, content: string): void {
  // The PDF library's own deflate takes twice the time.
  const bytes = zlibSync(strToU8(content, true));
  const stream = pdf.context.stream(bytes, { Filter: "FlateDecode" });
  page.node.set(PDFName.of("Contents"), pdf.context.register(stream));
}

/** Operator that makes user space millimetres from the top-left corner, y down; mirrored left to right if asked. */
export function millimetreSpace(heightMm: number, widthMm: number, isMirrored: boolean): string {
  const s = trimNumber(PT_PER_MM, 8);
  const h = trimNumber(heightMm * PT_PER_MM, 6);
  return isMirrored ? `-${s} 0 0 -${s} ${trimNumber(widthMm * PT_PER_MM, 6)} ${h} cm\n` : `${s} 0 0 -${s} 0 ${h} cm\n`;
}

/** Path operators for paths (source pixels), scaled and moved to millimetres; the caller paints. */
export function pathOperators(paths: readonly CubicPath[], mmPerPx: number, xMm: number, yMm: number): string {
  const parts: string[] = [];
  // A micrometre is a fifteenth of the finest film printer's dot.
  const x = (v: number) => trimNumber(v * mmPerPx + xMm, 3);
  const y = (v: number) => trimNumber(v * mmPerPx + yMm, 3);
  for (const path of paths) {
    const closes = isClosed(path);
    parts.push(`${x(path[0])} ${y(path[1])} m`);
    const segments = segmentCount(path);
    for (let s = 0; s < segments; s++) {
      const o = s * 6 + 2;
      const end = `${x(path[o + 4])} ${y(path[o + 5])}`;
      parts.push(
        isLine(path, s) ? `${end} l` : `${x(path[o])} ${y(path[o + 1])} ${x(path[o + 2])} ${y(path[o + 3])} ${end} c`,
      );
    }
    if (closes) parts.push("h");
  }
  return parts.join("\n");
}

/** A Separation colour space (ISO 32000-1, 8.6.6.4) that looks like `rgb` where there is no such ink. */
export function separationSpace({ context }: PDFDocument, name: string, rgb: Rgb): PDFObject {
  const [r, g, b] = rgb.map((channel) => Number(trimNumber(channel / 255, 4)));
  const tint = context.obj({ FunctionType: 2, Domain: [0, 1], C0: [1, 1, 1], C1: [r, g, b], N: 1 });
  const space = PDFArray.withContext(context);
  for (const part of [PDFName.of("Separation"), colorantName(name), PDFName.of("DeviceRGB"), context.register(tint)])
    space.push(part);
  return space;
}

/** What a page's content names: of each kind its objects, in this order. */
export function setResources(
  { context }: PDFDocument,
  page: PDFPage,
  kinds: Readonly<Record<string, Readonly<Record<string, PDFObject>>>>,
): void {
  const resources = PDFDict.withContext(context);
  for (const [kind, objects] of Object.entries(kinds)) {
    const named = PDFDict.withContext(context);
    for (const [name, object] of Object.entries(objects)) named.set(PDFName.of(name), object);
    resources.set(PDFName.of(kind), named);
  }
  page.node.set(PDFName.of("Resources"), resources);
}

/** A PDF name of the ink's name in UTF-8 (ISO 32000-1, 7.3.5); "#" is escaped, since the library would decode it. */
function colorantName(name: string): PDFName {
  return PDFName.of(encodeURIComponent(name).replace(/%([0-9A-F]{2})/g, "#$1"));
}

/** Operators for one line of text whose baseline starts at x, y in millimetre space (which is y down, so text is turned back). */
export function textOperators(
  font: PDFFont,
  name: string,
  text: string,
  xMm: number,
  yMm: number,
  sizeMm: number,
): string {
  const n = (v: number) => trimNumber(v, 4);
  return `BT /${name} ${n(sizeMm)} Tf 1 0 0 -1 ${n(xMm)} ${n(yMm)} Tm ${font.encodeText(text).toString()} Tj ET\n`;
}
