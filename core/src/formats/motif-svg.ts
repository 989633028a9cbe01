// A motif as one SVG at its true size, with its facts in the metadata; and such a file read again, to the last digit.
import { pathToSvg, trimNumber } from "../geometry/index.ts";
import { type Motif, type MotifFacts, motifFactsSchema, motifSchema } from "../motif/index.ts";
import { z } from "../zod/index.ts";
import { escapeXml } from "./shapes-svg.ts";

/** Decimals of a millimetre that motifs are kept with. */
const DIGITS = 5;

const headSchema = z.object({
  format: z.literal(1),
  facts: motifFactsSchema,
  spots: z.array(z.object({ name: z.string(), hex: z.string(), stock: z.unknown() })),
});

/** A motif with how it is called and filed. */
export interface FiledMotif {
  readonly motif: Motif;
  readonly facts: MotifFacts;
}

/** Text of the SVG: a group for each spot, a path for each shape (even-odd), millimetres. */
export function writeMotifSvg({ motif, facts }: FiledMotif): string {
  const { format, widthMm, heightMm, spots } = motif;
  const head = { format, facts, spots: spots.map(({ name, hex, stock }) => ({ name, hex, stock })) };
  return svgOf(motif, `<metadata>${escapeXml(JSON.stringify(head))}</metadata>\n`, [widthMm, heightMm]);
}

/** Text of an SVG that shows a motif and says nothing else. */
export function drawMotifSvg(motif: Motif): string {
  return svgOf(motif, "", [motif.widthMm, motif.heightMm]);
}

function svgOf({ spots }: Motif, head: string, size: readonly [number, number]): string {
  const [width, height] = size.map((mm) => trimNumber(mm, DIGITS));
  const groups = spots.map(({ name, hex, shapes }) => {
    const paths = shapes.map((shape) => `<path d="${shape.map(pathText).join("")}"/>\n`);
    return `<g data-spot="${escapeXml(name)}" fill="${hex}">\n${paths.join("")}</g>\n`;
  });
  return (
    `<?xml version="1.0" encoding="UTF-8"?>\n<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" ` +
    `height="${height}mm" viewBox="0 0 ${width} ${height}" fill-rule="evenodd">\n${head}${groups.join("")}</svg>\n`
  );
}

function pathText(numbers: readonly number[]): string {
  return pathToSvg(Float64Array.from(numbers), DIGITS);
}

/**
 * A motif from the text of its SVG; null where that is no such file, or is not just as it was written: then it is a drawing
 * like any other.
 */
export function readMotifSvg(text: string): FiledMotif | null {
  const read = parse(text);
  return read && writeMotifSvg(read) === text ? read : null;
}

function parse(text: string): FiledMotif | null {
  const size = /<svg [^>]*width="([\d.]+)mm" height="([\d.]+)mm"/.exec(text);
  const metadata = /<metadata>([^<]*)<\/metadata>/.exec(text);
  if (!size || !metadata) return null;
  const head = headSchema.safeParse(parseJson(unescapeXml(metadata[1])));
  if (!head.success) return null;
  const { facts, spots } = head.data;
  const groups = text.split("<g ").slice(1);
  const motif = motifSchema.safeParse({
    ...{ format: 1, widthMm: Number(size[1]), heightMm: Number(size[2]) },
    spots: spots.map((spot, k) => ({
      ...spot,
      shapes: Array.from((groups[k] ?? "").matchAll(/<path d="([^"]*)"\/>/g), ([, d]) => readOutlines(d)),
    })),
  });
  return motif.success ? { motif: motif.data, facts } : null;
}

/** Outlines from path data as it is written here: M, L, C and Z with absolute numbers. */
function readOutlines(d: string): number[][] {
  return d
    .split("Z")
    .slice(0, -1)
    .map((outline) => {
      const path: number[] = [];
      for (const [, letter, list] of outline.matchAll(/([MLC])([^MLC]*)/g)) {
        const numbers = list.split(" ").map(Number);
        if (letter === "L") path.push(...path.slice(-2), ...numbers, ...numbers);
        else path.push(...numbers);
      }
      const [x, y] = path;
      // Closed by the line that is not written.
      if (path.at(-2) !== x || path.at(-1) !== y) path.push(...path.slice(-2), x, y, x, y);
      return path;
    });
}

function unescapeXml(text: string): string {
  return text.replace(/&#(\d+);/g, (_, code) => String.fromCharCode(Number(code)));
}

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
