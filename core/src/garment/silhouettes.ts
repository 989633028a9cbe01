// Garments drawn in millimetres, each with the place where a print goes: the one that a placement's name speaks of.

/** All that are drawn. */
export const SILHOUETTE_NAMES = ["front", "left chest", "back", "nape", "sleeve", "cap", "apron", "bag"] as const;

export interface Silhouette {
  readonly name: (typeof SILHOUETTE_NAMES)[number];
  /** What a print's distance is measured from. */
  readonly edge: string;
  /** SVG path data; x from the middle, y from that edge. */
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
  edge: "the collar",
  outline: `M-95 0C-60 52 60 52 95 0${BODY}`,
  seams: `${BODY_SEAMS}M-104 3C-66 66 66 66 104 3`,
  box: BODY_BOX,
  widthMm: 510,
};
const BACK = {
  edge: "the collar",
  outline: `M-95 0C-60 14 60 14 95 0${BODY}`,
  seams: `${BODY_SEAMS}M-104 3C-66 27 66 27 104 3`,
  box: BODY_BOX,
  widthMm: 510,
};

/** Drawn after common cuts (no source): a bib apron, a bag with handles, a cap seen from the front. */
const APRON = {
  outline: "M-130 0H130C140 110 190 205 330 250V800H-330V250C-190 205 -140 110 -130 0Z",
  seams: "M-118 0C-118 -150 118 -150 118 0M-170 480H170V650H-170ZM0 480V650M330 262H380M-330 262H-380",
  box: { x: -390, y: -140, width: 780, height: 960 },
};
const BAG = {
  outline: "M-190 0H190V420H-190Z",
  seams: "M-100 0C-100 -230 100 -230 100 0M-76 0C-76 -195 76 -195 76 0M-190 14H190",
  box: { x: -230, y: -200, width: 460, height: 640 },
};
const CAP = {
  outline: "M-92 104C-98 34 -62 -18 0 -18C62 -18 98 34 92 104C124 124 116 160 0 160C-116 160 -124 124 -92 104Z",
  seams: "M-92 104C-50 82 50 82 92 104M0 -18V86M-6 -20H6",
  box: { x: -140, y: -44, width: 280, height: 226 },
};

const SILHOUETTES: readonly (Silhouette & { readonly words: RegExp })[] = [
  {
    name: "sleeve",
    words: /sleeve|arm\b/i,
    outline: "M-128 30C-96 -24 -44 -52 0 -52C44 -52 96 -24 128 30L100 196H-100Z",
    seams: "M-103 180H103",
    edge: "the shoulder seam",
    box: { x: -170, y: -70, width: 340, height: 290 },
    printAt: { x: 0, y: 46 },
    widthMm: 200,
  },
  { name: "cap", words: /\bcap|hat\b|beanie/i, ...CAP, edge: "the crown", printAt: { x: 0, y: 20 }, widthMm: 130 },
  { name: "apron", words: /apron|bib/i, ...APRON, edge: "the upper hem", printAt: { x: 0, y: 55 }, widthMm: 260 },
  { name: "bag", words: /\bbag|tote/i, ...BAG, edge: "the upper hem", printAt: { x: 0, y: 80 }, widthMm: 340 },
  { name: "nape", words: /nape|neck|collar/i, ...BACK, printAt: { x: 0, y: 34 } },
  { name: "back", words: /back/i, ...BACK, printAt: { x: 0, y: 95 } },
  // The wearer's left is on the right as one looks at it.
  { name: "left chest", words: /chest|pocket|breast/i, ...FRONT, printAt: { x: 105, y: 100 } },
];
const WHOLE_FRONT: Silhouette = { name: "front", ...FRONT, printAt: { x: 0, y: 75 } };

/** The silhouette of a name. */
export function silhouetteOf(name: Silhouette["name"]): Silhouette {
  return SILHOUETTES.find((one) => one.name === name) ?? WHOLE_FRONT;
}

/** The silhouette that was chosen, or else the one for a placement; the front where nothing is said. */
export function silhouetteFor(
  placement: { readonly name: string } | null,
  chosen: Silhouette["name"] | null = null,
): Silhouette {
  if (chosen) return silhouetteOf(chosen);
  const name = placement?.name ?? "";
  return SILHOUETTES.find(({ words }) => words.test(name)) ?? WHOLE_FRONT;
}
