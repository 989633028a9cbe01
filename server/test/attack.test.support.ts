// Files that were made, or happen, to take whoever opens them for good. Each is small, and none is anything but a file.
import { crc32, deflateSync } from "node:zlib";

export interface Attack {
  readonly name: string;
  bytes(): Buffer;
}

export const svgOf = (inside: string, size = 400) =>
  Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="${size}" height="${size}" viewBox="0 0 ${size} ${size}">${inside}</svg>`,
  );
const times = (count: number, text: (i: number) => string) => Array.from({ length: count }, (_, i) => text(i)).join("");
const rect = '<rect width="400" height="400" fill="#c00"/>';

/** A chunk of a PNG. */
export function chunkOf(type: string, data: Buffer): Buffer {
  const body = Buffer.concat([Buffer.from(type, "latin1"), data]);
  const frame = Buffer.alloc(8);
  frame.writeUInt32BE(data.length, 0);
  frame.writeUInt32BE(crc32(body), 4);
  return Buffer.concat([frame.subarray(0, 4), body, frame.subarray(4)]);
}

/** The beginning of a PNG of one bit to the pixel: 33 bytes. */
export function pngStart(width: number, height: number): Buffer {
  const header = Buffer.alloc(13);
  header.writeUInt32BE(width, 0);
  header.writeUInt32BE(height, 4);
  header[8] = 1;
  return Buffer.concat([Buffer.from("89504e470d0a1a0a", "hex"), chunkOf("IHDR", header)]);
}

/** A PNG of one bit to the pixel that says it is so large; its pixels are packed to nothing. */
export function pngOf(width: number, height: number, rows = height): Buffer {
  const pixels = deflateSync(Buffer.alloc(Math.min(2e8, rows * (1 + Math.ceil(width / 8)))));
  return Buffer.concat([pngStart(width, height), chunkOf("IDAT", pixels), chunkOf("IEND", Buffer.alloc(0))]);
}

/** Masks, patterns, filters ... each used twice by the next. */
function doubling(element: string, attribute: string, deep: number): Buffer {
  const use = (i: number) => `<rect width="400" height="400" fill="#fff" ${attribute}="url(#m${i})"/>`;
  const one = (i: number) =>
    `<${element} id="m${i}" width="400" height="400" patternUnits="userSpaceOnUse">${i === 0 ? rect : use(i - 1) + use(i - 1)}</${element}>`;
  return svgOf(`<defs>${times(deep, one)}</defs>${use(deep - 1)}`);
}

const nested = (open: string, close: string, count: number, size = 400) =>
  svgOf(`${open.repeat(count)}${rect}${close.repeat(count)}`, size);

export const ATTACKS: readonly Attack[] = [
  { name: "masks used twice by the next, 20 deep", bytes: () => doubling("mask", "mask", 20) },
  { name: "patterns used twice by the next, 20 deep", bytes: () => doubling("pattern", "fill", 20) },
  { name: "clips used twice by the next, 20 deep", bytes: () => doubling("clipPath", "clip-path", 20) },
  {
    name: "parts used ten times by the next, 9 deep",
    bytes: () =>
      svgOf(
        `<defs><g id="p0">${rect}</g>${times(9, (i) => `<g id="p${i + 1}">${`<use href="#p${i}"/>`.repeat(10)}</g>`)}</defs><use href="#p9"/>`,
      ),
  },
  {
    name: "a million points on a path",
    bytes: () =>
      svgOf(
        `<path stroke="#000" stroke-width="9" d="M0 0${times(1_000_000, (i) => `L${(i * 7919) % 400} ${(i * 104729) % 400}`)}"/>`,
      ),
  },
  { name: "250 half-transparent groups in each other", bytes: () => nested('<g opacity=".9">', "</g>", 250, 2400) },
  { name: "200 filters in each other", bytes: () => nested('<g filter="url(#f)">', "</g>", 200, 2400) },
  {
    name: "half-transparent groups by a style sheet",
    bytes: () => svgOf(`<style>.a{opacity:.9}</style>${'<g class="a">'.repeat(240)}${rect}${"</g>".repeat(240)}`, 2400),
  },
  { name: "groups 100,000 deep", bytes: () => nested("<g>", "</g>", 100_000) },
  { name: "a use of itself", bytes: () => svgOf(`<g id="a"><use href="#a"/>${rect}</g><use href="#a"/>`) },
  {
    name: "a drawing of 1 x 100,000,000",
    bytes: () =>
      Buffer.from(
        '<svg xmlns="http://www.w3.org/2000/svg" width="1" height="100000000"><rect width="1" height="9" fill="#c00"/></svg>',
      ),
  },
  { name: "href= and 2 MB of spaces", bytes: () => svgOf(`<a href=${" ".repeat(2_000_000)}"x"/>`) },
  { name: "a name of 2 MB", bytes: () => svgOf(`<${"a".repeat(2_000_000)}/>`) },
  { name: "100,000 attributes", bytes: () => svgOf(`<g ${times(100_000, (i) => `a${i}="1" `)}/>`) },
  {
    name: "a blur of the whole picture, 400 times",
    bytes: () =>
      svgOf(
        `<filter id="f">${'<feGaussianBlur stdDeviation="300"/>'.repeat(400)}</filter><g filter="url(#f)">${rect}</g>`,
        2400,
      ),
  },
  {
    name: "turbulence of many octaves, 60 times",
    bytes: () =>
      svgOf(
        `<filter id="f"><feTurbulence numOctaves="200" baseFrequency="5"/></filter>${`<g filter="url(#f)">${rect}</g>`.repeat(60)}`,
        2400,
      ),
  },
  { name: "a PNG of 1 x 60,000,000", bytes: () => pngOf(1, 60_000_000) },
  { name: "a PNG of 60,000,000 x 1", bytes: () => pngOf(60_000_000, 1) },
  { name: "a PNG that says it is 60,000 x 60,000", bytes: () => pngOf(60_000, 60_000, 9) },
  {
    name: "a picture in a drawing that says it is 30,000 x 30,000",
    bytes: () =>
      svgOf(
        `<image width="400" height="400" href="data:image/png;base64,${pngOf(30_000, 30_000).toString("base64")}"/>`,
      ),
  },
  {
    name: "an SVG in UTF-7",
    bytes: () =>
      Buffer.from(
        '<?xml version="1.0" encoding="UTF-7"?><svg xmlns="http://www.w3.org/2000/svg" width="9" height="9">+ADw-script/+AD4-</svg>',
      ),
  },
  {
    name: "a PDF whose page draws itself for ever",
    bytes: () =>
      pdfOf(
        "/F Do",
        "/XObject << /F 5 0 R >>",
        "5 0 obj << /Type /XObject /Subtype /Form /BBox [0 0 9 9] /Resources << /XObject << /F 6 0 R /G 6 0 R >> >> /Length 11 >> stream\n/F Do /G Do\nendstream endobj\n6 0 obj << /Type /XObject /Subtype /Form /BBox [0 0 9 9] /Resources << /XObject << /F 5 0 R /G 5 0 R >> >> /Length 11 >> stream\n/F Do /G Do\nendstream endobj",
      ),
  },
  {
    name: "a PDF page of a million strokes",
    bytes: () =>
      pdfOf(
        times(1_000_000, (i) => `${i % 600} 0 m 0 ${i % 601} l S `),
        "",
        "",
      ),
  },
  { name: "a PDF page 14,000 in wide", bytes: () => pdfOf("0 0 9 9 re f", "", "", "0 0 1008000 9") },
];

/** A PDF of one page with this content. */
export function pdfOf(content: string, resources: string, objects: string, box = "0 0 600 600"): Buffer {
  return Buffer.from(`%PDF-1.7
1 0 obj << /Type /Catalog /Pages 2 0 R >> endobj
2 0 obj << /Type /Pages /Kids [3 0 R] /Count 1 >> endobj
3 0 obj << /Type /Page /Parent 2 0 R /MediaBox [${box}] /Contents 4 0 R /Resources << ${resources} >> >> endobj
4 0 obj << /Length ${content.length} >> stream
${content}
endstream endobj
${objects}
trailer << /Root 1 0 R >>
%%EOF`);
}

/** Elements within each other, as a file of stock. */
export const nestedXml = (deep: number) =>
  Buffer.from(`<?xml version="1.0"?>${"<a>".repeat(deep)}${"</a>".repeat(deep)}`);
