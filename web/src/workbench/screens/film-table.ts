// One film as it comes out of the printer, as a table of its own.
import { polygonPath } from "@plain-palette/core/geometry";
import type { Point } from "@plain-palette/core/raster";
import { type FilmSet, MARKS } from "@plain-palette/core/screens";
import type { LayerTransform, TableLayer } from "../../light-table/layers.ts";
import { makePath2D, makePieces } from "../../light-table/pieces.ts";
import type { OwnTable } from "../screen.ts";

/** Film `index` of a set; units are millimetres. */
export function filmTable(set: FilmSet, index: number): OwnTable {
  return {
    name: "film",
    ...set.sheet,
    mmPerUnit: 1,
    layers: filmLayers(set, index),
    caption: {
      text: `Film ${index + 1} of ${set.films.length}: ${set.films[index]?.plate.name}`,
      note: "As the film comes out of the printer.",
    },
    placeOf: (place) => placeOnFilm(set, place),
  };
}

/** Where a place of the art (upright pixels) lies on a film, mm. */
function placeOnFilm(set: FilmSet, { x, y }: Point): Point {
  const onSheet = { x: set.art.x + x * set.mmPerPx, y: set.art.y + y * set.mmPerPx };
  return set.isMirrored ? { ...onSheet, x: set.sheet.width - onSheet.x } : onSheet;
}

function filmLayers(set: FilmSet, index: number): TableLayer[] {
  const film = set.films[index];
  if (!film) return [];
  const sheet: TableLayer = { kind: "sheet", colour: "#f4f6f5", x: 0, y: 0, ...set.sheet, hasEdge: true };
  const mirror = (p: LayerTransform): LayerTransform =>
    set.isMirrored ? { ...p, scaleX: -p.scaleX, dx: set.sheet.width - p.dx } : p;
  const inMm = mirror({ scaleX: 1, scaleY: 1, dx: 0, dy: 0 });
  const art = mirror({ scaleX: set.mmPerPx, scaleY: set.mmPerPx, dx: set.art.x, dy: set.art.y });
  const marks = new Path2D();
  for (const { x, y } of set.targets) {
    marks.addPath(makePath2D([polygonPath([x - MARKS.targetArm, y, x + MARKS.targetArm, y])], false));
    marks.addPath(makePath2D([polygonPath([x, y - MARKS.targetArm, x, y + MARKS.targetArm])], false));
    marks.moveTo(x + MARKS.targetRadius, y);
    marks.arc(x, y, MARKS.targetRadius, 0, 2 * Math.PI);
  }
  for (const { x1, y1, x2, y2 } of set.centreMarks) marks.addPath(makePath2D([polygonPath([x1, y1, x2, y2])], false));
  return [
    sheet,
    { kind: "fills", fills: [{ colour: "#000", path: makePieces(film.plate.region, true) }], transform: art },
    { kind: "strokes", path: marks, colour: "#000", width: MARKS.lineWidth, transform: inMm },
    {
      kind: "text",
      lines: film.label,
      x: set.label.x,
      y: set.label.y,
      size: MARKS.labelSize,
      leading: MARKS.labelLeading,
      transform: inMm,
    },
  ];
}
