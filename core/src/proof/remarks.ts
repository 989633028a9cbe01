// What the checks found, in the words of someone who has never seen a press.
import { findNearInks, findThinPlaces, measureShading } from "../checks/index.ts";
import { processOf } from "../processes/index.ts";
import { effectiveDpi, mmPerPixel, printWidthMm, type Recipe, type Results } from "../recipe/index.ts";
import type { ShopSettings } from "../shelf/index.ts";
import { LEAST_SHADING, LOW_DPI } from "../trade/index.ts";
import type { Proof } from "./proof.ts";

type Remark = Proof["remarks"][number];

export function listRemarks(results: Results, recipe: Recipe, shop: ShopSettings): Remark[] {
  const { prepared, findings, reduction, assignment, map } = results;
  const remarks: Remark[] = [];
  const say = (text: string, at: Remark["at"] = null) => remarks.push({ text, at });
  const nameOf = (id: string) => reduction.spots.find((spot) => spot.id === id)?.name ?? "";
  const mmPerPx = mmPerPixel(recipe, prepared.raster);
  const isSheet = findings.opaquePx === 0;
  if (!isSheet && effectiveDpi(prepared.raster.width, printWidthMm(recipe, prepared.raster)) < LOW_DPI)
    say(
      "Your picture is small for this size. We have drawn it anew; please look closely at fine parts and small words.",
    );
  if (!isSheet && measureShading(findings, reduction, assignment) > LEAST_SHADING)
    say("Your picture shades from one colour into another. It is made in the flat colours that you see here.");
  for (const { a, b } of findNearInks(reduction.spots))
    say(`${nameOf(a)} and ${nameOf(b)} look almost the same. Are both meant?`);
  for (const spot of reduction.spots) {
    const stock = recipe.colours.decided[spot.id]?.stock;
    if (!stock || spot.role !== "ink" || stock.difference <= shop.sameDifference) continue;
    const isNear = stock.difference <= shop.nearDifference;
    say(
      `${spot.name} is made with ${stock.name}: ${isNear ? "close to your picture's colour" : "you will see a difference to your picture's colour"}.`,
    );
  }
  const process = processOf(recipe.process);
  if (process.makesShapes) {
    const thin = findThinPlaces(map, reduction.spots, process.thinLimits(shop), mmPerPx);
    const [worst] = thin.toSorted((a, b) => a.widthMm - b.widthMm);
    if (worst)
      say(
        thin.length === 1
          ? "One line or gap is very fine: it may break or close."
          : `${thin.length} lines or gaps are very fine: they may break or close. The finest is marked.`,
        { x: worst.x * mmPerPx, y: worst.y * mmPerPx },
      );
  }
  return remarks;
}
