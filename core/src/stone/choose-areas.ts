// Every area with its numbers: as it is proposed, changed by what was decided on all, on its spot, and on itself.
import { entriesByFace, layChoices, millimetresOf } from "../area/index.ts";
import type { Design } from "../process/index.ts";
import type { MeasuredArea } from "./propose-setting.ts";
import type { ChosenArea, SetNumbers } from "./set-area.ts";
import type { SetChoice, StoneSettings } from "./settings.ts";
import type { Gaps } from "./stones.ts";

/** Scattered stones lie so many times as far apart at the thin side unless said otherwise (our own). */
const THINNING = 3;

export interface SetArea extends ChosenArea, MeasuredArea {
  /** Entries that were decided on it, later ones last. */
  readonly entryIds: readonly string[];
}

/** What is set how; and by id the entries that find no area. */
export function chooseAreas(
  measured: readonly MeasuredArea[],
  design: Pick<Design, "map" | "frame" | "widthMm">,
  settings: StoneSettings,
): { readonly areas: readonly SetArea[]; readonly lost: readonly string[] } {
  const { of, lost } = entriesByFace(settings.areas, measured, millimetresOf(design));
  const areas = measured.map((area): SetArea => {
    const own = of.get(area.face) ?? [];
    const choices = [settings.everywhere, settings.decided[area.spotId] ?? {}, ...own];
    return { ...area, numbers: numbersOf(area, layChoices<SetChoice>(choices)), entryIds: own.map(({ id }) => id) };
  });
  return { areas, lost };
}

function numbersOf({ proposedAs, proposedSize }: MeasuredArea, said: SetChoice): SetNumbers {
  return {
    as: said.as ?? proposedAs,
    size: said.size ?? proposedSize,
    pattern: said.pattern ?? "hexagons",
    angleDeg: said.angleDeg ?? 0,
    isMixed: said.isMixed ?? false,
    isInside: said.isInside ?? false,
    thinning: said.thinning ?? THINNING,
  };
}

/** The gaps of a job: its own, or the shop's; never under the shop's least. */
export function gapsOf({ gapMm, shop }: Pick<StoneSettings, "gapMm" | "shop">): Gaps {
  return { gapMm: Math.max(gapMm ?? shop.gapMm, shop.leastMm), leastMm: shop.leastMm };
}
