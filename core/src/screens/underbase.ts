// The underbase: one white area under all inks that need it, pulled in so that it never peeks out.
import { type Rgb, rgbToLab } from "../colour/index.ts";
import {
  type CubicPath,
  densify,
  fillHoles,
  flattenPath,
  indexBoundaries,
  measureAcross,
  type Polygons,
  recoverCurves,
  stripBeside,
  subtract,
  toPolygons,
  unite,
} from "../geometry/index.ts";
import type { Spot } from "../reduce/index.ts";
import { BARE, type MapEdge, outlinePaths, type PlanarMap } from "../trace/index.ts";
import { type BaseSettings, chokeAlong, chokeReach } from "./choke.ts";
import { addStrip, clipStrips, inkBoundary, type LightnessOf, type StripsByFace } from "./trap.ts";

/** Garments darker than this want a base, CIELAB L* (common practice, no source). */
const DARK_GARMENT = 60;
/** Inks darker than this cover by themselves, L* (common practice, no source). */
const COVERS_ITSELF = 22;

/** Whether a garment colour wants an underbase unless the person says otherwise. */
export function wantsBase(garment: Rgb): boolean {
  return rgbToLab(garment)[0] < DARK_GARMENT;
}

/** Whether an ink wants white under it on this garment: not if it is nearly black or darker than the garment itself. */
export function inkNeedsBase(spot: Spot, garment: Rgb): boolean {
  const lightness = rgbToLab(spot.rgb)[0];
  return lightness > COVERS_ITSELF && lightness > rgbToLab(garment)[0];
}

/**
 * The faces of `based` as one region, pulled in from bare garment by the choke and run on by it under inks that are darker
 * and need no base, as far as their middle: there nothing can peek out, and a light ink's rim would lie on dark cloth. Where
 * base lies on both sides, a gap that would be thinner than the thinnest base is closed.
 */
export function chokeBase(
  map: PlanarMap,
  based: ReadonlySet<string>,
  lightnessOf: LightnessOf,
  settings: BaseSettings,
  tolerancePx: number,
): CubicPath[] {
  const { chokePx, thinnestPx } = settings;
  const leastGap = 2 * chokePx + thinnestPx;
  const isBased = (face: number) => face !== BARE && based.has(map.faces[face].spotId);
  const curves = outlinePaths(map, isBased);
  const edges = map.edges.map((edge, e) => ({ e, edge, line: flattenPath(edge.path, tolerancePx) }));
  // The base's own outline; between two based inks there is no edge of it.
  const isOutline = ({ left, right }: MapEdge) => isBased(left) !== isBased(right);
  const outline = edges.filter(({ edge }) => isOutline(edge));
  const all = indexBoundaries(edges.map(({ line }) => line));
  const own = indexBoundaries(outline.map(({ line }) => line));
  const run: StripsByFace = new Map();
  const choked: Polygons = [];
  if (chokePx > 0)
    for (const { e, edge, line: boundary } of outline) {
      const line = densify(boundary, chokePx / 2);
      const inks = inkBoundary(map, e, lightnessOf);
      if (inks && !isBased(inks.darkFace)) {
        const { distances, met } = measureAcross(line, inks.darkSide, leastGap, all);
        // Between base and base a gap that would be thinner than prints is no gap: fine dark lettering lies on whole base.
        const widths = distances.map((width, i) =>
          met[i] >= 0 && isOutline(edges[met[i]].edge) ? width : Math.min(chokePx, width / 2),
        );
        addStrip(run, inks.darkFace, inks.light, stripBeside(line, widths, inks.darkSide, tolerancePx));
        continue;
      }
      const side = isBased(edge.right) ? 1 : -1;
      const { distances } = measureAcross(line, side, chokeReach(settings), own);
      for (const piece of stripBeside(line, chokeAlong(line, distances, settings), side, tolerancePx))
        choked.push(piece);
    }
  const runOn = [...clipStrips(run, (face) => toPolygons(map.faces[face].paths, tolerancePx)).values()].flat();
  const under = () =>
    toPolygons(
      [...run.keys()].flatMap((face) => map.faces[face].paths),
      tolerancePx,
    );
  const isPinhole = (areaPx: number) => areaPx < leastGap * leastGap;
  const whole = fillHoles(unite(toPolygons(curves, tolerancePx), runOn), isPinhole, under);
  return recoverCurves(choked.length > 0 ? subtract(whole, choked) : whole, curves, tolerancePx);
}
