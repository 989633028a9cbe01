// Demo job 5: a harbour pilots' badge for fleeces, made to be sewn: open fields, columns of a few millimetres, lettering that a
// needle can write.
import sharp from "sharp";
import { letterArc, letterLine } from "./lettering.ts";

const SLATE = "#4a525c";
const SALT = "#fbfaf5";
const OILSKIN = "#f2b134";
const TEAL = "#1f7a8c";
const RED = "#d8412f";

/** The badge as SVG, 1000 units square. */
function pilotsSvg(): string {
  const wave = (y: number, tone: string) =>
    `<path d="M188 ${y}q78 -52 156 0t156 0t156 0t156 0v44q-78 52 -156 0t-156 0t-156 0t-156 0Z" fill="${tone}"/>`;
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 1000 1000">
<circle cx="500" cy="500" r="480" fill="${OILSKIN}"/>
<circle cx="500" cy="500" r="452" fill="${SLATE}"/>
<circle cx="500" cy="500" r="310" fill="${SALT}"/>
<path d="M500 236L574 316H426Z" fill="${RED}"/>
<path d="M440 334H560V500H440Z" fill="${OILSKIN}"/>
<path d="M416 334H440V500H416ZM560 334H584V500H560ZM488 334H512V500H488Z" fill="${SLATE}"/>
<path d="M404 514H596L620 574H380Z" fill="${RED}"/>
${wave(620, TEAL)}
<path d="M312 726q47 -40 94 0t94 0t94 0t94 0v40q-47 40 -94 0t-94 0t-94 0t-94 0Z" fill="${TEAL}"/>
<g fill="${SALT}">${letterArc("LANTERN QUAY", "DejaVuSans-Bold", 92, [500, 500, 352], "top", 12)}
${letterArc("PILOTS", "DejaVuSans-Bold", 92, [500, 500, 420], "bottom", 20)}</g>
<g fill="${OILSKIN}">${letterLine("•", "DejaVuSans-Bold", 110, 118, 560)}${letterLine("•", "DejaVuSans-Bold", 110, 882, 560)}</g>
</svg>`;
}

/** PNG with a transparent surround. */
export async function drawPilots(): Promise<Buffer> {
  return sharp(Buffer.from(pilotsSvg()), { density: 72 * 1.2 })
    .png()
    .toBuffer();
}
