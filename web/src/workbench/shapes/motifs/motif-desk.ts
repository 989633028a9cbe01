// What is in hand while motifs are kept and placed: shapes that are picked, the entry and its place, and what a drag holds.
import type { ListedMotif } from "@plain-palette/contract";
import type { ShapePick } from "@plain-palette/core/edit";
import { type Bounds, boundsOfAll } from "@plain-palette/core/geometry";
import { keepMotif, type Motif, type MotifPlace } from "@plain-palette/core/motif";
import { type Frame, invertMap, type Point } from "@plain-palette/core/raster";
import { type MotifEntry, placesOf } from "@plain-palette/core/recipe";
import type { Spot } from "@plain-palette/core/reduce";
import { useState } from "react";
import { api } from "../../../api/client.ts";
import type { HandView } from "../../../compute/messages.ts";
import { useJob } from "../../../job/use-job.ts";
import { useMotifContent, useMotifsOf } from "../../../shop/use-motifs.ts";
import type { ArtSize } from "../../drawn-trace.ts";
import { tryEntry } from "../by-hand/hand-desk.ts";
import { pickedPieces, placeIn, shapeAt } from "../by-hand/pieces-tool.ts";
import { perPrepared, toClient } from "../lettering/places.ts";
import { jobSpot, placeMotif, removeMotif, takeOver } from "./place-motif.ts";

/** What a press on the table does: works on placed motifs, or picks shapes. */
export type MotifWay = "place" | "pick";

export interface MotifDrag {
  readonly from: Point;
  readonly to: Point;
  readonly holds: "place" | "size" | "turn" | "step";
  /** The entry as it was when it was taken hold of. */
  readonly entry: MotifEntry;
}

interface MotifState {
  readonly way: MotifWay;
  readonly picked: readonly ShapePick[];
  readonly entryId: string | null;
  /** Which of the entry's places is in hand. */
  readonly place: number;
  readonly drag: MotifDrag | null;
}

const EMPTY: MotifState = { way: "place", picked: [], entryId: null, place: 0, drag: null };

/** An entry with where each of its copies lies, prepared pixels; those of its first place first. */
export interface PlacedMotif {
  readonly entry: MotifEntry;
  readonly copies: readonly MotifPlace[];
}

export interface MotifDesk extends MotifState {
  readonly faces: HandView["faces"];
  readonly frame: Frame | null;
  readonly mmPerPx: number;
  readonly placed: readonly PlacedMotif[];
  readonly inHand: PlacedMotif | null;
  /** Of the entry in hand, once it is here. */
  readonly content: Motif | null;
  /** The motifs that entries place, by the content that they name: with the content in force now. */
  readonly motifsOf: ReadonlyMap<string, ListedMotif>;
  /** Shapes that are picked, with what they enclose. */
  readonly pickedFaces: HandView["faces"];
  change(part: Partial<MotifState>): void;
  letGo(): void;
  setEntry(entry: MotifEntry, then?: Partial<MotifState>): void;
  remove(id: string): void;
  /** In the middle of the picture at its true size, or as large as fits. */
  placeOne(motif: ListedMotif, size: ArtSize): Promise<void>;
  /** In place of every shape that is picked, as wide as it. */
  replacePicked(motif: ListedMotif): Promise<void>;
  /** The content in force now in place of the one that an entry names. */
  renew(entry: MotifEntry): Promise<void>;
  /** Picks all shapes that are of the colour and about the size of those that are picked. */
  pickAlike(): void;
  /** Shapes as a motif: those that are picked, or all. */
  made(isWhole: boolean, spots: readonly Spot[]): Motif | null;
}

/** The widest that a motif is placed by itself, as a share of the picture. */
const MOST_SHARE = 0.9;
/** Shapes are alike whose box differs by no more, as a share of it. */
const ALIKE = 0.12;

