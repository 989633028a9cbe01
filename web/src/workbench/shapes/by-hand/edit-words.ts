// Edits in words, as the list names them, and where they are.

import { copiesIn } from "@plain-palette/core/motif";
import type { Point } from "@plain-palette/core/raster";
import type { ShapeEntry } from "@plain-palette/core/recipe";
import type { Spot } from "@plain-palette/core/reduce";
import { count } from "../../../parts/count.ts";
import type { HandMode } from "./hand-desk.ts";

const FIGURES = {
  ellipse: "An ellipse",
  rectangle: "A rectangle",
  polygon: "A polygon",
  stroke: "A line",
  outline: "An outline",
} as const;

/** What an entry does. */
export function sayEdit(entry: ShapeEntry, spots: readonly Spot[], sourceMmPerPx: number): string {
  const nameOf = (spotId: string | null) =>
    spotId === null ? "the garment" : (spots.find(({ id }) => id === spotId)?.name ?? "a colour that is gone");
  const mm = (px: number) => `${(px * sourceMmPerPx).toFixed(2)} mm`;
  switch (entry.kind) {
    case "simplify":
      return `Fewer nodes: ${{ all: "all shapes", spot: entry.scope.kind === "spot" ? nameOf(entry.scope.spotId) : "", shape: "one shape" }[entry.scope.kind]}, ${entry.tolerancePx} px`;
    case "line":
      return entry.changes.length === 1 ? "A line changed" : `${count(entry.changes.length, "line")} changed`;
    case "draw":
      return sayDrawn(entry, nameOf, mm);
    case "cut":
      return `${nameOf(entry.spotId)} parted, no gap`;
    case "pieces":
      return sayPieces(entry, nameOf);
    case "round":
      return `A true circle of ${entry.diameterMm} mm, held`;
    case "lettering":
      return `"${entry.text.replace(/\s+/g, " ")}" in ${entry.typeface.name}`;
    case "motif":
      return sayMotif(entry);
    case "brush":
      return `A stretch ${entry.does === "smooth" ? "smoothed" : "straightened"}`;
  }
}

type Of<K extends ShapeEntry["kind"]> = Extract<ShapeEntry, { kind: K }>;

function sayDrawn(
  { act, figure, spotId, onlyOn, heldMm }: Of<"draw">,
  nameOf: (id: string | null) => string,
  mm: (px: number) => string,
): string {
  const width = "width" in figure ? mm(figure.width) : "";
  if (act === "part") return `${nameOf(onlyOn)} parted by ${width} of ${nameOf(spotId)}`;
  if (act === "join") return `${nameOf(spotId)} joined by ${width}`;
  const isCircle = figure.kind === "ellipse" && figure.width === figure.height;
  const what = isCircle ? "A circle" : FIGURES[figure.kind];
  const size = heldMm !== null ? ` of ${Number(heldMm.toFixed(3))} mm, held` : width ? ` of ${width}` : "";
  return `${what}${size} in ${nameOf(spotId)}`;
}

function sayPieces({ picks, stays, placed, over }: Of<"pieces">, nameOf: (id: string | null) => string): string {
  const what = picks.length === 1 ? "A shape" : count(picks.length, "shape");
  if (over.length > 0) return `${what} put in place of another`;
  if (placed.length > 0) return `${what} ${stays === "kept" ? "copied" : "moved"}`;
  return typeof stays === "object" ? `${what} given ${nameOf(stays.spotId)}` : `${what} taken away`;
}

function sayMotif(entry: Of<"motif">): string {
  const times = entry.places.length * copiesIn(entry.row);
  return `${entry.motif.name}${times > 1 ? `, ${times} times` : ", placed"}`;
}

/** Where an entry is, client's pixels; null where it is everywhere. */
export function placeOfEdit(entry: ShapeEntry): Point | null {
  const first = (line: ArrayLike<number> | undefined): Point | null =>
    line && line.length >= 2 ? { x: line[0] ?? 0, y: line[1] ?? 0 } : null;
  switch (entry.kind) {
    case "simplify":
      return entry.scope.kind === "shape" ? entry.scope.at : null;
    case "line":
      return first(entry.changes[0]?.now);
    case "draw": {
      const { figure } = entry;
      if ("at" in figure) return figure.at;
      return first(figure.kind === "stroke" ? figure.curve : figure.curves[0]);
    }
    case "cut":
      return first(entry.curve);
    case "pieces":
      return entry.picks[0]?.at ?? null;
    case "round":
      return entry.at;
    case "lettering":
      return entry.baseline.kind === "curve" ? first(entry.baseline.curve) : entry.baseline.at;
    case "motif":
      return entry.places[0]?.at ?? null;
    case "brush":
      return first(entry.points);
  }
}

/** The way of working in which an entry's numbers are; null where it has none. */
export function modeOf(entry: ShapeEntry): HandMode | null {
  return {
    simplify: null,
    line: "lines",
    draw: "draw",
    cut: "part",
    pieces: "pieces",
    round: "pieces",
    brush: "brush",
    lettering: null,
    motif: null,
  }[entry.kind] as HandMode | null;
}
