// What is in hand at the artwork step: the section that is open, the tool, the action being tuned, and what is only tried.
import type { BackgroundProposal, TrimProposal } from "@plain-palette/core/raster";
import { type Action, isUpright } from "@plain-palette/core/recipe";

export const SECTIONS = ["size", "upright", "line-art", "background", "touch-up"] as const;
export type Section = (typeof SECTIONS)[number];

/** A tool on the table; those with an `id` work on an action that is there. */
export type DeskTool =
  | { readonly kind: "level" }
  | { readonly kind: "crop"; readonly id: string }
  | { readonly kind: "corners"; readonly id: string }
  | { readonly kind: "pick" }
  | { readonly kind: "brush" }
  | { readonly kind: "cut"; readonly shape: "lasso" | "rectangle" }
  | { readonly kind: "carry"; readonly id: string };

export interface Desk {
  readonly section: Section;
  readonly tool: DeskTool | null;
  /** The action whose effect is marked on the table. */
  readonly focusId: string | null;
  /** An action that is shown and counted but not done yet. */
  readonly draft: Action | null;
  readonly brush: { readonly mode: "erase" | "restore" | "paint"; readonly acrossMm: number; readonly hex: string };
  /** What was found and waits for a yes or no; "none" where nothing was. */
  readonly trim: TrimProposal | "none" | null;
  readonly background: BackgroundProposal | null;
  /** What the next pick begins with. */
  readonly pick: { readonly tolerance: number; readonly reach: "connected" | "everywhere" };
  /** What is being drawn right now, x, y pairs in upright pixels. */
  readonly sketch: readonly number[];
}

export const EMPTY_DESK: Desk = {
  section: "size",
  tool: null,
  focusId: null,
  draft: null,
  trim: null,
  background: null,
  brush: { mode: "erase", acrossMm: 4, hex: "#1e1d1a" },
  // A slightly uneven background wants 20 to 25 (common practice, no source).
  pick: { tolerance: 22, reach: "connected" },
  sketch: [],
};

export type ChangeDesk = (part: Partial<Desk>) => void;

/** Whether something in hand wants an answer before the step is left. */
export function isUnanswered({ tool, draft, trim, background, section }: Desk): boolean {
  return (
    tool !== null ||
    draft !== null ||
    (trim !== null && trim !== "none") ||
    (section === "background" && background !== null)
  );
}

/**
 * The actions as the table shows them: with what is only tried, and, while the frame itself is edited, without that entry and
 * the upright ones after it, so that there is something to drag the frame over.
 */
export function actionsOnTable(actions: readonly Action[], { tool, draft }: Desk): readonly Action[] {
  const all = draft ? [...actions, draft] : actions;
  if (tool?.kind !== "crop" && tool?.kind !== "corners") return all;
  const at = all.findIndex(({ id }) => id === tool.id);
  return at < 0 ? all : all.map((action, i) => (i >= at && isUpright(action) ? { ...action, isOn: false } : action));
}
