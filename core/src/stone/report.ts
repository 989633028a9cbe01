// What is to be known of stones before they are set: counts, what is too small for them, what the shelf has not.
import type { ThinPlace, Warning } from "../checks/index.ts";
import type { Design, ProcessReport } from "../process/index.ts";
import { diameterOf, STONE_SIZES } from "../trade/index.ts";
import { HAND_LOSSES } from "./by-hand.ts";
import { type CountedDesign, countOf, stoneName } from "./count-design.ts";
import type { Stones } from "./outputs.ts";
import type { StoneSettings } from "./settings.ts";

/** What is smaller on both sides than this is a speck of the trace and not worth a word, mm (our own). */
const SPECK_MM = 0.8;

export function reportStones(
  made: Stones,
  design: CountedDesign & Pick<Design, "map" | "widthMm">,
  settings: StoneSettings,
): ProcessReport {
  const counts = countOf(made, design, settings);
  const thin = findTooSmall(made, design.map.width / design.widthMm);
  return {
    facts: {
      stones: counts.map(({ spotId, size, count }) => {
        const taken = design.stock[spotId];
        return { spotId, stock: taken?.kind === "stone" ? `${taken.code} ${taken.name}` : null, size, count };
      }),
    },
    thin,
    warnings: [
      ...tooSmall(thin),
      ...counts.flatMap(({ spotId, size, needed, kept, isKept }): Warning[] => {
        const name = stoneName(design, spotId);
        if (!isKept) return [{ text: `${name} is not kept in ${size}; ${needed} are needed.`, place: null }];
        if (kept === null || kept >= needed) return [];
        return [{ text: `${needed} of ${name} in ${size} are needed, ${kept} are on the shelf.`, place: null }];
      }),
      ...made.lost.map((id) => ({
        text: `What was decided on area ${id} finds no area any more; it is kept.`,
        place: null,
      })),
      ...made.missed.map(({ id, why }) => ({ text: `${id} ${HAND_LOSSES[why]}; it is kept.`, place: null })),
    ],
  };
}

/** Areas that are left as cloth because not even the smallest stone reads in them. */
function findTooSmall({ areas }: Stones, pxPerMm: number): ThinPlace[] {
  return areas
    .filter(({ numbers, isUnread, aroundMm }) => numbers.as === "none" && isUnread && aroundMm > 4 * SPECK_MM)
    .map(({ spotId, rings: [ring], widthMm, aroundMm }) => ({
      ...{ kind: "stroke", spotId, x: ring[0] * pxPerMm, y: ring[1] * pxPerMm },
      ...{ widthMm, lengthMm: aroundMm / 2 },
    }))
    .sort((a, b) => a.widthMm - b.widthMm);
}

function tooSmall(thin: readonly ThinPlace[]): Warning[] {
  if (thin.length === 0) return [];
  const [{ x, y, widthMm }] = thin;
  const [smallest] = STONE_SIZES;
  const areas = thin.length === 1 ? "One area is" : `${thin.length} areas are`;
  const text = `${areas} too small to be read in ${smallest} (${diameterOf(smallest)} mm), the narrowest ${widthMm.toFixed(2)} mm: set larger, or leave them to another process.`;
  return [{ text, place: { x, y } }];
}
