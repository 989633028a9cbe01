// Drawn art as a motif: what is painted one over the other becomes shapes that lie beside each other.
import { nameChoices, parseHex } from "../colour/index.ts";
import type { CubicPath } from "../geometry/index.ts";
import { type Laid, layOutlines } from "../lay/index.ts";
import type { PlanarMap } from "../trace/index.ts";
import { keepMotif } from "./keep-motif.ts";
import type { Motif } from "./motif.ts";

/** Outlines and what of them is inside (SVG 2, 13.3.2). */
export interface FilledArea {
  readonly paths: readonly CubicPath[];
  readonly rule: "nonzero" | "evenodd";
}

/** One thing that is painted, within all that it is clipped to. */
export interface Painted {
  readonly area: FilledArea;
  readonly clips: readonly FilledArea[];
  readonly hex: string;
}

/** A drawing in units of its own. */
export interface DrawnArt {
  readonly width: number;
  readonly height: number;
  readonly widthMm: number;
  /** What is painted last lies on top. */
  readonly painted: readonly Painted[];
}

/** Curves that meet are told apart as finely as in a picture of so many pixels across. */
const ACROSS_PX = 2400;

/** Null where nothing shows, or curves lie so that they cannot be told apart. Throws a ZodError as keepMotif does. */
export function flattenDrawn({ width, height, widthMm, painted }: DrawnArt): Motif | null {
  const scale = ACROSS_PX / Math.max(width, height);
  const empty: PlanarMap = {
    ...{ width: width * scale, height: height * scale, vertices: new Float64Array(0), edges: [], faces: [] },
  };
  const areas: FilledArea[] = [];
  const numberOf = (area: FilledArea) => {
    const there = areas.indexOf(area);
    return there >= 0 ? there : areas.push(area) - 1;
  };
  const items = painted.map(({ area, clips, hex }) => ({ hex, own: numberOf(area), clips: clips.map(numberOf) }));
  const laid = areas.map(({ paths }): Laid => ({ paths: paths.map((path) => path.map((v) => v * scale)) }));
  const map = layOutlines(empty, {
    laid,
    decide: ({ windings }) => {
      const isIn = (k: number) => (areas[k].rule === "nonzero" ? windings[k] !== 0 : windings[k] % 2 !== 0);
      return items.findLast(({ own, clips }) => isIn(own) && clips.every(isIn))?.hex ?? null;
    },
  });
  if (!map) return null;
  const names = new Set<string>();
  const spots = [...new Set(items.map(({ hex }) => hex))].map((hex) => {
    const name = nameChoices(parseHex(hex)).find((one) => !names.has(one)) ?? hex;
    names.add(name);
    return { id: hex, name, rgb: parseHex(hex), stock: null };
  });
  return keepMotif(map.faces, spots, widthMm / (width * scale));
}
