// How each area is sewn as long as nobody says otherwise: by its width at true size; and neighbours at different angles.
import { type Area, type Columns, columnWidths, findColumns, findWords, STATION_MM } from "../area/index.ts";
import type { PlanarMap } from "../trace/index.ts";
import type { SewnAs } from "./sewn-as.ts";

/** Satin goes from one width to another, mm (common practice, no source). */
export const SATIN_FROM_MM = 1;
const SATIN_TO_MM = 7;
/** Areas that are wider than this on average need not be measured: they are filled. */
const SURELY_WIDE_MM = 9;
/** So much of an area may be wider, or narrower, than what it is sewn as goes (our own). */
const WIDE_SHARE = 0.08;
const THIN_SHARE = 0.5;
/** The columns of a stroke are so many times longer than wide on average (our own). */
const STROKE = 2.5;
/**
 * Fill angles, degrees: 45 and its opposite before all others (common practice, no source). With six, no two neighbours need
 * the same: a map whose areas are taken off with the fewest neighbours first never has more than five left (Euler).
 */
const ANGLES = [45, 135, 0, 90, 22.5, 112.5];

/** An area, the columns in it, and how it is proposed to be sewn. */
export interface MeasuredArea extends Area {
  readonly columns: Columns;
  readonly proposedAs: SewnAs;
  readonly proposedAngleDeg: number;
  /** Its width along its columns in the middle of all; of one that is surely wide twice its area by its outline, mm. */
  readonly widthMm: number;
}

export function measureAreas(areas: readonly Area[], map: PlanarMap): readonly MeasuredArea[] {
  const angles = spreadAngles(areas, map);
  const measured = areas.map((area) => {
    const meanMm = (2 * area.areaMm2) / area.aroundMm;
    const columns = meanMm < SURELY_WIDE_MM ? findColumns(area.rings, meanMm) : { columns: [], joints: [] };
    const widths = columns.columns.flatMap((column) => [...columnWidths(column)]);
    return { ...area, columns, widths, widthMm: widths.length > 0 ? middleOf(widths) : meanMm };
  });
  const words = findWords(measured);
  const widthsOf = new Map<number, number[]>();
  measured.forEach(({ widths }, i) => {
    widthsOf.set(words[i], [...(widthsOf.get(words[i]) ?? []), ...widths]);
  });
  return measured.map(({ widths, ...area }, i): MeasuredArea => {
    return {
      ...area,
      proposedAs: proposeAs(widths, area, widthsOf.get(words[i]) ?? widths),
      proposedAngleDeg: angles[i],
    };
  });
}

/** Shares are of area: a station stands for as much as it is wide. */
function proposeAs(
  own: readonly number[],
  { columns: { columns }, widthMm }: Pick<MeasuredArea, "columns" | "widthMm">,
  alike: readonly number[],
): SewnAs {
  const share = (widths: readonly number[], isMeant: (width: number) => boolean) => {
    const all = widths.reduce((sum, width) => sum + width, 0);
    return widths.reduce((sum, width) => (isMeant(width) ? sum + width : sum), 0) / (all || 1);
  };
  if (own.length === 0 || share(own, (width) => width > SATIN_TO_MM) > WIDE_SHARE) return "fill";
  // Columns hardly longer than they are wide are what is left between holes, and no strokes.
  if (columns.length > 1 && own.length * STATION_MM < STROKE * columns.length * widthMm) return "fill";
  // What looks alike is sewn alike: a word is not half satin and half lines.
  return share(alike, (width) => width < SATIN_FROM_MM) > THIN_SHARE ? "bean" : "satin";
}

function middleOf(values: readonly number[]): number {
  return [...values].sort((a, b) => a - b)[values.length >> 1];
}

/** An angle for each area: none like that of an area beside it. */
function spreadAngles(areas: readonly Area[], map: PlanarMap): number[] {
  const indexOf = new Map(areas.map(({ face }, i) => [face, i]));
  const beside = areas.map(() => new Set<number>());
  for (const { left, right } of map.edges) {
    const [a, b] = [indexOf.get(left), indexOf.get(right)];
    if (a === undefined || b === undefined || a === b) continue;
    beside[a].add(b);
    beside[b].add(a);
  }
  // Taken off with the fewest neighbours left first, they are given angles in the opposite order (Matula & Beck 1983).
  const left = beside.map((near) => near.size);
  const buckets = new Map<number, number[]>();
  const put = (i: number) => {
    const bucket = buckets.get(left[i]);
    if (bucket) bucket.push(i);
    else buckets.set(left[i], [i]);
  };
  for (let i = 0; i < left.length; i++) put(i);
  const isOff = new Uint8Array(areas.length);
  const order: number[] = [];
  for (let count = 0; order.length < areas.length; ) {
    const i = buckets.get(count)?.pop();
    if (i === undefined) {
      count++;
      continue;
    }
    if (isOff[i] === 1 || left[i] !== count) continue;
    isOff[i] = 1;
    order.push(i);
    for (const near of beside[i]) {
      if (isOff[near] === 1) continue;
      left[near]--;
      put(near);
    }
    count = Math.max(0, count - 1);
  }
  const angles = new Array<number>(areas.length).fill(-1);
  for (const i of order.reverse()) {
    const taken = new Set([...beside[i]].map((near) => angles[near]));
    angles[i] = ANGLES.find((angle) => !taken.has(angle)) ?? ANGLES[0];
  }
  return angles;
}
