// Demo job 3: a village bakery's aprons. A JPEG saved off an old web page: small, saved again and again, rings and
// blocks around every edge.
import sharp from "sharp";
import { letterArc, letterLine } from "./lettering.ts";

const CRUST = "#9c5a24";
const DOUGH = "#e9c98f";
const BROWN = "#4a2a17";

function bakerySvg(): string {
  const ear = (x: number, turn: number) => {
    const grains = Array.from({ length: 7 }, (_, i) => {
      const y = -i * 26;
      return `<ellipse cx="-13" cy="${y}" rx="8" ry="17" transform="rotate(-28 -13 ${y})"/><ellipse cx="13" cy="${y}" rx="8" ry="17" transform="rotate(28 13 ${y})"/>`;
    }).join("");
    return `<g transform="translate(${x} 560) rotate(${turn})" fill="${CRUST}">${grains}<ellipse cx="0" cy="-188" rx="8" ry="18"/><path d="M-3 0L-2 120H2L3 0Z"/></g>`;
  };
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 800 800">
<rect width="800" height="800" fill="#fff"/>
${ear(180, -24)}${ear(620, 24)}
<path d="M220 520C200 380 300 300 400 300S600 380 580 520C570 570 230 570 220 520Z" fill="${CRUST}"/>
<path d="M236 508C222 394 310 322 400 322S578 394 564 508C556 544 244 544 236 508Z" fill="${DOUGH}"/>
<path d="M290 400q40 -30 66 6l-16 16q-26 -24 -50 -22ZM372 372q44 -32 70 6l-16 16q-28 -24 -54 -22ZM456 398q40 -26 62 10l-16 14q-24 -22 -46 -24Z" fill="${BROWN}"/>
<g fill="${BROWN}">${letterArc("HEARTH & RYE", "DejaVuSerif-Bold", 84, [400, 470, 290], "top", 8)}
${letterLine("village bakery", "DejaVuSerif-Bold", 52, 400, 668, 2)}
${letterLine("OPEN AT FIVE, SOLD OUT BY NINE", "DejaVuSans-Bold", 21, 400, 716, 2)}</g>
</svg>`;
}

/** JPEG, 360 px, after three generations of saving. */
export async function drawBakery(): Promise<Buffer> {
  let picture = await sharp(Buffer.from(bakerySvg()), { density: 72 * (360 / 800) })
    .flatten({ background: "#fff" })
    .jpeg({ quality: 62 })
    .toBuffer();
  for (const quality of [55, 68]) picture = await sharp(picture).jpeg({ quality }).toBuffer();
  return picture;
}
