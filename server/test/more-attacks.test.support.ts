// More files that were made to take whoever opens them for good: what the trial of uploads sends beside the first list.
import { deflateSync, gzipSync } from "node:zlib";
import sharp from "sharp";
import { type Attack, chunkOf, pdfOf, pngOf, pngStart, svgOf } from "./attack.test.support.ts";

const times = (count: number, text: (i: number) => string) => Array.from({ length: count }, (_, i) => text(i)).join("");
const rect = '<rect width="400" height="400" fill="#c00"/>';
const xml = (text: string) => Buffer.from(text);
const long = times(100_000, (i) => `L${(i * 7919) % 400} ${(i * 104729) % 400}`);

/** What a renderer of drawings has to work out. */
const DRAWN: Readonly<Record<string, string>> = {
  "100,000 gradients, each made from the next": times(
    100_000,
    (i) => `<linearGradient id="g${i}" href="#g${i + 1}"/>`,
  ).concat('<rect width="400" height="400" fill="url(#g0)"/>'),
  "a gradient of itself": '<linearGradient id="g" href="#g"/><rect width="400" height="400" fill="url(#g)"/>',
  "a pattern of itself":
    '<pattern id="p" width="9" height="9"><rect width="9" height="9" fill="url(#p)"/></pattern><rect width="400" height="400" fill="url(#p)"/>',
  "a mask of itself": `<mask id="m"><g mask="url(#m)">${rect}</g></mask><g mask="url(#m)">${rect}</g>`,
  "a clip of itself": `<clipPath id="c" clip-path="url(#c)">${rect}</clipPath><g clip-path="url(#c)">${rect}</g>`,
  "a marker of itself":
    '<marker id="k"><path d="M0 0L9 9" marker-end="url(#k)"/></marker><path d="M0 0L9 9" marker-end="url(#k)"/>',
  "a filter that takes in itself": `<filter id="f"><feImage href="#s"/></filter><g id="s" filter="url(#f)">${rect}</g>`,
  "markers on 100,000 corners": `<marker id="k" markerWidth="9" markerHeight="9"><circle r="4"/></marker><path marker-mid="url(#k)" d="M0 0${long}"/>`,
  "symbols used eight times by the next, 7 deep": `${times(7, (i) => `<symbol id="y${i}">${i === 0 ? rect : `<use href="#y${i - 1}"/>`.repeat(8)}</symbol>`)}<use href="#y6"/>`,
  "2 MB of text": `<text y="20">${"tide ".repeat(400_000)}</text>`,
  "letters 50,000 deep": `<text>${"<tspan>".repeat(50_000)}x${"</tspan>".repeat(50_000)}</text>`,
  "text along a path of 100,000 corners": `<path id="t" d="M0 0${long}"/><text><textPath href="#t">${"quay ".repeat(20_000)}</textPath></text>`,
  "a letter of a thousand kilometres": '<text font-size="1e9">T</text>',
  "dashes of a billionth": `<path fill="none" stroke="#000" stroke-dasharray="1e-9 1e-9" d="M0 0${long}"/>`,
  "a line a thousand kilometres wide": '<path stroke="#000" stroke-width="1e300" d="M0 0L9 9"/>',
  "round joins on 100,000 corners": `<path fill="none" stroke="#000" stroke-width="300" stroke-linejoin="round" d="M0 0${long}"/>`,
  "numbers beyond numbers": '<rect x="-1e308" y="1e308" width="1e308" height="1e308"/><circle r="NaN"/>',
  "a number of a million digits": `<path d="M0 0L${"9".repeat(1_000_000)} 1"/>`,
  "100,000 turns in one attribute": `<g transform="${"rotate(1) ".repeat(100_000)}">${rect}</g>`,
  "50,000 rules of style": `<style>${times(50_000, (i) => `.a${i} .b${i} > .c${i}{fill:red}`)}</style>${rect}`,
  "a rule of style 20,000 long": `<style>${"g ".repeat(20_000)}{fill:red}</style>${"<g>".repeat(200)}${rect}${"</g>".repeat(200)}`,
  "style from elsewhere": `<style>@import url("file:///etc/hostname");@import url("http://127.0.0.1:9/a.css");</style>${rect}`,
  "10 MB of nothing said": `<!--${"-x".repeat(5_000_000)}-->${rect}`,
  "10 MB of characters as they are": `<style><![CDATA[${" ".repeat(10_000_000)}]]></style>${rect}`,
  "growing by a million": `<filter id="f"><feMorphology operator="dilate" radius="1000000"/></filter><g filter="url(#f)">${rect}</g>`,
  "folding with a matrix of 200 x 200": `<filter id="f"><feConvolveMatrix order="200" kernelMatrix="${"1 ".repeat(40_000)}"/></filter><g filter="url(#f)">${rect}</g>`,
  "a thousand tiles of tiles": `<filter id="f">${"<feTile/><feOffset dx='1'/>".repeat(1000)}</filter><g filter="url(#f)">${rect}</g>`,
  "light from a thousand lamps": `<filter id="f">${'<feSpecularLighting specularExponent="128"><fePointLight x="9" y="9" z="9"/></feSpecularLighting>'.repeat(1000)}</filter><g filter="url(#f)">${rect}</g>`,
  "HTML within, 5,000 deep": `<foreignObject width="400" height="400">${"<div>".repeat(5000)}${"</div>".repeat(5000)}</foreignObject>`,
  "100,000 choices": `<switch>${'<g systemLanguage="xx"/>'.repeat(100_000)}${rect}</switch>`,
  "100,000 movements": `<rect width="9" height="9">${'<animate attributeName="x" to="9" dur="1s"/>'.repeat(100_000)}</rect>`,
  "30 MB of a picture that is none": `<image width="9" height="9" href="data:image/png;base64,${"A".repeat(30_000_000)}"/>`,
  "cut by 100,000 places": `<clipPath id="c">${times(100_000, (i) => `<rect x="${i % 400}" width="1" height="1"/>`)}</clipPath><g clip-path="url(#c)">${rect}</g>`,
  "a picture from this machine": '<image width="9" height="9" href="file:///etc/hostname"/>',
  "a part from elsewhere": '<use href="http://127.0.0.1:9/a.svg#p"/>',
};

