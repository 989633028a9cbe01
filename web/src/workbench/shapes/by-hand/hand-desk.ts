// What is in hand while shapes are changed: the way of working, what is picked, and the entry that its numbers belong to.
import {
  type HandEdge,
  type LineChange,
  moveNodes,
  type NodeRef,
  nodesAt,
  type ShapePick,
} from "@plain-palette/core/edit";
import { type Frame, invertMap, mapLine, mapPoint, type Point } from "@plain-palette/core/raster";
import { makeShapeEntry, type ShapeEntry } from "@plain-palette/core/recipe";
import { useState } from "react";
import type { HandView } from "../../../compute/messages.ts";
import { useJob } from "../../../job/use-job.ts";
import { nextEntryId } from "../../areas/entry-ids.ts";

export const HAND_MODES = ["lines", "pieces", "draw", "part", "brush"] as const;
export type HandMode = (typeof HAND_MODES)[number];

/** A drag on the table: from where to where, prepared pixels, and what was taken hold of. */
export interface Drag {
  readonly from: Point;
  readonly to: Point;
  readonly holds:
    | { readonly kind: "nodes" }
    | {
        readonly kind: "handle";
        readonly edge: number;
        readonly s: number;
        readonly which: 0 | 1;
        readonly isCorner: boolean;
      }
    | { readonly kind: "line"; readonly edge: number; readonly s: number; readonly t: number }
    | { readonly kind: "box"; readonly adds: boolean }
    | { readonly kind: "loop"; readonly adds: boolean; readonly points: readonly number[] }
    | { readonly kind: "pieces" }
    /** A corner of the picked pieces' box, or what turns them, about its middle. */
    | { readonly kind: "scale" | "turn"; readonly about: Point }
    | { readonly kind: "sketch"; readonly points: readonly number[] };
}

export type FigureKind = "circle" | "ellipse" | "rectangle" | "polygon" | "line" | "curve" | "outline";

/** Settings of what is drawn next. Lengths mm. */
export interface DrawSettings {
  readonly figure: FigureKind;
  /** Null: a hole to the garment; undefined: the first spot. */
  readonly spotId: string | null | undefined;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly radiusMm: number;
  readonly corners: number;
  readonly lineMm: number;
  readonly isHeld: boolean;
}

export interface PartSettings {
  readonly act: "part" | "join";
  readonly isFree: boolean;
  readonly gapMm: number;
  readonly bridgeMm: number;
  /** What the gap becomes; null: the garment. */
  readonly becomes: string | null;
}

export interface BrushSettings {
  readonly does: "smooth" | "straighten";
  readonly radiusMm: number;
  readonly strengthMm: number;
  readonly keepsCorners: boolean;
}

interface MoveBase {
  readonly edges: readonly HandEdge[];
  readonly refs: readonly NodeRef[];
  readonly dx: number;
  readonly dy: number;
  /** The new lines as they were taken over. */
  readonly taken: string;
}

export interface HandState {
  readonly mode: HandMode;
  readonly picksBy: "box" | "loop";
  /** Places of picked nodes, and of the place on a line that was clicked, prepared pixels. */
  readonly nodes: readonly Point[];
  readonly onLine: Point | null;
  /** What picked nodes are moved from, and how far already, px: moved once more, the same entry goes on. */
  readonly base: MoveBase | null;
  readonly shapes: readonly ShapePick[];
  /** A place in a hole to the garment that is picked. */
  readonly hole: Point | null;
  /** Whether the next click picks the shape in whose place the picked one is put. */
  readonly seeksPlace: boolean;
  /** Nodes of an outline that is being drawn, x, y pairs. */
  readonly outline: readonly number[];
  readonly entryId: string | null;
  /** Why the last thing that was tried did nothing. */
  readonly refusal: string | null;
  readonly drag: Drag | null;
  readonly draw: DrawSettings;
  readonly part: PartSettings;
  readonly brush: BrushSettings;
}

/** Nothing is picked, nothing begun. */
export const NOT_PICKED = {
  ...{ nodes: [], onLine: null, base: null, shapes: [], hole: null, seeksPlace: false },
  ...{ outline: [], entryId: null, refusal: null, drag: null },
} as const satisfies Partial<HandState>;

