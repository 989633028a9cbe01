// What is to be known of a stitch plan before it is sewn: counts, and what the machine or the cloth would not take.

import { makeLetterAround } from "../area/index.ts";
import type { ThinPlace, Warning } from "../checks/index.ts";
import { boundsOf } from "../geometry/index.ts";
import type { Design, ProcessReport } from "../process/index.ts";
import type { PlanarMap } from "../trace/index.ts";
import { SEWN_LETTERS_MM } from "../trade/index.ts";
import { countPlan } from "./count.ts";
import { DENSITY_CELL_MM, LAYER_CELL_MM, measureDensity, measureLayers } from "./density.ts";
import { chooseHoop } from "./hoop.ts";
import type { Stitches } from "./outputs.ts";
import type { SewnArea } from "./plan.ts";
import { SATIN_FROM_MM } from "./propose-sewing.ts";
import type { StitchSettings } from "./settings.ts";

/** What is lower than this is no lettering but specks (our own). */
const SPECK_MM = 0.8;
/** Thread on thread is worth a word from so much of it on, mm2: less is where borders cross (our own). */
const LEAST_THICK_MM2 = 2;
/** How much wider than high a letter is at most; what is longer is a line (our own). */
const LETTER_RATIO = 2.5;
/** Small areas of one spot of about one height that are lettering; fewer are dots (our own). */
const LETTERS = 4;
const DIGITS = 2;

export function reportStitches(
  made: Stitches,
  design: Pick<Design, "map" | "widthMm" | "stock">,
  settings: StitchSettings,
): ProcessReport {
  const { plan, areas, lost } = made;
  const count = countPlan(plan, settings);
  const hoop = chooseHoop(plan.widthMm, plan.heightMm, settings);
  const pxPerMm = design.map.width / design.widthMm;
  const thin = findThinSatin(areas, pxPerMm);
  const threadOf = (spotId: string) => {
    const stock = design.stock[spotId];
    return stock?.kind === "thread" ? `${stock.code} ${stock.name}` : null;
  };
  return {
    facts: {
      stitches: {
        count: count.stitches,
        ...{ trims: count.trims, jumps: count.jumps, changes: count.changes },
        ...{ minutes: rounded(count.minutes), price: rounded(count.price), bobbinM: rounded(count.bobbinM) },
        hoop: { widthMm: hoop.widthMm, heightMm: hoop.heightMm, isTurned: hoop.isTurned },
        colours: count.colours.map(({ spotId, name, stitches, threadM }) => ({
          ...{ spotId, name, thread: threadOf(spotId), stitches, threadM: rounded(threadM) },
        })),
      },
    },
    thin,
    warnings: [
      ...(hoop.fits ? [] : [tooLarge(plan, hoop)]),
      ...tooDense(made, settings, pxPerMm),
      ...tooThick(made, settings, pxPerMm),
      ...smallLettering(areas, design.map, pxPerMm),
      ...thinWarnings(thin),
      ...lost.map((id) => ({
        text: `What was decided on area ${id} finds no area any more; it is kept.`,
        place: null,
      })),
    ],
  };
}

const rounded = (value: number) => Number(value.toFixed(DIGITS));

function tooLarge(size: { widthMm: number; heightMm: number }, hoop: { widthMm: number; heightMm: number }): Warning {
  const text = `The design, ${size.widthMm.toFixed(0)} x ${size.heightMm.toFixed(0)} mm, does not go into the hoop of ${hoop.widthMm} x ${hoop.heightMm} mm. Sew it smaller, or choose a larger hoop.`;
  return { text, place: null };
}

/** Where needle points lie closer than cloth bears. */
function tooDense({ plan }: Stitches, { machine }: StitchSettings, pxPerMm: number): Warning[] {
  const { perMm2, columns } = measureDensity(plan);
  let [count, worst] = [0, 0];
  perMm2.forEach((value, cell) => {
    if (value <= machine.mostPerMm2) return;
    count++;
    if (value > perMm2[worst]) worst = cell;
  });
  if (count === 0) return [];
  const [x, y] = [worst % columns, Math.floor(worst / columns)].map((cell) => (cell + 0.5) * DENSITY_CELL_MM);
  const places = count === 1 ? "one place" : `${count} places`;
  const text = `Stitches lie closer than ${machine.mostPerMm2} to a square millimetre in ${places}, at most ${perMm2[worst].toFixed(1)} at ${x.toFixed(0)}, ${y.toFixed(0)} mm: the cloth may be cut.`;
  return [{ text, place: { x: x * pxPerMm, y: y * pxPerMm } }];
}

