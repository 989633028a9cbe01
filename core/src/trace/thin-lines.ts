// Lines thinner than a person wants to keep: regions whose width, all along, is under a limit.
import type { Components, LabelMap } from "../raster/index.ts";
import type { SliverTest } from "./absorb-specks.ts";

/** Length of a boundary by the cracks between its pixels, over directions on average (Cauchy-Crofton). */
const CRACK_PX = Math.PI / 4;

/** Regions of a mean width under `thinnestPx`; none for 0. Linear in pixels. */
export function testThinLines(
  { of, label, areaPx }: Components,
  { width, height }: LabelMap,
  thinnestPx: number,
): SliverTest {
  if (thinnestPx <= 0) return { candidates: [], isSliver: () => false };
  const cracks = new Float64Array(label.length);
  for (let y = 0, p = 0; y < height; y++)
    for (let x = 0; x < width; x++, p++) {
      if (x === 0 || of[p - 1] !== of[p]) {
        cracks[of[p]]++;
        if (x > 0) cracks[of[p - 1]]++;
      }
      if (y === 0 || of[p - width] !== of[p]) {
        cracks[of[p]]++;
        if (y > 0) cracks[of[p - width]]++;
      }
      if (x === width - 1) cracks[of[p]]++;
      if (y === height - 1) cracks[of[p]]++;
    }
  const candidates: number[] = [];
  // A long strip has twice its area by its boundary's length across.
  for (let c = 0; c < label.length; c++) if (2 * areaPx[c] < thinnestPx * CRACK_PX * cracks[c]) candidates.push(c);
  return { candidates, isSliver: () => true };
}