export function useMotifDesk(
  hand: HandView | null,
  spots: readonly Spot[],
  frame: Frame | null,
  mmPerPx: number,
): MotifDesk {
  const [state, setState] = useState<MotifState>(EMPTY);
  const recipe = useJob((store) => store.recipe);
  const edit = useJob((store) => store.edit);
  const change = (part: Partial<MotifState>) => setState((old) => ({ ...old, ...part }));
  const faces = hand?.faces ?? [];
  const toPrepared = frame && invertMap(frame.toSource);
  const entries = recipe.shapes.entries.filter((one) => one.kind === "motif");
  const placed = entries.map((entry) => ({ entry, copies: toPrepared ? placesOf(entry, toPrepared) : [] }));
  const inHand = placed.find(({ entry }) => entry.id === state.entryId) ?? null;
  const content = useMotifContent(inHand?.entry.motif.hash ?? null);
  const motifsOf = useMotifsOf([...new Set(entries.map(({ motif }) => motif.hash))]);
  const inks = spots.filter(({ role }) => role === "ink");
  const there = (now: typeof recipe) => inks.map((spot) => jobSpot(spot, now));
  const pickedFaces = pickedPieces(faces, state.picked);
  const place = async (
    motif: ListedMotif,
    how: (content: Motif) => Parameters<typeof placeMotif>[3] | null,
  ): Promise<void> => {
    const loaded = await api.motifContent(motif.hash);
    const where = how(loaded);
    if (!where) return;
    let id: string | null = null;
    edit((now) => {
      const done = placeMotif(now, { listed: motif, content: loaded }, there(now), where);
      id = done.entry.id;
      return done.recipe;
    });
    change({ entryId: id, place: 0, way: "place", picked: [], drag: null });
  };
  return {
    ...state,
    ...{ faces, frame, mmPerPx, placed, inHand, content, motifsOf, pickedFaces, change },
    letGo: () => change(state.way === "pick" ? { way: "place", picked: [] } : { entryId: null, drag: null }),
    setEntry(entry, then = {}) {
      // What a recipe would not take, as a place dragged far off, stays as it was.
      const taken = tryEntry(entry);
      if (taken)
        edit((now) => ({
          ...now,
          shapes: { ...now.shapes, entries: now.shapes.entries.map((one) => (one.id === entry.id ? taken : one)) },
        }));
      change(then);
    },
    remove(id) {
      edit((now) => removeMotif(now, id));
      change({ entryId: null });
    },
    placeOne: (motif, size) =>
      place(motif, ({ widthMm, heightMm }) => {
        if (!frame) return null;
        const middle = { x: size.width / 2, y: size.height / 2 };
        const most = Math.min(size.width, (size.height * widthMm) / heightMm) * MOST_SHARE;
        const widthPx = Math.min(widthMm / mmPerPx, most) * perPrepared(frame, middle);
        return { places: [{ at: toClient(frame, middle), widthPx, angleDeg: 0, isFlipped: false }] };
      }),
    replacePicked: (motif) =>
      place(motif, (loaded) => {
        const places = frame ? placesInstead(faces, state.picked, loaded, frame) : [];
        const over = frame ? state.picked.map(({ at, spotId }) => ({ at: toClient(frame, at), spotId })) : [];
        return places.length > 0 ? { places, over } : null;
      }),
    async renew(entry) {
      const motif = motifsOf.get(entry.motif.hash);
      if (!motif) return;
      const [before, loaded] = await Promise.all([api.motifContent(entry.motif.hash), api.motifContent(motif.hash)]);
      edit((now) => takeOver(now, entry, before, { listed: motif, content: loaded }, there(now)).recipe);
    },
    pickAlike: () => change({ picked: alikeTo(faces, state.picked) }),
    made: (isWhole, own) => {
      const kept = own
        .filter(({ role }) => role === "ink")
        .map((spot) => ({ ...spot, stock: recipe.colours.decided[spot.id]?.stock ?? null }));
      return keepMotif(isWhole ? faces : pickedFaces, kept, mmPerPx);
    },
  };
}

type Faces = HandView["faces"];

function pickedBoxes(faces: Faces, picked: readonly ShapePick[]): (Bounds & { readonly spotId: string })[] {
  return picked.flatMap(({ at, spotId }) => {
    const face = faces[shapeAt(faces, at)];
    return face ? [{ ...boundsOfAll(face.paths), spotId }] : [];
  });
}

/** Where a motif goes that is put in place of shapes: in the middle of each, as large as it. */
function placesInstead(
  faces: Faces,
  picked: readonly ShapePick[],
  { widthMm, heightMm }: Motif,
  frame: Frame,
): MotifEntry["places"] {
  return pickedBoxes(faces, picked).map(({ left, right, top, bottom }) => {
    const middle = { x: (left + right) / 2, y: (top + bottom) / 2 };
    const wide = Math.min(right - left, ((bottom - top) * widthMm) / heightMm);
    return { at: toClient(frame, middle), widthPx: wide * perPrepared(frame, middle), angleDeg: 0, isFlipped: false };
  });
}

/** Shapes that are of the colour and about the size of one of those that are picked. */
function alikeTo(faces: Faces, picked: readonly ShapePick[]): ShapePick[] {
  const boxes = pickedBoxes(faces, picked);
  const near = (a: number, b: number) => Math.abs(a - b) <= ALIKE * Math.max(a, b);
  return faces.flatMap((face) => {
    const box = boundsOfAll(face.paths);
    const isAlike = boxes.some(
      (one) =>
        one.spotId === face.spotId &&
        near(box.right - box.left, one.right - one.left) &&
        near(box.bottom - box.top, one.bottom - one.top),
    );
    return isAlike ? [{ at: placeIn(face), spotId: face.spotId }] : [];
  });
}
