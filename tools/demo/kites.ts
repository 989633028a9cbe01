// Demo job 2: a kite festival. A marker drawing scanned crooked: uneven strokes, paper grain, grey shadow along two
// edges of the scan, and the paper itself not white.
import sharp from "sharp";
import { letterLine } from "./lettering.ts";
import { makeRandom } from "./random.ts";

const INK = "#26211f";

function kite(x: number, y: number, size: number, turn: number, fill: string): string {
  return `<g transform="translate(${x} ${y}) rotate(${turn}) scale(${size})">
<path d="M0 -60L42 0L0 84L-42 0Z" fill="${fill}" stroke="${INK}" stroke-width="7" stroke-linejoin="round"/>
<path d="M-42 0L42 1M0 -60L1 84" stroke="${INK}" stroke-width="5" fill="none"/>
<path d="M0 84q26 26 2 50t6 52q18 20 -4 42" stroke="${INK}" stroke-width="5" fill="none" stroke-linecap="round"/>
<path d="M2 134l-18 -10v20l36 -18v20ZM8 186l-18 -10v20l36 -18v20Z" fill="${fill}" stroke="${INK}" stroke-width="3.5"/></g>`;
}

function sheetSvg(): string {
  const wind = [180, 236, 292]
    .map(
      (y, i) =>
        `<path d="M${70 + i * 40} ${y}q80 -44 150 -4t150 -10q46 -22 26 -52t-52 4" stroke="#3d6fb4" stroke-width="${11 - i * 2}" fill="none" stroke-linecap="round"/>`,
    )
    .join("");
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 900 1150" width="900" height="1150">
${wind}
${kite(610, 300, 1.7, 18, "#e2483d")}
${kite(300, 520, 1.35, -22, "#f0b429")}
${kite(690, 720, 1, 32, "#3f9b5b")}
<path d="M90 938q180 -74 360 -22t380 -22" stroke="${INK}" stroke-width="9" fill="none" stroke-linecap="round"/>
<g fill="${INK}" transform="rotate(-2 450 1040)">${letterLine("KITE SUNDAY", "DejaVuSansCondensed-Bold", 104, 450, 1060, 6)}</g>
</svg>`;
}

/** JPEG of the scanner: turned 3.4 degrees, shadowed, grainy. */
export async function drawKites(): Promise<Buffer> {
  const paper = "#f1ede2";
  const sheet = await sharp(Buffer.from(sheetSvg()), { density: 92 }).flatten({ background: paper }).png().toBuffer();
  const turned = await sharp(sheet)
    .rotate(3.4, { background: "#8d8b88" })
    .extend({ top: 26, left: 40, right: 18, bottom: 20, background: "#8d8b88" })
    .png()
    .toBuffer();
  const { data, info } = await sharp(turned).removeAlpha().raw().toBuffer({ resolveWithObject: true });
  const random = makeRandom(20261);
  const { width, height } = info;
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = (y * width + x) * 3;
      // The lid was not quite closed: light falls off towards the left and the top.
      const shade = 1 - 0.34 * Math.exp(-x / 46) - 0.22 * Math.exp(-y / 38);
      const grain = (random() + random() + random() - 1.5) * 13;
      for (let c = 0; c < 3; c++) data[i + c] = Math.max(0, Math.min(255, (data[i + c] ?? 0) * shade + grain));
    }
  }
  return sharp(data, { raw: { width, height, channels: 3 } })
    .blur(0.6)
    .jpeg({ quality: 84 })
    .withMetadata({ density: 120 })
    .toBuffer();
}
