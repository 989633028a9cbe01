// Garments drawn in millimetres, each with the place where a print goes: the one that a placement's name speaks of.

export interface Silhouette {
  readonly name: "front" | "left chest" | "back" | "nape" | "sleeve";
  /** SVG path data; x from the middle, y from the collar (of a sleeve: from its crown). */
  readonly outline: string;
  /** Seams and collar, drawn finely. */
  readonly seams: string;
  readonly box: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
  /** Middle of the print's upper edge (common practice, no source). */
  readonly printAt: { readonly x: number; readonly y: number };
  /** Widest print that lies flat on it. */
  readonly widthMm: number;
}

const BODY_BOX = { x: -350, y: -30, width: 700, height: 740 };
const BODY = "L190 22L330 160L270 224L255 202V690H-255V202L-270 224L-330 160L-190 22Z";
const BODY_SEAMS = "M-255 672H255M190 22C232 90 250 150 255 202M-190 22C-232 90 -250 150 -255 202";
const FRONT = {
  outline: `M-95 0C-60 52 60 52 95 0${BODY}`,
  seams: `${BODY_SEAMS}M-104 3C-66 66 66 66 104 3`,
  box: BODY_BOX,
  widthMm: 510,
};
const BACK = {
  outline: `M-95 0C-60 14 60 14 95 0${BODY}`,
  seams: `${BODY_SEAMS}M-104 3C-66 27 66 27 104 3`,
  box: BODY_BOX,
  widthMm: 510,
};

const SILHOUETTES: readonly (Silhouette & { readonly words: RegExp })[] = [
  {
    name: "sleeve",
    words: /sleeve|arm\b/i,
    outline: "M-128 30C-96 -24 -44 -52 0 -52C44 -52 96 -24 128 30L100 196H-100Z",
    seams: "M-103 180H103",
    box: { x: -170, y: -70, width: 340, height: 290 },
    printAt: { x: 0, y: 46 },
    widthMm: 200,
  },
  { name: "nape", words: /nape|neck|collar/i, ...BACK, printAt: { x: 0, y: 34 } },
  { name: "back", words: /back/i, ...BACK, printAt: { x: 0, y: 95 } },
  // The wearer's left is on the right as one looks at it.
  { name: "left chest", words: /chest|pocket|breast/i, ...FRONT, printAt: { x: 105, y: 100 } },
];
const WHOLE_FRONT: Silhouette = { name: "front", ...FRONT, printAt: { x: 0, y: 75 } };

/** The silhouette for a placement; the front where nothing else is said. */
export function silhouetteFor(placement: { readonly name: string } | null): Silhouette {
  const name = placement?.name ?? "";
  return SILHOUETTES.find(({ words }) => words.test(name)) ?? WHOLE_FRONT;
}
