// The nearest things on the shelf to a colour, and how near they are.
import { ciede2000, type Rgb, rgbToLab } from "../colour/index.ts";
import { type Stock, type StockKind, stockLab } from "./stock.ts";

/** From where on a stock counts as the same, and as near enough to ask about: CIEDE2000, from the shop's settings. */
export interface MatchLimits {
  readonly same: number;
  readonly near: number;
}

export interface StockMatch<S extends Stock = Stock> {
  readonly stock: S;
  readonly difference: number;
  readonly verdict: "same" | "near" | "off";
}

/** All stock of a kind, nearest first by CIEDE2000. */
export function matchStock<S extends Stock>(
  rgb: Rgb,
  shelf: readonly S[],
  kind: StockKind,
  limits: MatchLimits,
): StockMatch<S>[] {
  const wanted = rgbToLab(rgb);
  return shelf
    .filter((stock) => stock.kind === kind)
    .map((stock): StockMatch<S> => {
      const difference = ciede2000(wanted, stockLab(stock));
      const verdict = difference <= limits.same ? "same" : difference <= limits.near ? "near" : "off";
      return { stock, difference, verdict };
    })
    .sort((a, b) => a.difference - b.difference);
}
