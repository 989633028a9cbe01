// One sheet for all films of a job: where the art, the targets, the centre marks and the label stand. Everything is in
// millimetres from the sheet's top-left corner, the same on every film, so that plates register.
import type { Plate, Separation } from "./separate.ts";
import type { ScreensSettings } from "./settings.ts";

/** The person's decisions about films. */
export type FilmSettings = ScreensSettings["films"];

/** What a label says of the job. `date` is written as given: the layout has no clock. */
export interface FilmFacts {
  readonly job: string;
  readonly client: string;
  readonly date: string;
}

export interface LineMark {
  readonly x1: number;
  readonly y1: number;
  readonly x2: number;
  readonly y2: number;
}

/** A registration target: a ring with a cross through it. */
export interface Target {
  readonly x: number;
  readonly y: number;
}

export interface Film {
  readonly plate: Plate;
  readonly label: readonly string[];
}

export interface FilmSet {
  readonly sheet: { readonly width: number; readonly height: number };
  /** Whether the chosen sheet had to grow. */
  readonly hasGrown: boolean;
  readonly art: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
  readonly mmPerPx: number;
  readonly isMirrored: boolean;
  readonly targets: readonly Target[];
  readonly centreMarks: readonly LineMark[];
  /** Top-left of the label block and its greatest width. */
  readonly label: { readonly x: number; readonly y: number; readonly width: number };
  readonly films: readonly Film[];
}

/** Dimensions of the marks, mm (common practice, no source). */
export const MARKS = {
  lineWidth: 0.15,
  targetRadius: 2.5,
  targetArm: 4,
  /** From the art's edge: where the centre mark begins and ends, and where the target's centre is. */
  centreFrom: 2,
  centreTo: 6,
  targetAt: 11,
  labelSize: 3,
  labelLeading: 4.2,
} as const;

/** Room for marks on each side, mm, and the least margin without them. */
const MARK_MARGIN = MARKS.targetAt + MARKS.targetArm + 2;
const BARE_MARGIN = 5;
const LABEL_LINES = 3;
/** A label needs this much width to be read, mm. */
const LABEL_WIDTH = 90;

/** Lays out the films of a separation. */
export function layOutFilms(separation: Separation, settings: FilmSettings, facts: FilmFacts): FilmSet {
  const width = separation.widthPx * separation.mmPerPx;
  const height = separation.heightPx * separation.mmPerPx;
  const margin = settings.hasMarks ? MARK_MARGIN : BARE_MARGIN;
  const labelHeight = settings.hasLabels ? LABEL_LINES * MARKS.labelLeading + 2 : 0;
  const needed = {
    width: Math.max(width + 2 * margin, settings.hasLabels ? LABEL_WIDTH + 2 * BARE_MARGIN : 0),
    height: height + 2 * margin + labelHeight,
  };
  const wanted = turnToFit(settings.sheetMm, needed);
  const sheet = { width: Math.max(needed.width, wanted.width), height: Math.max(needed.height, wanted.height) };
  const art = { x: (sheet.width - width) / 2, y: (sheet.height - labelHeight - height) / 2, width, height };
  const cx = art.x + width / 2;
  const cy = art.y + height / 2;
  const right = art.x + width;
  const bottom = art.y + height;
  const { centreFrom, centreTo, targetAt } = MARKS;
  const size = `${width.toFixed(1)} x ${height.toFixed(1)} mm`;
  const reading = settings.isMirrored ? "mirrored" : "right-reading";
  return {
    sheet,
    hasGrown: settings.sheetMm !== null && (sheet.width > wanted.width || sheet.height > wanted.height),
    art,
    mmPerPx: separation.mmPerPx,
    isMirrored: settings.isMirrored,
    targets: settings.hasMarks
      ? [
          { x: cx, y: art.y - targetAt },
          { x: right + targetAt, y: cy },
          { x: cx, y: bottom + targetAt },
          { x: art.x - targetAt, y: cy },
        ]
      : [],
    centreMarks: settings.hasMarks
      ? [
          { x1: cx, y1: art.y - centreTo, x2: cx, y2: art.y - centreFrom },
          { x1: right + centreFrom, y1: cy, x2: right + centreTo, y2: cy },
          { x1: cx, y1: bottom + centreFrom, x2: cx, y2: bottom + centreTo },
          { x1: art.x - centreTo, y1: cy, x2: art.x - centreFrom, y2: cy },
        ]
      : [],
    label: {
      x: Math.min(art.x, (sheet.width - LABEL_WIDTH) / 2),
      y: sheet.height - labelHeight - (settings.hasMarks ? 1 : 0),
      width: Math.max(LABEL_WIDTH, width),
    },
    films: separation.plates.map((plate) => ({
      plate,
      label: settings.hasLabels
        ? [
            `${facts.job} | ${facts.client}`,
            `Plate ${plate.order} of ${separation.plates.length}: ${plate.name}`,
            `${size} | ${reading} | ${facts.date}`,
          ]
        : [],
    })),
  };
}

/** The wanted sheet, turned a quarter if only then the art fits. */
function turnToFit(
  wanted: FilmSettings["sheetMm"],
  needed: { width: number; height: number },
): { width: number; height: number } {
  if (!wanted) return needed;
  const fits = (w: number, h: number) => w >= needed.width && h >= needed.height;
  if (!fits(wanted.width, wanted.height) && fits(wanted.height, wanted.width))
    return { width: wanted.height, height: wanted.width };
  return wanted;
}