const EMPTY: HandState = {
  ...NOT_PICKED,
  mode: "lines",
  picksBy: "box",
  draw: {
    figure: "circle",
    spotId: undefined,
    widthMm: 5,
    heightMm: 3,
    radiusMm: 0,
    corners: 6,
    lineMm: 1,
    isHeld: false,
  },
  part: { act: "part", isFree: false, gapMm: 0.5, bridgeMm: 1, becomes: null },
  brush: { does: "smooth", radiusMm: 3, strengthMm: 2, keepsCorners: true },
};

const NO_EDGES: readonly HandEdge[] = [];
export const NO_LINES: HandView["replaced"] = [];

export interface HandDesk extends HandState {
  readonly edges: readonly HandEdge[];
  readonly faces: HandView["faces"];
  readonly replaced: HandView["replaced"];
  readonly mmPerPx: number;
  readonly entries: readonly ShapeEntry[];
  /** The picked nodes as the map has them. */
  readonly refs: readonly NodeRef[];
  change(part: Partial<HandState>): void;
  letGo(): void;
  /** Takes changes of lines over; with the entry in hand, if they go on where it ended. */
  takeLines(changes: readonly LineChange[], then?: Partial<HandState>): void;
  /** Moves picked nodes, px; at once, however many times, before the map is made again. */
  moveNodesBy(dx: number, dy: number): void;
  /** Takes an entry over and has it in hand. */
  take(parts: EntryParts, then?: Partial<HandState>): void;
  setEntries(entries: readonly ShapeEntry[]): void;
  /** The entry whose numbers are shown; null: none. */
  readonly inHand: ShapeEntry | null;
  /** Puts another one in place of the entry in hand. */
  changeInHand(entry: ShapeEntry, then?: Partial<HandState>): void;
  toSource(place: Point): Point;
  lineToSource(points: ArrayLike<number>): number[];
  toPrepared(place: Point): Point;
}

type EntryParts = Parameters<typeof makeShapeEntry>[0] extends infer E
  ? E extends unknown
    ? Omit<E, "id" | "isOn">
    : never
  : never;

/** Picked nodes are the same ones if they are this near, px: taking a change over rounds. */
const SAME_PX = 0.01;
/** Places are kept to a ten-thousandth of a pixel. */
const fine = (value: number) => Math.round(value * 1e4) / 1e4;

/** From prepared pixels to the client's and back. */
function placesBy(frame: Frame | null): Pick<HandDesk, "toSource" | "lineToSource" | "toPrepared"> {
  if (!frame) {
    const same = (place: Point) => place;
    return { toSource: same, lineToSource: (points) => Array.from(points), toPrepared: same };
  }
  return {
    toSource: (place) => {
      const { x, y } = mapPoint(frame.toSource, place);
      return { x: fine(x), y: fine(y) };
    },
    lineToSource: (points) => mapLine(frame.toSource, Array.from(points)).map(fine),
    toPrepared: (place) => mapPoint(invertMap(frame.toSource), place),
  };
}

