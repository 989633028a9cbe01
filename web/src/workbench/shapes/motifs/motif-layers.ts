// What is seen while motifs are placed: the box of the one in hand, its grips, what a drag is about to do, and picked shapes.
import { formatHex } from "@plain-palette/core/colour";
import { layMotif } from "@plain-palette/core/motif";
import { invertMap } from "@plain-palette/core/raster";
import { type MotifEntry, placesOf } from "@plain-palette/core/recipe";
import type { Spot } from "@plain-palette/core/reduce";
import type { TableLayer } from "../../../light-table/layers.ts";
import { makePieces, makePolylinePath } from "../../../light-table/pieces.ts";
import type { MotifDesk } from "./motif-desk.ts";
import { dragged, gripsOf, onBox } from "./motif-grips.ts";

const DARK = "#1e1d1a";
const MARK = "#f0b429";

export function motifLayers(desk: MotifDesk, spots: readonly Spot[], garment: string): TableLayer[] {
  const { way, pickedFaces, inHand, place, drag, frame } = desk;
  if (way === "pick") {
    const outlines = pickedFaces.flatMap(({ paths }) => paths);
    if (outlines.length === 0) return [];
    return [{ kind: "strokes", path: makePieces(outlines, false), colour: MARK, screenPx: 2.4, isHaloed: true }];
  }
  if (!inHand || !frame) return [];
  const entry = drag ? dragged(drag, place, inHand, frame, false) : inHand.entry;
  const placed = drag ? { entry, copies: placesOf(entry, invertMap(frame.toSource)) } : inHand;
  const boxes = placed.copies.map((copy): TableLayer => {
    const corners = [
      onBox(copy, entry, -1, -1),
      onBox(copy, entry, 1, -1),
      onBox(copy, entry, 1, 1),
      onBox(copy, entry, -1, 1),
    ];
    const path = makePolylinePath(
      corners.flatMap(({ x, y }) => [x, y]),
      true,
    );
    return { kind: "strokes", path, colour: DARK, screenPx: 1, dashPx: 4, isHaloed: true };
  });
  return [
    ...(drag ? moving(desk, entry, spots, garment) : []),
    ...boxes,
    { kind: "grips", points: gripsOf(placed, place) },
  ];
}

/** The motif where the drag has it, in its colours: laying it into the map takes until the hand rests. */
function moving(
  { content, frame }: MotifDesk,
  entry: MotifEntry,
  spots: readonly Spot[],
  garment: string,
): TableLayer[] {
  if (!content || !frame) return [];
  const colourOf = (spotId: string | null) => {
    const spot = spots.find(({ id }) => id === spotId);
    return spot ? formatHex(spot.rgb) : garment;
  };
  const fills = layMotif(content, entry.spots, placesOf(entry, invertMap(frame.toSource))).map(({ spotId, paths }) => ({
    colour: colourOf(spotId),
    path: makePieces(paths, true),
  }));
  return [{ kind: "fills", fills }];
}
