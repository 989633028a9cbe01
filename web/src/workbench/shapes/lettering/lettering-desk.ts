// What is in hand while words are set: the line, a letter of it, old letters that are marked, and what a drag has hold of.
import type { ListedTypeface } from "@plain-palette/contract";
import type { ShapePick } from "@plain-palette/core/edit";
import type { CubicPath } from "@plain-palette/core/geometry";
import type { Lettering } from "@plain-palette/core/lettering";
import type { Frame, Point } from "@plain-palette/core/raster";
import { LETTERING_LIMITS, type LetteringEntry, makeShapeEntry, type ShapeEntry } from "@plain-palette/core/recipe";
import { useState } from "react";
import type { HandView, LetteringView } from "../../../compute/messages.ts";
import { useJob } from "../../../job/use-job.ts";
import { useTypefaces } from "../../../shop/use-typefaces.ts";
import { nextEntryId } from "../../areas/entry-ids.ts";
import { tryEntry } from "../by-hand/hand-desk.ts";
import { shapeAt } from "../by-hand/pieces-tool.ts";
import { baselineToEntry, perPrepared, toClient } from "./places.ts";

/** What a press on the table does: works on lines, marks old letters, picks the edge that letters stand along, or one of three points of an arc. */
export type LetteringWay = "set" | "mark" | "edge" | "points";

/** What a line can be taken hold of by, and its picked letter. */
export type GripKind =
  | ("turn" | "size" | "width" | "slant" | "bend" | "spacing" | "leading" | "outline" | "shadow")
  | ("letter-turn" | "letter-size");

export interface LetteringDrag {
  readonly from: Point;
  readonly to: Point;
  readonly holds:
    | { readonly kind: "box" }
    | { readonly kind: "loop"; readonly points: readonly number[] }
    /** A grip, the line or a letter of it, with how it was set when it was taken hold of. */
    | { readonly kind: GripKind | "line" | "letter"; readonly entry: LetteringEntry; readonly view: LetteringView };
}

interface LetteringState {
  readonly way: LetteringWay;
  readonly entryId: string | null;
  /** Whether the words of a line that is taken in hand are typed next; picked on the table, it is moved. */
  readonly isTyping: boolean;
  /** Where in the text the picked letter begins. */
  readonly letter: number | null;
  readonly marksBy: "box" | "loop";
  readonly marked: readonly ShapePick[];
  /** Which spots of what is marked are letters. */
  readonly markedSpots: readonly string[];
  /** What the marked letters say. */
  readonly says: string;
  /** Of three points of an arc, those that are picked. */
  readonly points: readonly Point[];
  /** Outlines of a proposal that is looked at. */
  readonly tried: readonly CubicPath[];
  readonly drag: LetteringDrag | null;
  readonly over: GripKind | null;
  /** How much of the source shows under the lettering, 0..1. */
  readonly fade: number;
}

const EMPTY: LetteringState = {
  way: "set",
  entryId: null,
  isTyping: false,
  letter: null,
  marksBy: "box",
  marked: [],
  markedSpots: [],
  says: "",
  points: [],
  tried: [],
  drag: null,
  over: null,
  fade: 0.35,
};

export interface LetteringDesk extends LetteringState {
  readonly faces: HandView["faces"];
  readonly views: readonly LetteringView[];
  readonly mmPerPx: number;
  readonly frame: Frame | null;
  /** Entries of lettering, and the one in hand with how it is set. */
  readonly lines: readonly LetteringEntry[];
  readonly inHand: LetteringEntry | null;
  readonly view: LetteringView | null;
  readonly typefaces: readonly ListedTypeface[];
  change(part: Partial<LetteringState>): void;
  /** Leaves what is being picked on the table; if nothing is, the line. */
  letGo(): void;
  setLine(entry: LetteringEntry, then?: Partial<LetteringState>): void;
  removeLine(id: string): void;
  /** A new line where nothing is yet, in the middle of the picture. */
  addLine(size: { readonly width: number; readonly height: number }, spotId: string | null): void;
  /** Takes the marked letters away, and sets words over them if they are given. */
  replaceMarked(words: { readonly lettering: Lettering; readonly typeface: LetteringEntry["typeface"] } | null): void;
  readonly isTooMuch: boolean;
  /** Outlines of the marked letters; none where that is too much at a time. */
  readonly markedPaths: readonly CubicPath[];
}

/** One act takes so many shapes away. */
export const MOST_MARKED = 400;
/** Height of capitals of a new line, as a share of the picture's. */
const FIRST_SHARE = 0.1;
/** What a new line is set in until another is chosen. */
export const FIRST_TYPEFACE = { id: "public-sans-700", name: "Public Sans Bold" } as const;

export const nameOfTypeface = ({ family, style }: ListedTypeface) =>
  style === "Regular" ? family : `${family} ${style}`;

