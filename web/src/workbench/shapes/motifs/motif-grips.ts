// Grips of a placed motif, and what dragging one makes of the entry.

import type { MotifPlace } from "@plain-palette/core/motif";
import type { Frame, Point } from "@plain-palette/core/raster";
import { turn } from "@plain-palette/core/raster";
import type { MotifEntry } from "@plain-palette/core/recipe";
import { perPrepared, toClient, wayToClient } from "../lettering/places.ts";
import type { MotifDrag, PlacedMotif } from "./motif-desk.ts";

export interface Grip extends Point {
  readonly kind: Exclude<MotifDrag["holds"], "place">;
}

export const GRIP_WORDS: Readonly<Record<Grip["kind"], string>> = {
  size: "Size",
  turn: "Turn",
  step: "To the next one",
};

/** How far above its box what turns a motif is, as a share of its height. */
const TURN_UP = 0.2;

/** A place of a motif's box on the table, as shares of its half width and height from its middle. */
export function onBox(
  { x, y, matrix: [a, b, c, d] }: MotifPlace,
  { motif }: MotifEntry,
  right: number,
  down: number,
): Point {
  const [px, py] = [(right * motif.widthMm) / 2, (down * motif.heightMm) / 2];
  return { x: x + a * px + b * py, y: y + c * px + d * py };
}

/** The copy that a place is handled by: the first of its row, the middle one of an arc. */
export function copyOf({ entry, copies }: PlacedMotif, place: number): MotifPlace | undefined {
  const each = copies.length / entry.places.length;
  const own = entry.row?.kind === "arc" && Math.abs(entry.row.spanDeg) < 360 ? Math.floor((each - 1) / 2) : 0;
  return copies[place * each + own];
}

export function gripsOf(placed: PlacedMotif, place: number): Grip[] {
  const { entry, copies } = placed;
  const copy = copyOf(placed, place);
  if (!copy) return [];
  const each = copies.length / entry.places.length;
  const next = entry.row?.kind === "grid" && entry.row.columns > 1 ? copies[place * each + 1] : undefined;
  return [
    { kind: "size", ...onBox(copy, entry, 1, 1) },
    { kind: "turn", ...onBox(copy, entry, 0, -1 - 2 * TURN_UP) },
    ...(next ? [{ kind: "step" as const, x: next.x, y: next.y }] : []),
  ];
}

const RIGHT_DEG = 180 / Math.PI;
/** A turn comes to rest at whole steps with Shift held. */
const STEP_DEG = 15;

/** The entry as a drag makes it; with `isStraight` moves keep to one way and turns to steps. */
export function dragged(
  { from, to, holds, entry }: MotifDrag,
  place: number,
  placed: PlacedMotif,
  frame: Frame,
  isStraight: boolean,
): MotifEntry {
  const copy = copyOf(placed, place);
  const own = entry.places[place];
  if (!copy || !own) return entry;
  const put = (part: Partial<MotifEntry["places"][number]>): MotifEntry => ({
    ...entry,
    places: entry.places.map((one, k) => (k === place ? { ...one, ...part } : one)),
  });
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  switch (holds) {
    case "place": {
      const isLevel = Math.abs(dx) > Math.abs(dy);
      return moved(entry, place, isStraight && !isLevel ? 0 : dx, isStraight && isLevel ? 0 : dy, frame);
    }
    case "size": {
      const far = ({ x, y }: Point) => Math.hypot(x - copy.x, y - copy.y);
      return put({ widthPx: Math.max(0.5, (own.widthPx * far(to)) / (far(from) || 1)) });
    }
    case "turn": {
      const angle = ({ x, y }: Point) => Math.atan2(y - copy.y, x - copy.x) * RIGHT_DEG;
      const by = angle(to) - angle(from);
      const angleDeg = own.angleDeg + by;
      return put({ angleDeg: withinTurn(isStraight ? Math.round(angleDeg / STEP_DEG) * STEP_DEG : angleDeg) });
    }
    case "step": {
      if (entry.row?.kind !== "grid") return entry;
      const way = wayToClient(frame, copy, to.x - copy.x, to.y - copy.y);
      const stepX = Math.max(0.5, Math.hypot(way.x, way.y));
      const angleDeg = withinTurn(Math.atan2(way.y, way.x) * RIGHT_DEG);
      return {
        ...entry,
        row: { ...entry.row, stepX, angleDeg: isStraight ? Math.round(angleDeg / 45) * 45 : angleDeg },
      };
    }
  }
}

/** A place moved by a way on the table. */
export function moved(entry: MotifEntry, place: number, dx: number, dy: number, frame: Frame): MotifEntry {
  const own = entry.places[place];
  if (!own) return entry;
  const origin = toClient(frame, { x: 0, y: 0 });
  const way = toClient(frame, { x: dx, y: dy });
  const at = { x: own.at.x + way.x - origin.x, y: own.at.y + way.y - origin.y };
  return { ...entry, places: entry.places.map((one, k) => (k === place ? { ...one, at } : one)) };
}

/** Degrees from -180 to 180, to a hundredth. */
export function withinTurn(deg: number): number {
  return Number((deg - 360 * Math.round(deg / 360)).toFixed(2));
}

/** A grid's steps that leave so wide a gap between one and the next, client's pixels. */
export function stepsWithGap({ motif, places }: MotifEntry, gapMm: number, perMm: number) {
  const [own] = places;
  const scale = (own?.widthPx ?? 0) / motif.widthMm;
  const { sin, cos } = turn(own?.angleDeg ?? 0);
  const wide = Math.abs(motif.widthMm * cos) + Math.abs(motif.heightMm * sin);
  const high = Math.abs(motif.widthMm * sin) + Math.abs(motif.heightMm * cos);
  return { stepX: wide * scale + gapMm * perMm, stepY: high * scale + gapMm * perMm };
}

/** Client's pixels to a millimetre on the garment at a place. */
export function perMmAt(frame: Frame, at: Point, mmPerPx: number): number {
  return perPrepared(frame, at) / mmPerPx;
}
