// Regions as an independent library has them (polygon-clipping, npm, MIT): what tests of plates and layers are measured by.
import polygonClipping, { type MultiPolygon, type Polygon } from "polygon-clipping";
import { type CubicPath, flattenPath } from "../geometry/index.ts";

/** The library loses rings over the last digits of a double; a millionth is nothing here. */
const settled = (v: number) => Math.round(v * 1e6) / 1e6;

/** A region's rings in millimetres, or pixels if nothing else is said, combined by even-odd; curves within `off`. */
export function independentRegion(region: readonly CubicPath[], mmPerPx = 1, off = 0.005): MultiPolygon {
  const rings = region.map((path): Polygon => {
    const flat = flattenPath(path, off / mmPerPx);
    const ring: [number, number][] = [];
    for (let i = 0; i < flat.length; i += 2) ring.push([settled(flat[i] * mmPerPx), settled(flat[i + 1] * mmPerPx)]);
    return [ring];
  });
  const [first, ...others] = rings;
  return first ? polygonClipping.xor(first, ...others) : [];
}

/** Area, holes taken out. */
export function independentArea(region: MultiPolygon): number {
  const around = (ring: readonly (readonly [number, number])[]) =>
    ring.reduce((sum, [x, y], i) => {
      const [nextX, nextY] = ring[(i + 1) % ring.length];
      return sum + (x * nextY - nextX * y) / 2;
    }, 0);
  return region.reduce(
    (sum, [outline, ...holes]) =>
      sum + Math.abs(around(outline)) - holes.reduce((all, hole) => all + Math.abs(around(hole)), 0),
    0,
  );
}