/** What a reader of XML has to hold. */
const WRITTEN: Readonly<Record<string, () => Buffer>> = {
  "entities used ten times by the next, 9 deep": () =>
    xml(
      `<!DOCTYPE svg [<!ENTITY e0 "tide">${times(9, (i) => `<!ENTITY e${i + 1} "${`&e${i};`.repeat(10)}">`)}]><svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><text>&e9;</text></svg>`,
    ),
  "an entity that is a file of this machine": () =>
    xml(
      '<!DOCTYPE svg [<!ENTITY e SYSTEM "file:///etc/passwd">]><svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><text>&e;</text></svg>',
    ),
  "entities from elsewhere": () =>
    xml(
      '<!DOCTYPE svg [<!ENTITY % p SYSTEM "http://127.0.0.1:9/e.dtd">%p;]><svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>',
    ),
  "100,000 instructions": () =>
    xml(`<?xml version="1.0"?>${"<?x y?>".repeat(100_000)}<svg xmlns="http://www.w3.org/2000/svg"/>`),
  "50,000 namespaces": () =>
    xml(
      `<svg xmlns="http://www.w3.org/2000/svg" ${times(50_000, (i) => `xmlns:n${i}="u:${i}" `)} width="9" height="9"/>`,
    ),
  "a drawing of nothing by nothing": () =>
    xml('<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 1e-300 1e-300" width="1e-300" height="0"/>'),
  "a gigabyte of spaces, packed": () =>
    gzipSync(Buffer.concat([svgOf("").subarray(0, -6), Buffer.alloc(3e8, 32), xml("</svg>")]), { level: 1 }),
};

function pages(format: "tiff" | "gif", count: number): Buffer {
  if (format === "gif") {
    const frame = Buffer.from("21f9040000000000002c0000000001000100000202440100", "hex");
    return Buffer.concat([
      Buffer.from("47494638396101000100800000ff0000ffffff", "hex"),
      ...Array<Buffer>(count).fill(frame),
      Buffer.from(";"),
    ]);
  }
  // Directories that lead to the next, or round again.
  const directory = Buffer.alloc(6 * count + 8);
  directory.write("II*\0", 0, "latin1");
  directory.writeUInt32LE(8, 4);
  for (let i = 0; i < count; i++) directory.writeUInt32LE(i === count - 1 ? 8 : 8 + 6 * (i + 1), 8 + 6 * i + 2);
  return directory;
}

