// The shop's garments as they are named on screen.
import type { ShopStock } from "@plain-palette/contract";
import { formatHex } from "@plain-palette/core/colour";
import { stockRgb } from "@plain-palette/core/shelf";

/** A garment of the shelf: its code and name, and its colour. */
export interface Garment {
  readonly label: string;
  readonly hex: string;
  readonly stock: ShopStock;
}

/** All garments of a shelf. */
export function garmentsOf(shelf: readonly ShopStock[]): Garment[] {
  return shelf
    .filter(({ kind }) => kind === "garment")
    .map((stock) => ({ label: `${stock.code} ${stock.name}`, hex: formatHex(stockRgb(stock)), stock }));
}
