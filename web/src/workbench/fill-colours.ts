// What colour each shape on the table has.
import { formatHex } from "@plain-palette/core/colour";
import type { Spot } from "@plain-palette/core/reduce";

/**
 * Colours by spot id, as they will look: garment-coloured spots show the garment. Shapes may still be those of an earlier recipe
 * (`traced`): spots that are gone since keep their colour, so that what is shown is old and whole until the new is there.
 */
export function fillColours(traced: readonly Spot[], now: readonly Spot[], garment: string): Map<string, string> {
  return new Map([...traced, ...now].map((spot) => [spot.id, spot.role === "garment" ? garment : formatHex(spot.rgb)]));
}