const PIXELS: Readonly<Record<string, () => Buffer | Promise<Buffer>>> = {
  "a PNG with 300 MB of words, packed": () =>
    Buffer.concat([
      pngStart(9, 9),
      chunkOf("zTXt", Buffer.concat([xml("Comment\0\0"), deflateSync(Buffer.alloc(3e8), { level: 1 })])),
      pngOf(9, 9).subarray(33),
    ]),
  "a PNG with a profile of 300 MB, packed": () =>
    Buffer.concat([
      pngStart(9, 9),
      chunkOf("iCCP", Buffer.concat([xml("p\0\0"), deflateSync(Buffer.alloc(3e8), { level: 1 })])),
      pngOf(9, 9).subarray(33),
    ]),
  "a PNG in 500,000 pieces": () =>
    Buffer.concat([pngStart(9, 9), ...Array<Buffer>(500_000).fill(chunkOf("IDAT", Buffer.alloc(0)))]),
  "a PNG with more pixels than it says": () => pngOf(1000, 10, 1_000_000),
  "a PNG without an end": () => pngOf(7000, 8000).subarray(0, -20),
  "a GIF of 65,535 x 65,535": () =>
    Buffer.from("474946383961ffffffff800000ff0000ffffff2c00000000ffffffff0002024401003b", "hex"),
  "a GIF of 200,000 pictures": () => pages("gif", 200_000),
  "a TIFF whose pages go round": () => pages("tiff", 3),
  "a TIFF of 100,000 pages": () => pages("tiff", 100_000),
  "a JPEG that says it is 65,500 x 65,500": async () => patched(await sampleOf("jpeg"), 0xffc0, 65_500),
  "a JPEG of 400 passes": async () => {
    const jpeg = await sharp(await sampleOf("png"))
      .jpeg({ progressive: true })
      .toBuffer();
    const first = jpeg.indexOf(Buffer.from("ffda", "hex"));
    return Buffer.concat([
      jpeg.subarray(0, -2),
      ...Array<Buffer>(400).fill(jpeg.subarray(first, -2)),
      jpeg.subarray(-2),
    ]);
  },
  "a JPEG with 20 MB of notes": async () => {
    const jpeg = await sampleOf("jpeg");
    const note = Buffer.concat([Buffer.from("ffedffff", "hex"), Buffer.alloc(65_533)]);
    return Buffer.concat([jpeg.subarray(0, 2), ...Array<Buffer>(300).fill(note), jpeg.subarray(2)]);
  },
  "a WebP that says it is 16,383 x 16,383": async () => {
    const webp = await sharp(await sampleOf("png"))
      .webp()
      .toBuffer();
    webp.writeUInt32LE(0x3fff3fff, 26);
    return webp;
  },
  "a BMP of 60,000 x 60,000": () => {
    const bmp = Buffer.alloc(64);
    bmp.write("BM", 0, "latin1");
    for (const [at, value] of [
      [2, 64],
      [10, 54],
      [14, 40],
      [18, 60_000],
      [22, 60_000],
    ] as const)
      bmp.writeUInt32LE(value, at);
    bmp.writeUInt16LE(1, 26);
    bmp.writeUInt16LE(24, 28);
    return bmp;
  },
  "an AVIF cut in the middle": async () => {
    const avif = await sharp(await sampleOf("png"))
      .avif()
      .toBuffer();
    return avif.subarray(0, avif.length / 2);
  },
};

function sampleOf(format: "png" | "jpeg"): Promise<Buffer> {
  return sharp({ create: { width: 640, height: 480, channels: 3, background: "#1f7a8c" } })
    .toFormat(format)
    .toBuffer();
}

/** A JPEG that says another size in its frame. */
function patched(jpeg: Buffer, marker: number, side: number): Buffer {
  const sign = Buffer.alloc(2);
  sign.writeUInt16BE(marker);
  const at = jpeg.indexOf(sign);
  jpeg.writeUInt16BE(side, at + 5);
  jpeg.writeUInt16BE(side, at + 7);
  return jpeg;
}

