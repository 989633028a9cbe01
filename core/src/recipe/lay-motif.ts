// A placed motif from the recipe, in the pixels of the prepared picture.
import type { Edit } from "../edit/index.ts";
import { copiesIn, layMotif, type MotifPlace, type Motifs, type Row, rowSteps } from "../motif/index.ts";
import { type Homography, mapPoint, turn } from "../raster/index.ts";
import { localMap, type Matrix, times } from "./local-map.ts";
import { type MotifEntry, ROW_LIMITS } from "./motif-entry.ts";

/** Where each copy goes, in pixels of the prepared picture. */
export function placesOf(one: Pick<MotifEntry, "motif" | "places" | "row">, toPrepared: Homography): MotifPlace[] {
  return one.places.flatMap(({ at, widthPx, angleDeg: placed, isFlipped }) =>
    rowSteps(one.row satisfies Row | null).map((step) => {
      const place = { x: at.x + step.dx, y: at.y + step.dy };
      const { sin, cos } = turn(placed + step.angleDeg);
      const scale = widthPx / one.motif.widthMm;
      const [right, down] = [isFlipped ? -scale : scale, scale];
      const own: Matrix = [cos * right, -sin * down, sin * right, cos * down];
      return { ...mapPoint(toPrepared, place), matrix: times(localMap(toPrepared, place), own) };
    }),
  );
}

/** The entry as what is laid into the map, in the pixels of the prepared picture. */
export function layMotifEntry(one: MotifEntry, toPrepared: Homography, motifs: Motifs): Edit {
  const motif = motifs.get(one.motif.hash);
  if (!motif) return { kind: "none", reason: `places ${one.motif.name}, which is not among the motifs here` };
  const copies = one.places.length * copiesIn(one.row);
  if (copies > ROW_LIMITS.all)
    return { kind: "none", reason: `would place ${copies}, and ${ROW_LIMITS.all} are the most at a time` };
  const over = one.over.map(({ at, spotId }) => ({ at: mapPoint(toPrepared, at), spotId }));
  return { kind: "stack", layers: layMotif(motif, one.spots, placesOf(one, toPrepared)), over };
}

/** The copies of an entry that reach over the edge of a picture of that size, and are cut off there. */
export function overhangingCopies(
  { motif }: Pick<MotifEntry, "motif">,
  copies: readonly MotifPlace[],
  { width, height }: { readonly width: number; readonly height: number },
): MotifPlace[] {
  return copies.filter(({ x, y, matrix: [a, b, c, d] }) => {
    const [right, down] = [motif.widthMm / 2, motif.heightMm / 2];
    const [reachX, reachY] = [Math.abs(a) * right + Math.abs(b) * down, Math.abs(c) * right + Math.abs(d) * down];
    return x - reachX < 0 || y - reachY < 0 || x + reachX > width || y + reachY > height;
  });
}
