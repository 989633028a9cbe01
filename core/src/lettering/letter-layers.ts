// Lettering as what is laid down: the letters, a line round them, a shadow under both.
import { boundsOfAll, type CubicPath, growRegion, mapPath, recoverCurves, toPolygons } from "../geometry/index.ts";
import { fitPolyline } from "../trace/index.ts";
import type { SetLetter } from "./set-lines.ts";

/** How lettering is coloured: spots, or null for the garment. Lengths are in pixels. */
export interface LetterDress {
  readonly spotId: string | null;
  readonly outline: {
    readonly width: number;
    readonly spotId: string | null;
    readonly corners: "round" | "sharp";
  } | null;
  readonly shadow: { readonly dx: number; readonly dy: number; readonly spotId: string | null } | null;
}

export interface LetterLayer {
  readonly paths: readonly CubicPath[];
  readonly spotId: string | null;
}

/** How closely lines round letters keep to their distance: shares of the letters' own size, but never finer than this, px. */
const OUTLINE_SHARE = 0.001;
const FINEST_PX = 0.03;

/** From below to above. */
export function letterLayers(letters: readonly SetLetter[], { spotId, outline, shadow }: LetterDress): LetterLayer[] {
  const paths = letters.flatMap((letter) => letter.paths);
  const round = outline && { paths: letters.flatMap((one) => outlineOf(one, outline)), spotId: outline.spotId };
  const layers: LetterLayer[] = [...(round ? [round] : []), { paths, spotId }];
  if (!shadow) return layers;
  const { dx, dy } = shadow;
  const cast = (round?.paths ?? paths).map((path) => mapPath(path, (x, y) => [x + dx, y + dy]));
  return [{ paths: cast, spotId: shadow.spotId }, ...layers];
}

/** Lines round letters that were drawn lately, in their own frames: most of a text is the same after one more letter. */
const drawn = new Map<string, readonly CubicPath[]>();
const MOST_DRAWN = 400;

function outlineOf({ shape, key, place }: SetLetter, { width, corners }: NonNullable<LetterDress["outline"]>) {
  if (shape.length === 0) return [];
  const name = `${key} ${width} ${corners}`;
  const known = drawn.get(name) ?? drawOutline(shape, width, corners);
  drawn.delete(name);
  drawn.set(name, known);
  for (const oldest of drawn.keys()) {
    if (drawn.size <= MOST_DRAWN) break;
    drawn.delete(oldest);
  }
  return known.map((path) => mapPath(path, place));
}

function drawOutline(shape: readonly CubicPath[], width: number, corners: "round" | "sharp"): CubicPath[] {
  const { top, bottom } = boundsOfAll(shape);
  const fine = Math.max(FINEST_PX, (bottom - top) * OUTLINE_SHARE);
  const grown = growRegion(toPolygons(shape, fine / 2), width, fine / 2, corners);
  return recoverCurves(grown, [], fine / 2, (line) => fitPolyline(line, fine));
}