/** Where more layers of thread lie on each other than cloth bears. */
function tooThick({ plan }: Stitches, { machine: { mostLayers } }: StitchSettings, pxPerMm: number): Warning[] {
  const { layers, columns } = measureLayers(plan);
  const cells = Array.from(layers.keys()).filter((cell) => layers[cell] > mostLayers);
  const areaMm2 = cells.length * LAYER_CELL_MM ** 2;
  if (areaMm2 < LEAST_THICK_MM2) return [];
  const [first] = cells;
  const [x, y] = [first % columns, Math.floor(first / columns)].map((cell) => (cell + 0.5) * LAYER_CELL_MM);
  const text = `More than ${mostLayers} full layers of thread lie on each other over ${areaMm2.toFixed(0)} mm2, first at ${x.toFixed(0)}, ${y.toFixed(0)} mm: the cloth may be cut.`;
  return [{ text, place: { x: x * pxPerMm, y: y * pxPerMm } }];
}

/** Satin narrower than a needle can place. */
function findThinSatin(areas: readonly SewnArea[], pxPerMm: number): ThinPlace[] {
  return areas
    .filter(({ numbers, widthMm }) => numbers.as === "satin" && widthMm < SATIN_FROM_MM)
    .map(({ spotId, rings, widthMm, aroundMm }) => ({
      ...{ kind: "satin", spotId, x: rings[0][0] * pxPerMm, y: rings[0][1] * pxPerMm },
      ...{ widthMm, lengthMm: aroundMm / 2 },
    }))
    .sort((a, b) => a.widthMm - b.widthMm);
}

function thinWarnings(thin: readonly ThinPlace[]): Warning[] {
  if (thin.length === 0) return [];
  const [{ x, y, widthMm }] = thin;
  const areas = thin.length === 1 ? "One area of satin is" : `${thin.length} areas of satin are`;
  return [
    {
      text: `${areas} narrower than ${SATIN_FROM_MM} mm, the narrowest ${widthMm.toFixed(2)} mm: sew it as bean stitches.`,
      place: { x, y },
    },
  ];
}

/** Rows of small areas that look like letters. */
function smallLettering(areas: readonly SewnArea[], map: PlanarMap, pxPerMm: number): Warning[] {
  const letterAround = makeLetterAround(map, 1 / pxPerMm);
  const small = areas.flatMap(({ face, spotId, rings: [ring], numbers }) => {
    const { left, top, right, bottom } = boundsOf(ring);
    const [high, wide] = [bottom - top, right - left];
    const isLow = high >= SPECK_MM && Math.max(high, wide) < SEWN_LETTERS_MM && wide < LETTER_RATIO * high;
    return numbers.as !== "none" && isLow && letterAround(face, high) < 0
      ? [{ spotId, high: Math.max(high, wide), x: left, y: top }]
      : [];
  });
  const words = [...new Set(small.map(({ spotId }) => spotId))]
    .map((id) => small.filter(({ spotId }) => spotId === id).sort((one, other) => one.high - other.high))
    .filter((own) => own.length >= LETTERS);
  if (words.length === 0) return [];
  // One line for all of it: who sews small lettering knows it after the first.
  const [lowest] = words.map((own) => own[own.length >> 1]).sort((one, other) => one.high - other.high);
  const count = words.reduce((sum, own) => sum + own.length, 0);
  const text = `${count} areas look like lettering, the lowest ${lowest.high.toFixed(1)} mm high; under ${SEWN_LETTERS_MM} mm it does not hold.`;
  return [{ text, place: { x: lowest.x * pxPerMm, y: lowest.y * pxPerMm } }];
}
