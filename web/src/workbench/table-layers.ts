// From results to what lies on the light table, for each way of looking.
import { formatHex } from "@plain-palette/core/colour";
import { type FilmSet, MARKS } from "@plain-palette/core/films";
import { polygonPath } from "@plain-palette/core/geometry";
import type { Spot } from "@plain-palette/core/reduce";
import type { Separation } from "@plain-palette/core/separate";
import type { TracedView } from "../compute/messages.ts";
import { makePath2D, nodePoints, type Placement, type TableLayer } from "../light-table/layers.ts";

export interface ArtSize {
  readonly width: number;
  readonly height: number;
}

/** The garment under the art. */
export function garmentSheet({ width, height }: ArtSize, garment: string): TableLayer {
  return { kind: "sheet", colour: garment, x: 0, y: 0, width, height, hasEdge: true };
}

/** A traced picture ready to draw and to be asked which spot is where. */
export interface DrawnTrace {
  readonly fills: readonly { readonly spotId: string; readonly path: Path2D }[];
  readonly edges: Path2D;
  readonly nodes: Float64Array;
}

export function drawTrace(traced: TracedView): DrawnTrace {
  return {
    fills: traced.fills.map(({ spotId, paths }) => ({ spotId, path: makePath2D(paths, true) })),
    edges: makePath2D(traced.edges, false),
    nodes: nodePoints(traced.edges),
  };
}

/** All spots as they will look: garment-coloured ones show the garment. */
export function resultLayers(trace: DrawnTrace, spots: readonly Spot[], garment: string): TableLayer[] {
  const colours = new Map(spots.map((spot) => [spot.id, spot.role === "garment" ? garment : formatHex(spot.rgb)]));
  const fills = trace.fills.map(({ spotId, path }) => ({ colour: colours.get(spotId) ?? garment, path }));
  return [{ kind: "fills", fills, isAbutting: true }];
}

/** Every boundary once, with its nodes, over the faded source. */
export function outlineLayers(trace: DrawnTrace, bitmap: ImageBitmap | null): TableLayer[] {
  const source: TableLayer[] = bitmap ? [{ kind: "bitmap", bitmap, opacity: 0.25 }] : [];
  return [
    ...source,
    { kind: "strokes", path: trace.edges, colour: "#1e1d1a", screenPx: 1.2 },
    { kind: "nodes", points: trace.nodes, colour: "#b3261e" },
  ];
}

/** Plates that are not hidden, first printed lowest. */
export function plateLayers(separation: Separation, hidden: ReadonlySet<string>): TableLayer[] {
  const fills = separation.plates
    .filter((plate) => !hidden.has(plate.id))
    .map((plate) => ({ colour: formatHex(plate.rgb), path: makePath2D(plate.region, true) }));
  return [{ kind: "fills", fills }];
}

/** One film as it comes out of the printer; table units are millimetres. */
export function filmLayers(set: FilmSet, index: number): TableLayer[] {
  const film = set.films[index];
  if (!film) return [];
  const sheet: TableLayer = { kind: "sheet", colour: "#f4f6f5", x: 0, y: 0, ...set.sheet, hasEdge: true };
  const mirror = (p: Placement): Placement =>
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
    { kind: "fills", fills: [{ colour: "#000", path: makePath2D(film.plate.region, true) }], placement: art },
    { kind: "strokes", path: marks, colour: "#000", width: MARKS.lineWidth, placement: inMm },
    {
      kind: "text",
      lines: film.label,
      x: set.label.x,
      y: set.label.y,
      size: MARKS.labelSize,
      leading: MARKS.labelLeading,
      placement: inMm,
    },
  ];
}
