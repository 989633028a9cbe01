// Typefaces in words: their kinds, and what their files allow.
import type { ListedTypeface, TypefaceKind } from "@plain-palette/contract";

export const KIND_WORDS: Readonly<Record<TypefaceKind, string>> = {
  sans: "Sturdy sans",
  condensed: "Condensed",
  wide: "Wide",
  rounded: "Rounded",
  geometric: "Geometric",
  slab: "Slab serif",
  "old-style": "Old-style serif",
  modern: "Modern serif",
  stencil: "Stencil",
  athletic: "Athletic block",
  western: "Western, wood type",
  deco: "Art deco",
  script: "Script",
  hand: "Hand-lettered",
  blackletter: "Blackletter",
  typewriter: "Typewriter",
  comic: "Comic",
  pixel: "Pixel",
  other: "Other",
};

export function matchesTypeface({ family, style, kind, scripts }: ListedTypeface, wanted: string): boolean {
  const words = `${family} ${style} ${KIND_WORDS[kind]} ${scripts.join(" ")}`.toLowerCase();
  return wanted
    .trim()
    .toLowerCase()
    .split(/\s+/)
    .every((word) => words.includes(word));
}

/** What a font file says of being embedded (OpenType 1.9.1, OS/2, fsType, bits 0 to 3, 8 and 9). */
export function sayEmbedding(fsType: number | null): string {
  if (fsType === null) return "The file says nothing of its use.";
  const kind = fsType & 0x000e;
  if (kind === 0x0002) return "Restricted: its maker forbids embedding it in files without leave.";
  if (kind === 0x0004) return "May be embedded for preview and print.";
  if (kind === 0x0008) return "May be embedded, also where files are edited.";
  return "May be embedded freely.";
}
