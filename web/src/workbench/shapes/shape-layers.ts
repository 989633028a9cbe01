// What only the shapes step lays on the table: distances from the source, and a simplification that is tried.
import { nodesOf } from "@plain-palette/core/geometry";
import type { Deviation } from "@plain-palette/core/trace";
import type { TriedView } from "../../compute/messages.ts";
import type { TableLayer } from "../../light-table/layers.ts";
import { makePieces, makePolylinePieces } from "../../light-table/pieces.ts";

/** Colours of the classes of the distance map, nearest first. */
export const DISTANCE_COLOURS = ["#8a8880", "#2c6fbb", "#d98a00", "#c0261c"] as const;

/** Boundaries in the colour of their distance from the source's, the farthest on top. */
export function distanceLayers({ stretches }: Deviation): TableLayer[] {
  return DISTANCE_COLOURS.map((colour, i) => ({
    kind: "strokes",
    path: makePolylinePieces(stretches[i] ?? []),
    colour,
    screenPx: 1.5 + i,
  }));
}

/** A simplification that is tried: the lines as they are, and over them as they would be, with their nodes. */
export function triedLayers({ before, after, picked }: TriedView): TableLayer[] {
  return [
    // What was picked is seen even where no node can be spared.
    { kind: "strokes", path: makePieces(picked, true), colour: "#1e1d1a", screenPx: 2, isHaloed: true, dashPx: 6 },
    { kind: "strokes", path: makePieces(before, false), colour: "#f0b429", screenPx: 5, isHaloed: true },
    { kind: "strokes", path: makePieces(after, false), colour: "#1e1d1a", screenPx: 1.2 },
    { kind: "nodes", points: nodesOf(after), colour: "#1e1d1a" },
  ];
}
