// What is in hand at the colours step: the section that is open, the tool, and the spot that areas are given to.
import type { StockKind } from "@plain-palette/core/shelf";

export const PAINT_SECTIONS = ["spots", "areas", "checks"] as const;
export type PaintSection = (typeof PAINT_SECTIONS)[number];

export type PaintTool =
  | { readonly kind: "recolour" | "pour" }
  | { readonly kind: "divide" }
  /** Takes a colour of the picture for a spot. */
  | { readonly kind: "take-colour"; readonly spotId: string };

export type AreaReach = "area" | "enclosed" | "everywhere" | "loop";

/** Areas given to the garment: a spot of its colour that shows it. */
export const TO_GARMENT = "garment";

export interface PaintDesk {
  readonly section: PaintSection;
  readonly tool: PaintTool | null;
  /** The spot that areas are given to, the garment, or nothing; null: a new one of the colour `hex`. */
  readonly target: string | null;
  /** How far a click goes, or a loop that is drawn. */
  readonly reach: AreaReach;
  readonly hex: string;
  /** What is offered for spots: to begin with, what the job's process is made with. */
  readonly stockKind: StockKind;
  /** What is being drawn, x, y pairs in upright pixels. */
  readonly sketch: readonly number[];
}

export const EMPTY_PAINT_DESK: PaintDesk = {
  section: "spots",
  tool: null,
  target: null,
  reach: "area",
  hex: "#f2b134",
  stockKind: "ink",
  sketch: [],
};

export type ChangePaintDesk = (part: Partial<PaintDesk>) => void;
