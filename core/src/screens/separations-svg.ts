// separations.svg: the plates with traps and base, one group each, first printed first.
import { formatHex } from "../colour/index.ts";
import { escapeXml, SVG_DIGITS, svgRoot } from "../formats/index.ts";
import { pathToSvg } from "../geometry/index.ts";
import type { Separation } from "./separate.ts";

/** Text of separations.svg. */
export function writeSeparationsSvg(separation: Separation): string {
  let body = "";
  for (const plate of separation.plates) {
    const hex = formatHex(plate.rgb);
    body +=
      `<g data-plate="${escapeXml(plate.name)}" data-kind="${plate.kind}" data-order="${plate.order}" data-hex="${hex}" fill="${hex}">\n` +
      `<path d="${plate.region.map((path) => pathToSvg(path, SVG_DIGITS)).join("")}"/>\n</g>\n`;
  }
  return svgRoot(separation.widthPx, separation.heightPx, separation.mmPerPx, body, ' fill-rule="evenodd"');
}
