// Lines thinner than a person wants to keep: regions whose width, all along, is under a limit.
import { type Components, forEachContact, type LabelMap } from "../../raster/index.ts";
import type { SliverTest } from "./absorb-specks.ts";

/** Length of a boundary by the cracks between its pixels, over directions on average (Cauchy-Crofton). */
const CRACK_PX = Math.PI / 4;

/** Regions of a mean width under `thinnestPx`; none for 0. Linear in the length of boundaries. */
export function testThinLines(components: Components, { width, height }: LabelMap, thinnestPx: number): SliverTest {
  if (thinnestPx <= 0) return { candidates: [], isSliver: () => false };
  const { pixelRuns, regionOfPixelRun, label, areaPx } = components;
  const cracks = new Float64Array(label.length);
  forEachContact(components, width, (a, b, length) => {
    cracks[a] += length;
    cracks[b] += length;
  });
  // The picture's own edge is a boundary, too.
  const lastRow = (height - 1) * width;
  for (let run = 0; run < regionOfPixelRun.length; run++) {
    const own = regionOfPixelRun[run];
    const length = pixelRuns[run + 1] - pixelRuns[run];
    if (pixelRuns[run] % width === 0) cracks[own]++;
    if (pixelRuns[run + 1] % width === 0) cracks[own]++;
    if (pixelRuns[run] < width) cracks[own] += length;
    if (pixelRuns[run] >= lastRow) cracks[own] += length;
  }
  const candidates: number[] = [];
  // A long strip has twice its area by its boundary's length across.
  for (let c = 0; c < label.length; c++) if (2 * areaPx[c] < thinnestPx * CRACK_PX * cracks[c]) candidates.push(c);
  return { candidates, isSliver: () => true };
}
