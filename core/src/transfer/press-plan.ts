// How a shirt is pressed: each layer tacked in turn, the whole pressed at the end.
import type { Rgb } from "../colour/index.ts";
import { MOST_FILMS } from "../trade/index.ts";
import type { Layer, Layering } from "./layers.ts";
import type { TransferSettings } from "./settings.ts";
import type { FilmSheet } from "./sheets.ts";

export interface PressStep {
  readonly order: number;
  readonly name: string;
  readonly rgb: Rgb;
  readonly mode: Layer["mode"];
  /** Code and name of the film on the shelf; null: none was chosen. */
  readonly film: string | null;
  readonly tackS: number;
  readonly celsius: number;
}

export interface PressPlan {
  readonly steps: readonly PressStep[];
  /** The whole at the end: as long as the film that needs longest, no hotter than each of them stands. */
  readonly finalS: number;
  readonly celsius: number;
  /** Under the press, for one piece. */
  readonly perPieceS: number;
  readonly pieces: number;
  /** What the person at the press should know. */
  readonly notes: readonly string[];
}

/** Films that have no numbers of their own on the shelf are pressed as the job says (common practice, no source). */
export function planPress(
  { layers, stack }: Layering,
  sheets: readonly FilmSheet[],
  { press }: Pick<TransferSettings, "press">,
  pieces: number,
): PressPlan {
  const steps: PressStep[] = [];
  const finals: number[] = [];
  for (const { spotId, order, name, rgb, mode } of layers) {
    const stock = sheets.find((sheet) => sheet.spotId === spotId)?.stock ?? null;
    steps.push({
      ...{ order, name, rgb, mode, film: stock && `${stock.code} ${stock.name}` },
      tackS: stock?.film?.tackS ?? press.tackS,
      celsius: stock?.film?.celsius ?? press.celsius,
    });
    finals.push(stock?.film?.finalS ?? press.finalS);
  }
  const finalS = Math.max(0, ...finals);
  const celsius = Math.min(...steps.map((step) => step.celsius));
  const hottest = Math.max(...steps.map((step) => step.celsius));
  return {
    steps,
    finalS,
    celsius,
    perPieceS: steps.reduce((sum, { tackS }) => sum + tackS, 0) + finalS,
    pieces,
    notes: [
      ...(hottest > celsius ? [`The whole is pressed at ${celsius} °C, as hot as its most tender film stands.`] : []),
      ...(stack.most > MOST_FILMS
        ? [`Up to ${stack.most} films lie on each other: press those places once more.`]
        : []),
    ],
  };
}
