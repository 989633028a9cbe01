// What is seen while words are set: the source faint, lettering in its colours over it, baseline and grips, marked old letters.
import { formatHex } from "@plain-palette/core/colour";
import type { CubicPath } from "@plain-palette/core/geometry";
import type { Spot } from "@plain-palette/core/reduce";
import type { PreparedPicture } from "../../../compute/use-compute.ts";
import type { TableLayer } from "../../../light-table/layers.ts";
import { makePieces, makePolylinePath } from "../../../light-table/pieces.ts";
import { boxAround } from "../by-hand/lines-tool.ts";
import { GRIP_WORDS, gripsOf } from "./letter-grips.ts";
import type { LetteringDesk, LetteringDrag } from "./lettering-desk.ts";

const DARK = "#1e1d1a";
const MARK = "#f0b429";
/** A proposal lies over the old letters so that both are seen. */
const TRIED = "rgba(44,111,187,.55)";

const outline = (paths: readonly CubicPath[], more: object = {}): TableLayer => ({
  ...{ kind: "strokes", path: makePieces(paths, false), colour: DARK, screenPx: 1.2, isHaloed: true },
  ...more,
});

interface Scene {
  readonly prepared: PreparedPicture | null;
  readonly spots: readonly Spot[];
  readonly garment: string;
}

export function letteringLayers(desk: LetteringDesk, { prepared, spots, garment }: Scene): TableLayer[] {
  const { views, view, way, points, drag, markedPaths, tried, letter, over } = desk;
  const fade = way === "mark" ? 0 : desk.fade;
  const colourOf = (spotId: string | null) => {
    const spot = spots.find(({ id }) => id === spotId);
    return spot ? formatHex(spot.rgb) : garment;
  };
  const source: TableLayer[] =
    prepared && fade > 0
      ? [
          {
            kind: "bitmap",
            bitmap: prepared.bitmap,
            opacity: fade,
            transform: { scaleX: prepared.bitmapScale, scaleY: prepared.bitmapScale, dx: 0, dy: 0 },
          },
        ]
      : [];
  const words = views.map((one): TableLayer => {
    const fills = one.layers.map(({ spotId, paths }) => ({ colour: colourOf(spotId), path: makePieces(paths, true) }));
    return { kind: "fills", fills };
  });
  const marks = markedPaths.length > 0 ? [outline(markedPaths, { colour: MARK, screenPx: 2 })] : [];
  const proposed: TableLayer[] =
    tried.length > 0
      ? [{ kind: "fills", fills: [{ colour: TRIED, path: makePieces(tried, true) }] }, outline(tried)]
      : [];
  const box = markingLayers(drag);
  const picked = view?.letters.find(({ at }) => at === letter);
  const baselines = (view?.baselines ?? []).map((row) =>
    outline([], {
      path: makePolylinePath(
        row.flatMap(({ x, y }) => [x, y]),
        false,
      ),
      dashPx: 5,
      screenPx: 1,
    }),
  );
  const grips = view && way === "set" ? gripsOf(view, letter) : [];
  const named = grips.find(({ kind }) => kind === over);
  return [
    ...source,
    ...words,
    ...baselines,
    ...(picked ? [outline(picked.paths, { dashPx: 4 })] : []),
    ...marks,
    ...proposed,
    ...box,
    { kind: "grips", points: way === "points" ? points : grips },
    ...(named && view
      ? [
          {
            ...{ kind: "text" as const, lines: [GRIP_WORDS[named.kind]], x: named.x, y: named.y, isHaloed: true },
            ...{ size: view.set.capHeight * 0.3, leading: view.set.capHeight * 0.5 },
          },
        ]
      : []),
  ];
}

function markingLayers(drag: LetteringDrag | null): TableLayer[] {
  if (drag?.holds.kind !== "box" && drag?.holds.kind !== "loop") return [];
  const line = drag.holds.kind === "box" ? boxAround(drag.from, drag.to) : drag.holds.points;
  return [outline([], { path: makePolylinePath([...line], true), dashPx: 4, screenPx: 1 })];
}
