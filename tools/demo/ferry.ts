// Demo job 1: an island ferry's crew shirt. Flat logo in six colours with lettering that is a few pixels high, a
// hair-thin rope line, and two near blues of very different area: what a careless palette loses.
import sharp from "sharp";
import { letterArc, letterLine } from "./lettering.ts";

const NAVY = "#14304f";
const SEA = "#1f7a8c";
const FOAM = "#f2efe4";
const RED = "#d8412f";
const SUN = "#f2b134";
const SEA_LIGHT = "#58a6b0";

const rays = Array.from({ length: 9 }, (_, i) => {
  const a = (-70 + i * 17.5) * (Math.PI / 180);
  const p = (r: number, w: number) => `${500 + Math.sin(a + w) * r} ${330 - Math.cos(a + w) * r}`;
  return `<path d="M${p(60, -0.02)}L${p(225, -0.055)}L${p(225, 0.055)}L${p(60, 0.02)}Z"/>`;
}).join("");

const tern = `<path d="M640 300q40 -38 98 -44q-30 22 -44 44q44 -10 84 6q-52 0 -78 22q-26 18 -66 10q-22 -4 -34 -18q22 -4 40 -20Z"/>`;

/** The art as SVG, 1000 units square. */
export function ferrySvg(): string {
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 1000 1000">
<rect width="1000" height="1000" fill="#ffffff"/>
<circle cx="500" cy="500" r="470" fill="${NAVY}"/>
<circle cx="500" cy="500" r="362" fill="${FOAM}"/>
<g fill="${SUN}">${rays}</g>
<path d="M448 640L468 372H532L552 640Z" fill="${RED}"/>
<path d="M462.5 446H537.500L541 500H458.500ZM454.500 553H545.500L549 604H451Z" fill="${FOAM}"/>
<path d="M456 372H544V352H456ZM470 352H530V306H470ZM464 306H536L500 268Z" fill="${NAVY}"/>
<rect x="484" y="312" width="32" height="34" fill="${SUN}"/>
<path d="M170 640Q250 600 330 640T490 640T650 640T830 640L812 690Q690 860 500 862Q310 860 188 690Z" fill="${SEA}"/>
<path d="M216 716q70 -30 140 0t140 0t140 0t148 -4l-16 26q-64 24 -132 -4q-70 -28 -140 2t-140 0q-56 -24 -108 2Z" fill="${SEA_LIGHT}"/>
<g fill="${FOAM}">${tern}</g>
<g fill="${NAVY}">${tern.replace('d="', 'transform="translate(196 214) scale(.62)" d="')}</g>
<circle cx="500" cy="500" r="452" fill="none" stroke="${SUN}" stroke-width="2.4" stroke-dasharray="9 5"/>
<g fill="${FOAM}">${letterArc("TERN ISLAND FERRY", "DejaVuSerif-Bold", 74, [500, 500, 388], "top", 5)}
${letterArc("CREW", "DejaVuSerif-Bold", 64, [500, 500, 436], "bottom", 14)}</g>
<g fill="${FOAM}">${letterLine("all hands on deck · since the last big tide", "DejaVuSans-Bold", 17, 500, 800)}</g>
</svg>`;
}

/** PNG as the client sent it: 1600 px, anti-aliased, on its white box. */
export async function drawFerry(): Promise<Buffer> {
  return sharp(Buffer.from(ferrySvg()), { density: 72 * 1.6 })
    .flatten({ background: "#fff" })
    .png()
    .toBuffer();
}
