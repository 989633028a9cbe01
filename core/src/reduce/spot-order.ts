// The order in which spots are laid down: light to dark, unless the person moved them.
import { rgbToLab } from "../colour/index.ts";
import type { Spot } from "./reduce.ts";

/** Inks in print order. Those in `chosen` keep that order among themselves; the others go where their lightness puts them. */
export function orderInks(inks: readonly Spot[], chosen: readonly string[]): Spot[] {
  const lightness = new Map(inks.map((spot) => [spot.id, rgbToLab(spot.rgb)[0]]));
  const lightOf = (spot: Spot) => lightness.get(spot.id) ?? 0;
  const byLightness = [...inks].sort((a, b) => lightOf(b) - lightOf(a) || (a.id < b.id ? -1 : 1));
  const placed = chosen.flatMap((id) => inks.find((spot) => spot.id === id) ?? []);
  for (const spot of byLightness) {
    if (chosen.includes(spot.id)) continue;
    const at = placed.findIndex((other) => lightOf(other) < lightOf(spot));
    placed.splice(at < 0 ? placed.length : at, 0, spot);
  }
  return placed;
}

/** All spots in the order in which they are laid down: the garment's own colour first, then inks as they print. */
export function orderSpots(spots: readonly Spot[], chosen: readonly string[]): Spot[] {
  const inks = orderInks(
    spots.filter(({ role }) => role === "ink"),
    chosen,
  );
  return [...spots.filter(({ role }) => role === "garment"), ...inks];
}
