// What a person should know before anything is made.
import type { ThinPlace } from "./thin-places.ts";

/** Something that would go wrong at the machine, and where it is, in the prepared picture's pixels. */
export interface Warning {
  readonly text: string;
  readonly place: { readonly x: number; readonly y: number } | null;
}

/** Several thin places as one warning that names the thinnest. `what` says what they are; `of` whose the thinnest is. */
export function warnOfThin(
  places: readonly ThinPlace[],
  what: (count: number) => string,
  mmPerPx: number,
  of: (place: ThinPlace) => string = () => "",
): Warning[] {
  if (places.length === 0) return [];
  const [thinnest] = places;
  const { x, y, widthMm } = thinnest;
  const where = `${(x * mmPerPx).toFixed(1)}, ${(y * mmPerPx).toFixed(1)} mm`;
  const text = `${places.length} ${what(places.length)}; the thinnest, ${widthMm.toFixed(2)} mm${of(thinnest)}, is at ${where}.`;
  return [{ text, place: { x, y } }];
}
