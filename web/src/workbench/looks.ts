// What lies on the table in each way of looking.
import type { Point } from "@plain-palette/core/raster";
import { useMemo } from "react";
import type { TableLayer } from "../light-table/layers.ts";
import type { Look } from "../light-table/look-bar.tsx";
import { outlineLayers, resultLayers } from "./drawn-trace.ts";
import type { Bench, StepView } from "./screen.ts";

/** How far the source is faded in, 0..1: over the result, and under lines. */
export interface Fades {
  readonly over: number;
  readonly under: number;
}

interface OnTable {
  readonly layers: readonly TableLayer[];
  /** Left of the divider, if there is one. */
  readonly splitLayers?: readonly TableLayer[];
}

/** Looks in which lines lie on paper, with the source under them. */
export const ON_PAPER: ReadonlySet<Look> = new Set(["outlines", "distance"]);

/** The art at a step, looked at in one way. */
export function layArt(bench: Bench, look: Look, { result, looked }: StepView, fades: Fades): OnTable {
  const { computed, trace, size, recipe } = bench;
  const cloth: TableLayer = {
    ...{ kind: "sheet", colour: recipe.artwork.garment, x: 0, y: 0, ...size },
    hasEdge: true,
    isCloth: true,
  };
  const upright = computed.prepared?.upright ?? computed.source;
  const shown = (opacity: number): TableLayer[] =>
    upright && opacity > 0 ? [{ kind: "bitmap", bitmap: upright, opacity }] : [];
  const source = [cloth, ...shown(1)];
  const made = result ? [cloth, ...result] : source;
  const own = looked?.[look];
  if (ON_PAPER.has(look)) {
    const lines = own ?? (look === "outlines" && trace ? outlineLayers(trace) : null);
    const paper: TableLayer = { ...cloth, colour: "#ffffff", isCloth: false };
    return { layers: lines ? [paper, ...shown(fades.under), ...lines] : source };
  }
  switch (look) {
    case "source":
      return { layers: source };
    case "split":
      return { layers: made, splitLayers: source };
    case "difference":
      return {
        layers: computed.difference
          ? [cloth, { kind: "bitmap", bitmap: computed.difference.bitmap, opacity: 1 }]
          : source,
      };
    default:
      return { layers: [...made, ...shown(fades.over)] };
  }
}

/** The shapes as they will look; null until they are there. */
export function useShapesResult({ computed: { reduced }, trace, recipe }: Bench): readonly TableLayer[] | null {
  const { garment } = recipe.artwork;
  const spots = reduced?.spots;
  return useMemo(() => (trace && spots ? resultLayers(trace, spots, garment) : null), [trace, spots, garment]);
}

/** Radius of the ring round a place that a check found, mm. */
const RING_MM = 1.2;

/** A ring round each place. */
export function ringPlaces(places: readonly Point[], mmPerUnit: number): TableLayer {
  const radius = RING_MM / mmPerUnit;
  const path = new Path2D();
  for (const { x, y } of places) {
    path.moveTo(x + radius, y);
    path.arc(x, y, radius, 0, 2 * Math.PI);
  }
  return { kind: "strokes", path, colour: "#b3261e", screenPx: 1.5, isHaloed: true };
}
