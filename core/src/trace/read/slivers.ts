// Slivers: narrow regions in which no pixel shows the colour that they were given to. Renderers that lay edge upon edge leave
// them, and so do scaling and compression: a neighbour takes them, like specks.
import { type Components, NONE } from "../../raster/index.ts";
import type { Findings, Reduction } from "../../reduce/index.ts";
import type { SliverTest } from "./absorb-specks.ts";

/** A larger region is no sliver, px. */
const MOST_PX = 150;
/** How far, of the way to its neighbour's colour, even the purest pixel of a sliver is from its own. Our own choice. */
const IMPURE = 0.3;

/** Tells which regions of the reduced picture are slivers. Linear in the pixels of small regions. */
export function testSlivers(
  { raster, labels, found }: Findings,
  { spots }: Reduction,
  components: Components,
): SliverTest {
  const { pixelRuns, regionOfPixelRun, label, areaPx } = components;
  const { data } = raster;
  const purest2 = new Float64Array(label.length).fill(Number.POSITIVE_INFINITY);
  for (let run = 0; run < regionOfPixelRun.length; run++) {
    const c = regionOfPixelRun[run];
    if (areaPx[c] > MOST_PX) continue;
    for (let p = pixelRuns[run]; p < pixelRuns[run + 1]; p++) {
      const own = labels.data[p];
      // Where a person gave an area its spot, it is one.
      if (own === NONE || label[c] === NONE || !spots[label[c]].members.includes(found[own].id)) {
        purest2[c] = 0;
        continue;
      }
      const [r, g, b] = found[own].rgb;
      const d2 = (data[p * 4] - r) ** 2 + (data[p * 4 + 1] - g) ** 2 + (data[p * 4 + 2] - b) ** 2;
      if (d2 < purest2[c]) purest2[c] = d2;
    }
  }
  const candidates: number[] = [];
  for (let c = 0; c < label.length; c++) if (areaPx[c] <= MOST_PX && purest2[c] > 0) candidates.push(c);
  return {
    candidates,
    isSliver(c, beside) {
      if (beside === NONE) return false;
      const own = spots[label[c]].pictureRgb;
      const other = spots[beside].pictureRgb;
      const apart2 = own.reduce((sum, v, i) => sum + (v - other[i]) ** 2, 0);
      return purest2[c] > IMPURE * IMPURE * apart2;
    },
  };
}

/** A region is let go if either test says so. */
export function anyOf(a: SliverTest, b: SliverTest): SliverTest {
  if (b.candidates.length === 0) return a;
  const ofA = new Set(a.candidates);
  const ofB = new Set(b.candidates);
  return {
    candidates: [...new Set([...a.candidates, ...b.candidates])],
    isSliver: (c, beside) => (ofA.has(c) && a.isSliver(c, beside)) || (ofB.has(c) && b.isSliver(c, beside)),
  };
}
