// shapes.svg: the planar map's shapes, one group per spot, at true size.
import { formatHex } from "../colour/index.ts";
import { isClosed, pathToSvg, trimNumber } from "../geometry/index.ts";
import { type ShapeDrawing, seamWidthPx } from "./shape-groups.ts";

/** Decimals of a coordinate in source pixels: a thousandth of a pixel is far below any press. */
export const SVG_DIGITS = 3;

/** How thick lines are that only guide a machine, mm. */
const LINE_MM = 0.1;

/** Text safe inside an XML attribute. */
export function escapeXml(text: string): string {
  return text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);
}

/** An SVG of the art's true size around a body in source pixels. */
export function svgRoot(widthPx: number, heightPx: number, mmPerPx: number, body: string, attributes: string): string {
  const mm = (px: number) => `${trimNumber(px * mmPerPx, 4)}mm`;
  return (
    `<?xml version="1.0" encoding="UTF-8"?>\n<svg xmlns="http://www.w3.org/2000/svg" width="${mm(widthPx)}" ` +
    `height="${mm(heightPx)}" viewBox="0 0 ${widthPx} ${heightPx}"${attributes}>\n${body}</svg>\n`
  );
}

/**
 * Text of shapes.svg. Neighbours share their boundaries exactly; before its shapes, each colour draws a thin line along its
 * seams with later colours, which cover that line's visible half (docs/decisions/0016).
 */
export function writeShapesSvg(drawing: ShapeDrawing): string {
  const { widthPx, heightPx, mmPerPx } = drawing;
  const width = trimNumber(seamWidthPx(drawing), 3);
  let body = "";
  for (const { spot, shapes, under, seams } of drawing.groups) {
    const hex = formatHex(spot.rgb);
    body += `<g data-spot="${escapeXml(spot.name)}" data-id="${spot.id}" data-role="${spot.role}" data-hex="${hex}" fill="${hex}">\n`;
    for (const path of under) body += `<path d="${pathToSvg(path, SVG_DIGITS)}"/>\n`;
    if (seams.length > 0) {
      const lines = seams.map((path) => pathToSvg(path, SVG_DIGITS, isClosed(path))).join("");
      body += `<path data-part="seams" fill="none" stroke="${hex}" stroke-width="${width}" d="${lines}"/>\n`;
    }
    for (const shape of shapes) body += `<path d="${shape.map((path) => pathToSvg(path, SVG_DIGITS)).join("")}"/>\n`;
    body += "</g>\n";
  }
  for (const { use, rgb, lines } of drawing.lines ?? []) {
    const d = lines.map((path) => pathToSvg(path, SVG_DIGITS, isClosed(path))).join("");
    const thin = trimNumber(LINE_MM / mmPerPx, 3);
    body += `<g data-use="${use}" fill="none" stroke="${formatHex(rgb)}" stroke-width="${thin}"><path d="${d}"/></g>\n`;
  }
  for (const { use, rgb, sizePx, words } of drawing.words ?? []) {
    const texts = words.map(({ text, x, y, turnDeg }) => {
      const place = [x, y].map((px) => trimNumber(px, SVG_DIGITS)).join(" ");
      return `<text transform="translate(${place}) rotate(${turnDeg})">${escapeXml(text)}</text>`;
    });
    body += `<g data-use="${use}" fill="${formatHex(rgb)}" font-family="sans-serif" font-size="${trimNumber(sizePx, 3)}">${texts.join("")}</g>\n`;
  }
  return svgRoot(widthPx, heightPx, mmPerPx, body, ' fill-rule="evenodd"');
}
