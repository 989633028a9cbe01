// How each area is set as long as nobody says otherwise: thin strokes along their middle, small fields filled, large ones outlined.
import {
  type Area,
  type Columns,
  columnWidths,
  findColumns,
  findWords,
  makeLetterAround,
  STATION_MM,
} from "../area/index.ts";
import { boundsOf } from "../geometry/index.ts";
import type { Design } from "../process/index.ts";
import { diameterOf, STONE_SIZES, type StoneSize } from "../trade/index.ts";
import { largestThatReads, sizeForAll } from "./legible.ts";
import type { SetRules } from "./set-area.ts";
import type { SetAs } from "./ways.ts";

/** Strokes up to so many stones wide are one row (from the trade: wider ones look thin in one). */
const STROKE_STONES = 2.5;
/** ... and on average so many times longer than wide: what is shorter is what is left between holes (our own). */
const STROKE_LENGTH = 2;
/** A letter, or a word in one stroke, has no more outlines and holes than this; a field behind lettering has. Thin lines may (our own). */
const MOST_RINGS = 8;
/** A drawing in one stroke forks less often than this; what forks more is a field full of holes (our own). */
const MOST_COLUMNS = 100;
/** A design is so many stones wide at least: fewer look coarse (our own). */
const STONES_WIDE = 30;
/** Areas that are wider than this on average need not be measured: they are fields, mm. */
const SURELY_WIDE_MM = 12;
/** ... and smaller ones hold not even the smallest stone, mm2: what that covers. */
const SPECK_MM2 = 3;
/** Fields up to so many square millimetres are filled: more is bought by the hundred (our own). */
const FILLED_TO_MM2 = 400;
/** The inside of a letter is smaller than this, mm2 (our own). */
const COUNTER_MM2 = 150;
/** Thick and thin strokes of one face: letters of one word (our own). */
const LIKE_WIDTH = 3;
/** Where so much of a word reads, the rest is set as it is: a word without one letter is none (our own). */
const WORD_SHARE = 0.6;
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
  /** Which sizes there are of its stones, the smallest first. */
  readonly sizes: readonly StoneSize[];
  /** Lettering, or a speck, that no stone is small enough for. */
  readonly isUnread: boolean;
}

/** `sizesOf` says which sizes there are of a spot's stones. */
export function measureAreas(
  areas: readonly Area[],
  { map, widthMm: designMm }: Pick<Design, "map" | "widthMm">,
  rules: SetRules,
  sizesOf: (spotId: string) => readonly StoneSize[] = () => STONE_SIZES,
): readonly MeasuredArea[] {
  const measured = areas.map((area) => {
    const meanMm = (2 * area.areaMm2) / area.aroundMm;
    const isMeasured = meanMm < SURELY_WIDE_MM && area.areaMm2 > SPECK_MM2;
    const columns = isMeasured ? findColumns(area.rings, meanMm) : { columns: [], joints: [] };
    const widths = columns.columns.flatMap((column) => [...columnWidths(column)]).sort((a, b) => a - b);
    const widthMm = widths.length > 0 ? widths[widths.length >> 1] : meanMm;
    const lengthMm = widths.length * STATION_MM;
    // What is thin beside the usual stone is a stroke.
    const isThin =
      columns.columns.length > 0 &&
      columns.columns.length <= MOST_COLUMNS &&
      widthMm <= STROKE_STONES * diameterOf(USUAL) &&
      (area.rings.length <= MOST_RINGS || widthMm <= diameterOf(USUAL)) &&
      lengthMm >= STROKE_LENGTH * columns.columns.length * widthMm;
    const sizes = sizesOf(area.spotId);
    const largest = isThin ? largestThatReads(columns, rules, sizes) : null;
    return { ...area, columns, widthMm, isThin, lengthMm, largest, sizes };
  });
  const words = findWords(measured, LIKE_WIDTH);
  const strokesOf = (word: number) => measured.filter(({ isThin }, i) => isThin && words[i] === word);
  const sizeOfWord = new Map(
    [...new Set(words)].map((word) => {
      const strokes = strokesOf(word);
      return [word, sizeForAll(strokes, READ_SHARE) ?? sizeForAll(strokes, WORD_SHARE)];
    }),
  );
  const reading = sizeForAll(
    measured.flatMap(({ isThin, lengthMm }, i) =>
      isThin ? [{ largest: sizeOfWord.get(words[i]) ?? null, lengthMm }] : [],
    ),
    READ_SHARE,
  );
  const size = nearestSize(
    reading ?? USUAL,
    STONE_SIZES.filter((one, i) => i === 0 || STONES_WIDE * diameterOf(one) <= designMm),
  );
  const letterAround = makeLetterAround(map, designMm / map.width);
  const letters = new Set(measured.flatMap(({ face, isThin }) => (isThin ? [face] : [])));
  return measured.map(({ lengthMm: _, isThin, ...area }, i): MeasuredArea => {
    const ofWord = sizeOfWord.get(words[i]) ?? null;
    const isStroke = isThin && area.widthMm <= STROKE_STONES * diameterOf(size);
    const own = isStroke && ofWord ? smallestOf(size, ofWord) : size;
    const proposedSize = nearestSize(own, area.sizes);
    // Half a word is none.
    const largest = ofWord && isStroke ? (area.largest ?? ofWord) : null;
    const { top, bottom } = boundsOf(area.rings[0]);
    const isInside = area.areaMm2 < COUNTER_MM2 && letters.has(letterAround(area.face, bottom - top));
    const proposedAs = isInside ? "none" : proposeAs({ ...area, largest }, isStroke, proposedSize);
    const isUnread = proposedAs === "none" && !isInside;
    return { ...area, largest, proposedSize, proposedAs, isUnread };
  });
}

function smallestOf(one: StoneSize, other: StoneSize): StoneSize {
  return diameterOf(one) < diameterOf(other) ? one : other;
}

/** The largest of some sizes that is no larger than one; the smallest if all are. */
function nearestSize(size: StoneSize, sizes: readonly StoneSize[]): StoneSize {
  return sizes.findLast((one) => diameterOf(one) <= diameterOf(size)) ?? sizes[0] ?? size;
}

/** An area narrower than the smallest stone, or that does not read in it, is left as cloth. */
function proposeAs(
  { areaMm2, widthMm, largest }: Pick<MeasuredArea, "areaMm2" | "widthMm" | "largest">,
  isStroke: boolean,
  size: StoneSize,
): SetAs {
  if (isStroke && largest !== null) return "middle";
  if (widthMm < diameterOf(isStroke ? size : STONE_SIZES[0])) return "none";
  return areaMm2 <= FILLED_TO_MM2 && widthMm >= diameterOf(size) ? "fill" : "outline";
}
