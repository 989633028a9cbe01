// Demo job 4: a rowing club's kit. Art with soft gradients: a dawn sky and water that no handful of spots carries, with
// a crisp crew in front of it.
import sharp from "sharp";
import { letterLine } from "./lettering.ts";

function rowingSvg(): string {
  const rower = (x: number) =>
    `<g transform="translate(${x} 560)"><circle cx="0" cy="-74" r="15"/><path d="M-16 -54q22 -8 30 8l10 34l26 10l-3 12l-34 -8l-10 -20l-3 22l34 10q10 4 6 14h-50q-14 -2 -14 -16Z"/><path d="M18 -26L96 34L92 40L14 -18Z"/></g>`;
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 1000 820">
<defs>
<linearGradient id="sky" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="#27306b"/><stop offset=".55" stop-color="#d46a6a"/><stop offset="1" stop-color="#ffd27a"/></linearGradient>
<linearGradient id="water" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="#f0b06a"/><stop offset=".4" stop-color="#3f7f93"/><stop offset="1" stop-color="#12304a"/></linearGradient>
<radialGradient id="sun"><stop offset="0" stop-color="#fffbe0"/><stop offset="1" stop-color="#ffd27a" stop-opacity="0"/></radialGradient>
<clipPath id="shield"><path d="M60 40H940V420Q940 700 500 800Q60 700 60 420Z"/></clipPath>
</defs>
<g clip-path="url(#shield)">
<rect width="1000" height="600" fill="url(#sky)"/>
<circle cx="640" cy="540" r="220" fill="url(#sun)"/>
<path d="M0 548L150 470L260 520L420 452L560 530L760 478L1000 548V590H0Z" fill="#3b2f5c"/>
<rect y="580" width="1000" height="240" fill="url(#water)"/>
<g fill="#14161f">${[250, 370, 490, 610].map(rower).join("")}<path d="M120 588H860Q820 622 760 622H220Q160 622 120 588Z"/></g>
</g>
<path d="M60 40H940V420Q940 700 500 800Q60 700 60 420Z" fill="none" stroke="#14161f" stroke-width="16"/>
<g fill="#fff6d8">${letterLine("SALTMARSH", "DejaVuSansCondensed-Bold", 104, 500, 190, 10)}${letterLine("ROWING CLUB", "DejaVuSansCondensed-Bold", 58, 500, 262, 14)}</g>
</svg>`;
}

/** PNG with a transparent surround. */
export async function drawRowing(): Promise<Buffer> {
  return sharp(Buffer.from(rowingSvg()), { density: 72 * 1.2 })
    .png()
    .toBuffer();
}
