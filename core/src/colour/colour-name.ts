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
  return nameChoices(rgb)[0];
}

/** Words for a colour, the plainest first: where that is taken by another colour, the next one says how this one differs. */
export function nameChoices(rgb: Rgb): [string, ...string[]] {
  const [l, a, b] = rgbToLab(rgb);
  const chroma = Math.hypot(a, b);
  if (chroma < 7) return nameGrey(l, chroma, b);
  const hue = (Math.atan2(b, a) * 180) / Math.PI;
  const angle = hue < 0 ? hue + 360 : hue;
  const earthy = nameEarthy(l, chroma, angle);
  if (earthy) return earthy;
  let word = "Rose";
  for (const [from, name] of HUES) if (angle >= from) word = name;
  const low = word.toLowerCase();
  if (l > 82 && chroma < 32) return [`Pale ${low}`, `Faint ${low}`];
  if (l < 32) return word === "Blue" ? ["Navy", "Dark blue", "Deep blue"] : [`Deep ${low}`, `Dark ${low}`];
  if (l > 76 && word !== "Gold" && word !== "Lemon" && word !== "Lime") return [`Light ${low}`, `Bright ${low}`];
  if (chroma < 26) return [`Muted ${low}`, l > 55 ? `Soft ${low}` : `Dusky ${low}`];
  return [word, l > 55 ? `Bright ${low}` : `Dark ${low}`, l > 55 ? `Light ${low}` : `Deep ${low}`];
}

function nameGrey(l: number, chroma: number, b: number): [string, ...string[]] {
  const isWarm = chroma > 3 && b > 0;
  if (l > 96) return isWarm ? ["White", "Ivory", "Off-white"] : ["White", "Off-white"];
  if (l > 85)
    return isWarm ? (l > 92 ? ["Cream", "Ivory", "Bone"] : ["Cream", "Bone", "Sand"]) : ["Pale grey", "Silver grey"];
  if (l > 62) return ["Light grey", "Silver grey", "Soft grey"];
  if (l > 38) return ["Grey", l > 50 ? "Mid grey" : "Dark grey"];
  return l > 18 ? ["Charcoal", "Dark grey"] : ["Ink black", "Soft black"];
}

/** Browns, tans, skins and creams: what is warm and not strong enough, or too dark, for red, orange or gold. */
function nameEarthy(l: number, chroma: number, angle: number): [string, ...string[]] | null {
  if (angle < 25 || angle > 105) return null;
  if (chroma < 12 && l > 42 && l < 82) return ["Warm grey", "Taupe", "Stone"];
  const isBrownish = angle > 38 || chroma < 30;
  if (l < 30 && chroma < 45 && isBrownish) return ["Dark brown", "Deep brown", "Coffee"];
  if (l < 55 && chroma < 62 && isBrownish)
    return l < 42 ? ["Brown", "Chestnut", "Dark brown"] : ["Brown", "Light brown", "Hazel"];
  if (l < 62 && angle > 30 && chroma < 45) return ["Light brown", "Terracotta", "Clay"];
  if (l > 82 && chroma < 32) {
    if (angle < 68 || (angle < 85 && chroma > 24)) return ["Peach", "Blush", "Pale peach"];
    return l > 93 ? ["Cream", "Ivory", "Pale cream"] : ["Cream", "Sand", "Buff"];
  }
  if (chroma < 45 && l > 62) {
    if (angle < 60) return l > 74 ? ["Peach", "Apricot", "Blush"] : ["Salmon", "Terracotta", "Clay"];
    return ["Tan", "Sand", "Buff"];
  }
  if (l > 48 && l < 66 && angle > 62 && chroma < 60) return ["Ochre", "Dark gold", "Bronze"];
  if (l < 55 && angle > 45 && angle < 75) return ["Rust", "Burnt orange", "Copper"];
  return null;
}
