// How each area is set as long as nobody says otherwise: thin strokes along their middle, small fields filled, large ones outlined.
import { type Area, type Columns, columnWidths, findColumns, findWords, STATION_MM } from "../area/index.ts";
import { diameterOf, STONE_SIZES, type StoneSize } from "../trade/index.ts";
import { largestThatReads, sizeForAll } from "./legible.ts";
import type { SetAs, SetRules } from "./set-area.ts";

/** Strokes up to so many stones wide are one row (from the trade: wider ones look thin in one). */
const STROKE_STONES = 2.5;
/** Areas that are wider than this on average need not be measured: they are fields, mm. */
const SURELY_WIDE_MM = 12;
/** Fields up to so many square millimetres are filled: more is bought by the hundred (our own). */
const FILLED_TO_MM2 = 400;
/** So much of a job's strokes reads with the size that is proposed for all. */
const READ_SHARE = 0.9;
/** Where nothing is a stroke (common practice, no source). */
const USUAL: StoneSize = "SS10";

export interface MeasuredArea extends Area {
  readonly columns: Columns;
  readonly widthMm: number;
  /** The largest stone with which it reads as strokes; null: none. */
  readonly largest: StoneSize | null;
  readonly proposedAs: SetAs;
  readonly proposedSize: StoneSize;
}

/** `sizesOf` says which sizes there are of a spot's stones. */
export function measureAreas(
  areas: readonly Area[],
  rules: SetRules,
  sizesOf: (spotId: string) => readonly StoneSize[] = () => STONE_SIZES,
): readonly MeasuredArea[] {
  const measured = areas.map((area) => {
    const meanMm = (2 * area.areaMm2) / area.aroundMm;
    const columns = meanMm < SURELY_WIDE_MM ? findColumns(area.rings, meanMm) : { columns: [], joints: [] };
    const widths = columns.columns.flatMap((column) => [...columnWidths(column)]).sort((a, b) => a - b);
    const widthMm = widths.length > 0 ? widths[widths.length >> 1] : meanMm;
    // What is thin beside the usual stone is a stroke.
    const isThin = columns.columns.length > 0 && widthMm <= STROKE_STONES * diameterOf(USUAL);
    const largest = isThin ? largestThatReads(columns, rules, sizesOf(area.spotId)) : null;
    return { ...area, columns, widthMm, isThin, lengthMm: widths.length * STATION_MM, largest };
  });
  const words = findWords(measured);
  const strokesOf = (word: number) => measured.filter(({ isThin }, i) => isThin && words[i] === word);
  const sizeOfWord = new Map([...new Set(words)].map((word) => [word, sizeForAll(strokesOf(word), READ_SHARE)]));
  const size = sizeForAll(
    measured.flatMap(({ isThin, lengthMm }, i) =>
      isThin ? [{ largest: sizeOfWord.get(words[i]) ?? null, lengthMm }] : [],
    ),
    READ_SHARE,
  );
  return measured.map(({ lengthMm: _, isThin, ...area }, i): MeasuredArea => {
    const isStroke = isThin && area.widthMm <= STROKE_STONES * diameterOf(size ?? USUAL);
    // A word is set in one size, but for letters that would not be read.
    const limits = isStroke ? [sizeOfWord.get(words[i]), area.largest] : [];
    const own = smallestOf([size ?? USUAL, ...limits.flatMap((limit) => limit ?? [])]);
    const proposedSize = nearestSize(own, sizesOf(area.spotId));
    return { ...area, proposedSize, proposedAs: proposeAs(area, isStroke, proposedSize) };
  });
}

function smallestOf(sizes: readonly StoneSize[]): StoneSize {
  return sizes.reduce((least, size) => (diameterOf(size) < diameterOf(least) ? size : least));
}

/** The largest of some sizes that is no larger than one; the smallest if all are. */
function nearestSize(size: StoneSize, sizes: readonly StoneSize[]): StoneSize {
  return sizes.findLast((one) => diameterOf(one) <= diameterOf(size)) ?? sizes[0] ?? size;
}

/** An area narrower than the smallest stone that would have to lie in it is left as cloth. */
function proposeAs(
  { areaMm2, widthMm, largest }: Pick<MeasuredArea, "areaMm2" | "widthMm" | "largest">,
  isStroke: boolean,
  size: StoneSize,
): SetAs {
  if (isStroke) return largest === null ? "none" : "middle";
  return areaMm2 <= FILLED_TO_MM2 && widthMm >= diameterOf(size) ? "fill" : "outline";
}