export function useHandDesk(hand: HandView | null, frame: Frame | null, mmPerPx: number): HandDesk {
  const [kept, setState] = useState<HandState>(EMPTY);
  const { entries } = useJob((store) => store.recipe.shapes);
  const edit = useJob((store) => store.edit);
  const edges = hand?.edges ?? NO_EDGES;
  const inHand = entries.find(({ id }) => id === kept.entryId) ?? null;
  const lineInHand = inHand?.kind === "line" && inHand.isOn && inHand === entries.at(-1) ? inHand : null;
  // What was moved and taken back since is not where it was picked.
  const isGone = kept.base !== null && (!lineInHand || linesOf(lineInHand.changes) !== kept.base.taken);
  const state: HandState = isGone ? { ...kept, ...NOT_PICKED } : kept;
  const refs = state.nodes.flatMap((place) => nodesAt(edges, place, SAME_PX));
  // What is picked anew is moved from where it is then.
  const change = (part: Partial<HandState>) =>
    setState((old) => ({ ...old, ...(part.nodes && !part.base ? { base: null } : {}), ...part }));
  const setEntries = (next: readonly ShapeEntry[]) =>
    edit((r) => ({ ...r, shapes: { ...r.shapes, entries: [...next] } }));
  const places = placesBy(frame);
  const placeChange = (one: LineChange) => ({
    ...one,
    was: places.lineToSource(one.was),
    now: places.lineToSource(one.now),
  });
  const take: HandDesk["take"] = (parts, then = {}) => {
    const id = nextEntryId(entries, "edit");
    const entry = tryEntry({ ...parts, id } as Parameters<typeof makeShapeEntry>[0]);
    if (!entry) {
      change({ drag: null, refusal: "That is too much for one edit: pick less of it." });
      return;
    }
    setEntries([...entries, entry]);
    change({ drag: null, entryId: id, refusal: null, ...then });
  };
  const changeInHand: HandDesk["changeInHand"] = (entry, then = {}) => {
    setEntries(entries.map((one) => (one.id === entry.id ? entry : one)));
    change({ drag: null, refusal: null, ...then });
  };
  const takeLines: HandDesk["takeLines"] = (changes, then = {}) => {
    const placed = changes.map(placeChange);
    const before = lineInHand?.changes ?? [];
    const goesOn =
      before.length === placed.length && placed.every(({ was }, k) => isSameLine(was, before[k]?.now ?? []));
    if (placed.length === 0) change({ drag: null });
    else if (!lineInHand || !goesOn) take({ kind: "line", changes: placed }, { base: null, ...then });
    else {
      const whole = placed.map((one, k) => ({ ...one, was: before[k]?.was ?? one.was }));
      changeInHand({ ...lineInHand, changes: whole }, { base: null, ...then });
    }
  };
  const moveNodesBy = (dx: number, dy: number) => {
    const base = state.base ?? { edges, refs, dx: 0, dy: 0 };
    const way = { dx: base.dx + dx, dy: base.dy + dy };
    const changes = moveNodes(base.edges, base.refs, () => [way.dx, way.dy]).map(placeChange);
    if (changes.length === 0) return;
    const nodes = state.nodes.map(({ x, y }) => ({ x: x + dx, y: y + dy }));
    const then = { nodes, onLine: null, base: { ...base, ...way, taken: linesOf(changes) } };
    if (state.base && lineInHand) changeInHand({ ...lineInHand, changes }, then);
    else take({ kind: "line", changes }, then);
  };
  return {
    ...state,
    ...places,
    ...{ edges, refs, mmPerPx, entries, inHand },
    faces: hand?.faces ?? [],
    replaced: state.entryId === entries.at(-1)?.id ? (hand?.replaced ?? NO_LINES) : NO_LINES,
    ...{ change, take, takeLines, changeInHand, moveNodesBy, setEntries },
    letGo: () => change(NOT_PICKED),
  };
}

/** The entry, or null where it is larger than one may be. */
export function tryEntry(parts: Parameters<typeof makeShapeEntry>[0]): ShapeEntry | null {
  try {
    return makeShapeEntry(parts);
  } catch {
    return null;
  }
}

/** The new lines of changes, to compare. */
function linesOf(changes: readonly { readonly now: readonly number[] }[]): string {
  return JSON.stringify(changes.map(({ now }) => now));
}

function isSameLine(a: readonly number[], b: readonly number[]): boolean {
  return a.length === b.length && a.every((v, i) => Math.abs(v - (b[i] ?? 0)) < SAME_PX);
}

/** Client's pixels to a prepared one. */
export function sourceScale({ toSource }: Pick<HandDesk, "toSource">): number {
  const [a, b] = [toSource({ x: 0, y: 0 }), toSource({ x: 1000, y: 0 })];
  return Math.hypot(b.x - a.x, b.y - a.y) / 1000;
}

/** The lengths of a figure, grown. */
export function scaledBy(figure: { width: number; height?: number; radius?: number }, by: number) {
  const { width, height, radius } = figure;
  return {
    width: width * by,
    ...(height === undefined ? {} : { height: height * by }),
    ...(radius === undefined ? {} : { radius: radius * by }),
  };
}
