// shapes.eps: Encapsulated PostScript (Adobe, PostScript Language Reference, third edition, with the EPSF 3.0 and document
// structuring conventions), every colour a Separation (section 4.8.4).
import { trimNumber } from "../geometry/index.ts";
import { PT_PER_MM, pathOperators } from "../pdf/index.ts";
import { type ShapeDrawing, seamWidthPx } from "./shape-groups.ts";

/** The operators that paths are written with are PDF's; here they are PostScript's. */
const PROLOGUE =
  "/m {moveto} bind def /l {lineto} bind def /c {curveto} bind def /h {closepath} bind def\n" +
  "/f* {eofill} bind def /S {stroke} bind def /w {setlinewidth} bind def\n";

/** Text of shapes.eps: ASCII, one page whose bounding box is the picture's at physical size. */
export function writeShapesEps(drawing: ShapeDrawing): string {
  const { widthPx, heightPx, mmPerPx, groups } = drawing;
  const widthPt = widthPx * mmPerPx * PT_PER_MM;
  const heightPt = heightPx * mmPerPx * PT_PER_MM;
  const n = (value: number) => trimNumber(value, 4);
  let out =
    "%!PS-Adobe-3.0 EPSF-3.0\n%%Creator: Plain Palette\n%%Title: (Shapes)\n%%LanguageLevel: 2\n%%Pages: 1\n" +
    `%%BoundingBox: 0 0 ${Math.ceil(widthPt)} ${Math.ceil(heightPt)}\n` +
    `%%HiResBoundingBox: 0 0 ${n(widthPt)} ${n(heightPt)}\n%%EndComments\n` +
    `%%BeginProlog\n10 dict begin\n${PROLOGUE}%%EndProlog\n%%Page: 1 1\ngsave\n` +
    `${trimNumber(PT_PER_MM, 8)} -${trimNumber(PT_PER_MM, 8)} scale 0 ${n(-heightPx * mmPerPx)} translate\n` +
    `${n(seamWidthPx(drawing) * mmPerPx)} w\n`;
  for (const { spot, shapes, under, seams } of groups) {
    const [r, g, b] = spot.rgb.map((channel) => n(1 - channel / 255));
    // The tint's three channels: 1 - t (1 - channel).
    const tint = `dup ${r} mul 1 exch sub exch dup ${g} mul 1 exch sub exch ${b} mul 1 exch sub`;
    out += `[/Separation ${stringOf(spot.name)} cvn /DeviceRGB {${tint}}] setcolorspace 1 setcolor\n`;
    for (const path of under) out += `${pathOperators([path], mmPerPx, 0, 0)}\nf*\n`;
    if (seams.length > 0) out += `${pathOperators(seams, mmPerPx, 0, 0)}\nS\n`;
    for (const shape of shapes) out += `${pathOperators(shape, mmPerPx, 0, 0)}\nf*\n`;
  }
  return `${out}grestore end\nshowpage\n%%EOF\n`;
}

/** A PostScript string of UTF-8 bytes, all but letters, digits and spaces as octal. */
function stringOf(text: string): string {
  const bytes = new TextEncoder().encode(text);
  const escaped = Array.from(bytes, (byte) =>
    /[A-Za-z0-9 ]/.test(String.fromCharCode(byte))
      ? String.fromCharCode(byte)
      : `\\${byte.toString(8).padStart(3, "0")}`,
  );
  return `(${escaped.join("")})`;
}
