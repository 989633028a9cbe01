// printed.pdf: the art in one piece at true size, colour beyond its outline, and the marks that a cutter finds it by.
import { type PDFDocument, PDFName, type PDFObject } from "pdf-lib";
import type { Rgb } from "../colour/index.ts";
import { type CubicPath, trimNumber } from "../geometry/index.ts";
import { addPageMm, millimetreSpace, pathOperators, setContent, setResources, startDocument } from "../pdf/index.ts";
import type { Raster } from "../raster/index.ts";
import { PRINT_MARK_MM, type PrintedFilm } from "./printed.ts";

/** Handle length of a quarter circle of radius 1. */
const KAPPA = 0.5522847498;

/** What is printed. */
export interface PrintedArt {
  /** Each spot's shapes, source pixels. */
  readonly shapes: readonly { readonly rgb: Rgb; readonly paths: readonly CubicPath[] }[];
  readonly mmPerPx: number;
  readonly bleedMm: number;
  /** The picture that lies over the shapes; null: they are the art. */
  readonly picture: Raster | null;
}

/** Bytes of printed.pdf: what lies beyond the outline first, then the art, then the marks. Colours are sRGB values. */
export async function writePrintedPdf(film: PrintedFilm, printed: PrintedArt, date: Date): Promise<Uint8Array> {
  const { widthMm, heightMm, art, marks } = film;
  const { shapes, mmPerPx, bleedMm, picture } = printed;
  const pdf = await startDocument("Printed film", date);
  const page = addPageMm(pdf, widthMm, heightMm);
  let content = millimetreSpace(heightMm, widthMm, false);
  const drawn = shapes.map(({ rgb, paths }) => ({ rgb, path: pathOperators(paths, mmPerPx, art.x, art.y) }));
  if (bleedMm > 0) {
    content += `1 j 1 J ${num(2 * bleedMm)} w\n`;
    for (const { rgb, path } of drawn) content += `${tone(rgb)} RG\n${path}\nS\n`;
  }
  for (const { rgb, path } of drawn) content += `${tone(rgb)} rg\n${path}\nf*\n`;
  if (picture) {
    const [width, height] = [picture.width * mmPerPx, picture.height * mmPerPx];
    // An image's unit square has y up.
    content += `q ${num(width)} 0 0 ${num(-height)} ${num(art.x)} ${num(art.y + height)} cm /Art Do Q\n`;
    setResources(pdf, page, { XObject: { Art: embedPicture(pdf, picture) } });
  }
  content += "0 g\n";
  for (const { x, y } of marks) content += `${disc(x, y, PRINT_MARK_MM / 2)} f\n`;
  setContent(pdf, page, content);
  return pdf.save();
}

/** A picture and how much of it is there, as image objects (ISO 32000-1, 8.9.5 and 11.6.5.3). */
function embedPicture({ context }: PDFDocument, { width, height, data }: Raster): PDFObject {
  const colour = new Uint8Array(width * height * 3);
  const there = new Uint8Array(width * height);
  for (let p = 0; p < there.length; p++) {
    for (let c = 0; c < 3; c++) colour[p * 3 + c] = data[p * 4 + c];
    there[p] = data[p * 4 + 3];
  }
  const image = (bytes: Uint8Array, space: string, rest: Record<string, PDFObject>) =>
    context.register(
      context.flateStream(bytes, {
        ...{ Type: "XObject", Subtype: "Image", Width: width, Height: height, BitsPerComponent: 8 },
        ...{ ColorSpace: PDFName.of(space), ...rest },
      }),
    );
  return image(colour, "DeviceRGB", { SMask: image(there, "DeviceGray", {}) });
}

const num = (value: number) => trimNumber(value, 4);

const tone = (rgb: Rgb) => rgb.map((channel) => trimNumber(channel / 255, 4)).join(" ");

function disc(x: number, y: number, r: number): string {
  const k = r * KAPPA;
  const arc = (...values: number[]) => `${values.map(num).join(" ")} c`;
  return [
    `${num(x + r)} ${num(y)} m`,
    arc(x + r, y + k, x + k, y + r, x, y + r),
    arc(x - k, y + r, x - r, y + k, x - r, y),
    arc(x - r, y - k, x - k, y - r, x, y - r),
    arc(x + k, y - r, x + r, y - k, x + r, y),
    "h",
  ].join(" ");
}
