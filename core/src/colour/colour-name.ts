// A plain name for a colour, so that a plate has a word on it before anyone has named it.

import { rgbToLab } from "./lab.ts";
import type { Rgb } from "./srgb.ts";

/** Lower bounds of the hue angle in CIELAB, degrees, with the everyday word. Our own partition; no source. */
const HUES: readonly (readonly [number, string])[] = [
  [0, "Rose"],
  [22, "Red"],
  [48, "Orange"],
  [75, "Gold"],
  [92, "Lemon"],
  [105, "Lime"],
  [125, "Green"],
  [170, "Teal"],
  [222, "Sky"],
  [256, "Blue"],
  [300, "Violet"],
  [328, "Pink"],
  [352, "Rose"],
];

/** One or two English words for a colour, e.g. "Deep blue". Near-greys are named by lightness alone. */
export function describeColour(rgb: Rgb): string {
  const [l, a, b] = rgbToLab(rgb);
  const chroma = Math.hypot(a, b);
  if (chroma < 7) {
    if (l > 96) return "White";
    if (l > 85) return chroma > 3 && b > 0 ? "Cream" : "Pale grey";
    if (l > 62) return "Light grey";
    if (l > 38) return "Grey";
    return l > 18 ? "Charcoal" : "Ink black";
  }
  const hue = (Math.atan2(b, a) * 180) / Math.PI;
  const angle = hue < 0 ? hue + 360 : hue;
  let word = "Rose";
  for (const [from, name] of HUES) if (angle >= from) word = name;
  const isWarm = word === "Orange" || word === "Gold" || word === "Lemon" || (word === "Red" && angle > 38);
  if (isWarm && l < 52 && chroma < 48) return l < 28 ? "Dark brown" : "Brown";
  if (l > 82 && chroma < 32) return isWarm ? "Cream" : `Pale ${word.toLowerCase()}`;
  if (l < 32) return word === "Blue" ? "Navy" : `Deep ${word.toLowerCase()}`;
  if (l > 76 && word !== "Gold" && word !== "Lemon" && word !== "Lime") return `Light ${word.toLowerCase()}`;
  if (chroma < 26) return `Muted ${word.toLowerCase()}`;
  return word;
}
