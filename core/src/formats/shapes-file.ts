// Shapes in any of the formats they are given out in.
import { later } from "../later/index.ts";
import { oneColour, type ShapeDrawing } from "./shape-groups.ts";
import { writeShapesDxf } from "./shapes-dxf.ts";
import { writeShapesSvg } from "./shapes-svg.ts";

// They write with the PDF library, which is larger than all the rest.
const eps = later(() => import("./shapes-eps.ts"));
const pdf = later(() => import("./shapes-pdf.ts"));

export const SHAPE_FORMATS = ["svg", "pdf", "eps", "dxf"] as const;
export type ShapeFormat = (typeof SHAPE_FORMATS)[number];

export interface ShapeFile {
  readonly name: string;
  readonly bytes: Uint8Array;
}

/** One file of all colours, or one for each, all on the same page: "shapes.svg", or "shapes-1-harbour-blue.svg" and so on. */
export async function writeShapeFiles(
  drawing: ShapeDrawing,
  format: ShapeFormat,
  isPerColour: boolean,
  date: Date,
): Promise<ShapeFile[]> {
  if (!isPerColour) return [{ name: `shapes.${format}`, bytes: await write(drawing, format, date) }];
  const files: ShapeFile[] = [];
  for (const [i, group] of drawing.groups.entries())
    files.push({
      name: `shapes-${i + 1}-${plainName(group.spot.name)}.${format}`,
      bytes: await write(oneColour(drawing, group), format, date),
    });
  return files;
}

async function write(drawing: ShapeDrawing, format: ShapeFormat, date: Date): Promise<Uint8Array> {
  if (format === "pdf") return (await pdf()).writeShapesPdf(drawing, date);
  const writeText =
    format === "eps" ? (await eps()).writeShapesEps : { svg: writeShapesSvg, dxf: writeShapesDxf }[format];
  return new TextEncoder().encode(writeText(drawing));
}

/** A name that any file system takes. */
function plainName(name: string): string {
  const plain = name
    .normalize("NFKC")
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, "-");
  return plain.replace(/^-+|-+$/g, "").slice(0, 40) || "colour";
}