/** A stream of a PDF, packed so often. */
function packedPdf(content: Buffer, often: number): Buffer {
  let packed = content;
  for (let i = 0; i < often; i++) packed = deflateSync(packed, { level: i === 0 ? 1 : 9 });
  const filters = "/FlateDecode ".repeat(often);
  const parts = pdfOf("@@", "", "")
    .toString("latin1")
    .replace(`/Length 2`, `/Length ${packed.length} /Filter [${filters}]`);
  const [head = "", tail = ""] = parts.split("@@");
  return Buffer.concat([Buffer.from(head, "latin1"), packed, Buffer.from(tail, "latin1")]);
}

const PRINTED: Readonly<Record<string, () => Buffer>> = {
  "a PDF whose pages are its pages": () =>
    xml(
      "%PDF-1.7\n1 0 obj << /Type /Catalog /Pages 2 0 R >> endobj\n2 0 obj << /Type /Pages /Kids [2 0 R 2 0 R] /Count 99 >> endobj\ntrailer << /Root 1 0 R >>\n%%EOF",
    ),
  "a PDF that says it has a million pages": () =>
    xml(pdfOf("0 0 9 9 re f", "", "").toString().replace("/Count 1", "/Count 1000000")),
  "a PDF page of 300 MB of spaces, packed": () => packedPdf(Buffer.alloc(3e8, 32), 1),
  "a PDF page packed six times": () => packedPdf(Buffer.alloc(1e8, 32), 6),
  "a PDF pattern of itself": () =>
    pdfOf(
      "/Pattern cs /P scn 0 0 600 600 re f",
      "/Pattern << /P 5 0 R >>",
      "5 0 obj << /Type /Pattern /PatternType 1 /PaintType 1 /TilingType 1 /BBox [0 0 1 1] /XStep 1 /YStep 1 /Resources << /Pattern << /P 5 0 R >> >> /Length 33 >> stream\n/Pattern cs /P scn 0 0 600 600 re f\nendstream endobj",
    ),
  "a PDF pattern of tiles of a thousandth": () =>
    pdfOf(
      "/Pattern cs /P scn 0 0 600 600 re f",
      "/Pattern << /P 5 0 R >>",
      "5 0 obj << /Type /Pattern /PatternType 1 /PaintType 1 /TilingType 1 /BBox [0 0 1 1] /XStep .001 /YStep .001 /Resources << >> /Length 10 >> stream\n0 0 1 1 re f\nendstream endobj",
    ),
  "a PDF picture of 60,000 x 60,000": () =>
    pdfOf(
      "/I Do",
      "/XObject << /I 5 0 R >>",
      "5 0 obj << /Type /XObject /Subtype /Image /Width 60000 /Height 60000 /BitsPerComponent 1 /ColorSpace /DeviceGray /Length 1 >> stream\n0\nendstream endobj",
    ),
  "a PDF of 3,000 groups in each other": () =>
    pdfOf(
      "/F0 Do",
      "/XObject << /F0 10 0 R >>",
      times(
        3000,
        (i) =>
          `${i + 10} 0 obj << /Type /XObject /Subtype /Form /BBox [0 0 600 600] /Group << /S /Transparency >> /Resources << /XObject << /F0 ${i + 11} 0 R >> >> /Length 6 >> stream\n/F0 Do\nendstream endobj\n`,
      ),
    ),
  "a PDF of 500,000 saved states": () => pdfOf("q ".repeat(500_000), "", ""),
  "a PDF of dashes of a millionth": () => pdfOf("[.000001] 0 d 9 w 0 0 m 600 600 l S ".repeat(300), "", ""),
};

export const MORE_ATTACKS: readonly { readonly name: string; bytes(): Buffer | Promise<Buffer> }[] = [
  ...Object.entries(DRAWN).map(([name, inside]): Attack => ({ name, bytes: () => svgOf(inside) })),
  ...[WRITTEN, PIXELS, PRINTED].flatMap((all) => Object.entries(all).map(([name, bytes]) => ({ name, bytes }))),
];
