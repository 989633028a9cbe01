// The traced picture ready to draw, and to be asked which spot is where.
import { nodesOf } from "@plain-palette/core/geometry";
import type { Spot } from "@plain-palette/core/reduce";
import type { TracedView } from "../compute/messages.ts";
import type { TableLayer } from "../light-table/layers.ts";
import { makePieces, type Pieces } from "../light-table/pieces.ts";
import { fillColours } from "./fill-colours.ts";

export interface ArtSize {
  readonly width: number;
  readonly height: number;
}

export interface DrawnTrace {
  /** The lowest first. */
  readonly layers: readonly {
    readonly fills: readonly { readonly spotId: string; readonly path: Pieces }[];
    readonly isAbutting: boolean;
  }[];
  readonly edges: TracedView["edges"];
  /** The spots that it was traced from. */
  readonly spots: readonly Spot[];
}

export function drawTrace(traced: TracedView & { readonly spots: readonly Spot[] }): DrawnTrace {
  return {
    spots: traced.spots,
    layers: traced.layers.map(({ fills, isAbutting }) => ({
      fills: fills.map(({ spotId, paths }) => ({ spotId, path: makePieces(paths, true) })),
      isAbutting,
    })),
    edges: traced.edges,
  };
}

/** All spots as they will look. */
export function resultLayers(trace: DrawnTrace, spots: readonly Spot[], garment: string): TableLayer[] {
  const colours = fillColours(trace.spots, spots, garment);
  return trace.layers.map(({ fills, isAbutting }) => ({
    kind: "fills",
    fills: fills.map(({ spotId, path }) => ({ colour: colours.get(spotId) ?? garment, path })),
    isAbutting,
  }));
}

/** Every boundary once, with its nodes. */
export function outlineLayers({ edges }: DrawnTrace): TableLayer[] {
  return [
    { kind: "strokes", path: makePieces(edges, false), colour: "#1e1d1a", screenPx: 1.2 },
    { kind: "nodes", points: nodesOf(edges), colour: "#b3261e" },
  ];
}
