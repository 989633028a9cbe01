// shapes.svg: the planar map as abutting shapes, one group per spot, at true size.
import { formatHex } from "../colour/index.ts";
import { pathToSvg, trimNumber } from "../geometry/index.ts";
import type { Spot } from "../reduce/index.ts";
import type { Separation } from "../separate/index.ts";
import { facePaths, type PlanarMap, underPaths } from "../trace/index.ts";

/** Decimals of a coordinate in source pixels: a thousandth of a pixel is far below any press. */
const DIGITS = 3;

/** Text safe inside an XML attribute. */
export function escapeXml(text: string): string {
  return text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);
}

function svgRoot(widthPx: number, heightPx: number, mmPerPx: number, body: string, attributes: string): string {
  const mm = (px: number) => `${trimNumber(px * mmPerPx, 4)}mm`;
  return (
    `<?xml version="1.0" encoding="UTF-8"?>\n<svg xmlns="http://www.w3.org/2000/svg" width="${mm(widthPx)}" ` +
    `height="${mm(heightPx)}" viewBox="0 0 ${widthPx} ${heightPx}"${attributes}>\n${body}</svg>\n`
  );
}

/**
 * Text of shapes.svg. Neighbours share their boundaries exactly; edges are drawn without anti-aliasing, because renderers
 * blend each of two abutting edges with what is behind both and would show a hairline there (docs/decisions/0004).
 */
export function writeShapesSvg(map: PlanarMap, spots: readonly Spot[], mmPerPx: number): string {
  let body = "";
  // What runs under lines is drawn before them.
  const poured = new Set(map.underLines.map(({ spotId }) => spotId));
  const inOrder = [...spots.filter(({ id }) => poured.has(id)), ...spots.filter(({ id }) => !poured.has(id))];
  for (const spot of inOrder) {
    const faces = map.faces.filter((face) => face.spotId === spot.id);
    if (faces.length === 0) continue;
    const hex = formatHex(spot.rgb);
    body += `<g data-spot="${escapeXml(spot.name)}" data-id="${spot.id}" data-role="${spot.role}" data-hex="${hex}" fill="${hex}">\n`;
    for (const path of underPaths(map, spot.id)) body += `<path d="${pathToSvg(path, DIGITS)}"/>\n`;
    for (const face of faces)
      body += `<path d="${facePaths(map, face)
        .map((path) => pathToSvg(path, DIGITS))
        .join("")}"/>\n`;
    body += "</g>\n";
  }
  return svgRoot(map.width, map.height, mmPerPx, body, ' fill-rule="evenodd" shape-rendering="crispEdges"');
}

/** Text of separations.svg: the plates with traps and base, one group each, first printed first. */
export function writeSeparationsSvg(separation: Separation): string {
  let body = "";
  for (const plate of separation.plates) {
    const hex = formatHex(plate.rgb);
    body +=
      `<g data-plate="${escapeXml(plate.name)}" data-kind="${plate.kind}" data-order="${plate.order}" data-hex="${hex}" fill="${hex}">\n` +
      `<path d="${plate.region.map((path) => pathToSvg(path, DIGITS)).join("")}"/>\n</g>\n`;
  }
  return svgRoot(separation.widthPx, separation.heightPx, separation.mmPerPx, body, ' fill-rule="evenodd"');
}