export function useLetteringDesk(
  hand: HandView | null,
  views: readonly LetteringView[],
  frame: Frame | null,
  mmPerPx: number,
): LetteringDesk {
  const [state, setState] = useState<LetteringState>(EMPTY);
  const { entries } = useJob((store) => store.recipe.shapes);
  const edit = useJob((store) => store.edit);
  const typefaces = useTypefaces();
  const change = (part: Partial<LetteringState>) => setState((old) => ({ ...old, ...part }));
  const setEntries = (next: (entries: readonly ShapeEntry[]) => readonly ShapeEntry[]) =>
    edit((r) => ({ ...r, shapes: { ...r.shapes, entries: [...next(r.shapes.entries)] } }));
  const lines = entries.filter((one) => one.kind === "lettering");
  const inHand = lines.find(({ id }) => id === state.entryId) ?? null;
  const faces = hand?.faces ?? [];
  const marked = state.marked.filter(({ spotId }) => state.markedSpots.includes(spotId));
  const isTooMuch = marked.length > MOST_MARKED;
  const markedPaths = (isTooMuch ? [] : marked).flatMap(({ at, spotId }) => {
    const face = faces[shapeAt(faces, at)];
    return face?.spotId === spotId ? face.paths : [];
  });
  const add = (made: readonly ShapeEntry[], then: Partial<LetteringState>) => {
    setEntries((old) => [...old, ...made]);
    change(then);
  };
  return {
    ...state,
    ...{ faces, views, mmPerPx, frame, lines, inHand, typefaces, change, isTooMuch, markedPaths },
    view: views.find(({ id }) => id === inHand?.id) ?? null,
    letGo() {
      const isPicking = state.way === "edge" || state.way === "points";
      if (isPicking) change({ way: "set", points: [], drag: null });
      else change({ entryId: null, letter: null, drag: null });
    },
    setLine(entry, then = {}) {
      // What a recipe would not take, as a letter dragged far off, stays as it was.
      const taken = tryEntry(entry);
      if (taken) setEntries((old) => old.map((one) => (one.id === entry.id ? taken : one)));
      change(then);
    },
    removeLine(id) {
      setEntries((old) => old.filter((one) => one.id !== id));
      change({ entryId: null, letter: null });
    },
    addLine(size, spotId) {
      if (!frame) return;
      const id = nextEntryId(entries, "edit");
      const at = { x: size.width / 2, y: size.height / 2 };
      const baseline = baselineToEntry({ kind: "line", at, along: { x: 1, y: 0 }, radius: null }, frame);
      const capPx = size.height * FIRST_SHARE * perPrepared(frame, at);
      const typeface = inHand?.typeface ?? FIRST_TYPEFACE;
      const made = makeShapeEntry({ id, kind: "lettering", text: "Words", typeface, baseline, capPx, spotId });
      add([made], { entryId: id, isTyping: true, letter: null, way: "set" });
    },
    replaceMarked(words) {
      if (!frame || marked.length === 0 || isTooMuch) return;
      const id = nextEntryId(entries, "edit");
      const picks = marked.map(({ at, spotId }) => ({ at: toClient(frame, at), spotId }));
      const away = makeShapeEntry({ id, kind: "pieces", picks, stays: "away" });
      if (!words) {
        add([away], { marked: [], tried: [], way: "set" });
        return;
      }
      const { lettering, typeface } = words;
      const next = nextEntryId([...entries, away], "edit");
      const line = makeShapeEntry({
        ...{ id: next, kind: "lettering", typeface, spotId: mostOf(marked) },
        ...settingsOf(lettering, frame),
      } as Parameters<typeof makeShapeEntry>[0]);
      add([away, line], { entryId: next, isTyping: true, letter: null, marked: [], tried: [], way: "set" });
    },
  };
}

/** Letters found to be that near to upright (degrees) and to their own width (percent) were drawn so. */
const NEAR_USUAL = 0.8;

/** The settings of an entry for lettering that is set in prepared pixels; numbers as a person would type them. */
function settingsOf(
  { text, baseline, capHeight, widthPercent, slantDeg, letterSpacing, lineSpacing, align }: Lettering,
  frame: Frame,
) {
  const at = baseline.kind === "line" ? baseline.at : { x: baseline.path[0] ?? 0, y: baseline.path[1] ?? 0 };
  const round = (value: number) => Number(value.toFixed(1));
  return {
    ...{ text, align, baseline: baselineToEntry(baseline, frame) },
    capPx: Number((capHeight * perPrepared(frame, at)).toFixed(3)),
    widthPercent: Math.abs(widthPercent - 100) < NEAR_USUAL ? 100 : round(widthPercent),
    slantDeg: Math.abs(slantDeg) < NEAR_USUAL ? 0 : round(slantDeg),
    letterSpacing: round(letterSpacing),
    lineSpacing: Math.round(Math.max(LETTERING_LIMITS.lineSpacing.min, lineSpacing)),
  };
}

/** The spot of most of them. */
function mostOf(picks: readonly ShapePick[]): string {
  const counts = new Map<string, number>();
  for (const { spotId } of picks) counts.set(spotId, (counts.get(spotId) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? "";
}
