// Stones as they are seen: each as a disc of its colour, by size.
import { formatHex } from "../colour/index.ts";
import type { Design, PicturePart, Portrait } from "../process/index.ts";
import { diameterOf, STONE_SIZES } from "../trade/index.ts";
import type { Stones } from "./outputs.ts";

/** Middles to a hundredth of a millimetre. */
const fine = (mm: number) => Math.round(mm * 100) / 100;

export function portrayStones({ stones }: Stones, { spots }: Pick<Design, "spots">): Portrait {
  const parts = spots.flatMap(({ id, rgb }) =>
    STONE_SIZES.flatMap((size): PicturePart[] => {
      const own = stones.filter((stone) => stone.spotId === id && stone.size === size);
      const places = own.flatMap(({ x, y }) => [fine(x), fine(y)]);
      return own.length > 0 ? [{ kind: "stones", hex: formatHex(rgb), diameterMm: diameterOf(size), places }] : [];
    }),
  );
  const counts = STONE_SIZES.flatMap((size) => {
    const count = stones.filter((stone) => stone.size === size).length;
    return count > 0 ? [`${count} stones ${size}`] : [];
  });
  return { parts, counts };
}
