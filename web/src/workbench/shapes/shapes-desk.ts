// What is in hand at the shapes step: the section that is open and the simplification that is being tried.
import type { ShapeEntry, SimplifyEntry } from "@plain-palette/core/recipe";

export const SHAPE_SECTIONS = ["trace", "hand", "lettering", "motifs", "simplify", "files"] as const;
export type ShapeSection = (typeof SHAPE_SECTIONS)[number];

/** Sections in which the table is worked on by hand. */
export function isByHand(section: ShapeSection): boolean {
  return section === "hand" || section === "lettering" || section === "motifs";
}

export interface ShapesDesk {
  readonly section: ShapeSection;
  /** Not in the recipe yet; null: nothing is being tried. */
  readonly trying: SimplifyEntry | null;
}

export const EMPTY_SHAPES_DESK: ShapesDesk = { section: "trace", trying: null };

export type ChangeShapesDesk = (part: Partial<ShapesDesk>) => void;

/** How far a simplification may move a boundary to begin with, px. */
const FIRST_TOLERANCE_PX = 0.5;

export function startTrying(entries: readonly ShapeEntry[], scope: SimplifyEntry["scope"]): SimplifyEntry {
  const numbers = entries.map(({ id }) => Number(id.slice(1)) || 0);
  return {
    id: `s${Math.max(0, ...numbers) + 1}`,
    isOn: true,
    kind: "simplify",
    tolerancePx: FIRST_TOLERANCE_PX,
    scope,
  };
}
