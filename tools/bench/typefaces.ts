// Finding typefaces: sixty samples of old lettering whose typeface is known, every shipped one laid on each.
import { pathToSvg } from "@plain-palette/core/geometry";
import { type FoundTypeface, setLettering, tryOn } from "@plain-palette/core/lettering";
import { openTypeface, type Typeface } from "@plain-palette/core/typeface";
import { readShippedFiles, shippedTypefaces } from "@plain-palette/server/shipped-typefaces";
import { Resvg } from "@resvg/resvg-js";
import { type LetteringSample, makeSample, SAMPLE_WAYS, sampleNames } from "../testing/lettering-samples.ts";
import { middle } from "./timing.ts";

interface Outcome {
  readonly sample: LetteringSample;
  /** Which of all families the right one is, from 1. */
  readonly rank: number;
  /** Of the best with what was drawn. */
  readonly overlap: number;
  readonly ms: number;
}

/** Prints how often the right family is found, and how well it covers what was drawn. */
export async function measureTypefaces(): Promise<void> {
  const families = new Map(shippedTypefaces().map(({ id, family }) => [id, family]));
  const faces: Typeface[] = [];
  for (const id of families.keys()) faces.push(await openTypeface(id, (await readShippedFiles(id)) ?? []));
  const outcomes: Outcome[] = [];
  for (const name of sampleNames()) {
    const sample = await makeSample(name);
    const started = performance.now();
    const layOn = tryOn(sample.traced, sample.text);
    const found = faces.flatMap((face) => layOn?.(face) ?? []).sort((a, b) => b.overlap - a.overlap);
    const ms = performance.now() - started;
    const ranked = [...new Set(found.map(({ id }) => families.get(id)))];
    const rank = ranked.indexOf(sample.family) + 1 || Number.POSITIVE_INFINITY;
    const [best] = found;
    const face = faces.find(({ id }) => id === best?.id);
    outcomes.push({ sample, rank, overlap: best && face ? overlapWithDrawn(sample, best, face) : 0, ms });
  }
  const row = (of: readonly Outcome[]) => ({
    samples: of.length,
    first: of.filter(({ rank }) => rank === 1).length,
    "among three": of.filter(({ rank }) => rank <= 3).length,
    "overlap, middle": middle(of.map(({ overlap }) => overlap)).toFixed(3),
    "ms a typeface": (middle(of.map(({ ms }) => ms)) / faces.length).toFixed(1),
  });
  const table = Object.fromEntries([
    ...SAMPLE_WAYS.map((way) => [way, row(outcomes.filter(({ sample }) => sample.way === way))] as const),
    ["PNG", row(outcomes.filter(({ sample }) => !sample.isJpeg))],
    ["JPEG 75", row(outcomes.filter(({ sample }) => sample.isJpeg))],
    ["all", row(outcomes)],
  ]);
  console.log(`\nTypefaces found among ${faces.length} (${new Set(families.values()).size} families)`);
  console.table(table);
}

/** Pixels of the pictures that are compared to one of the sample. */
const FINE = 3;

/** Area that both cover by what either does, of pictures that resvg draws of what is proposed and of what was drawn. */
function overlapWithDrawn(sample: LetteringSample, { lettering }: FoundTypeface, face: Typeface): number {
  const paths = setLettering(lettering, face).letters.flatMap((letter) => letter.paths);
  const own = cover(sample, `<path d="${paths.map((path) => pathToSvg(path, 3)).join("")}"/>`);
  const drawn = cover(sample, sample.drawnSvg);
  let [both, either] = [0, 0];
  own.forEach((a, i) => {
    const b = drawn[i] ?? 0;
    both += Math.min(a, b);
    either += Math.max(a, b);
  });
  return both / (either || 1);
}

function cover({ width, height }: LetteringSample, content: string): Uint8Array {
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}">${content}</svg>`;
  const { pixels } = new Resvg(svg, { fitTo: { mode: "zoom", value: FINE } }).render();
  return Uint8Array.from({ length: pixels.length / 4 }, (_, p) => pixels[p * 4 + 3] ?? 0);
}
