// From results to what lies on the light table, for each way of looking.

import type { JobStep } from "@plain-palette/contract";
import { formatHex } from "@plain-palette/core/colour";
import { polygonPath } from "@plain-palette/core/geometry";
import type { Recipe } from "@plain-palette/core/recipe";
import type { Spot } from "@plain-palette/core/reduce";
import { type FilmSet, MARKS, type Separation } from "@plain-palette/core/screens";
import type { Deviation } from "@plain-palette/core/trace";
import type { TracedView, TriedView } from "../compute/messages.ts";
import type { Computed, PreparedPicture } from "../compute/use-compute.ts";
import { silhouetteFor } from "../garment/silhouettes.ts";
import { nodePoints, type Placement, type TableLayer } from "../light-table/layers.ts";
import type { Look } from "../light-table/look-bar.tsx";
import { makePath2D, makePieces, makePolylinePieces, type Pieces } from "../light-table/pieces.ts";
import { fillColours } from "./fill-colours.ts";

export interface ArtSize {
  readonly width: number;
  readonly height: number;
}

/** The garment under the art. */
function garmentSheet({ width, height }: ArtSize, garment: string): Extract<TableLayer, { kind: "sheet" }> {
  return { kind: "sheet", colour: garment, x: 0, y: 0, width, height, hasEdge: true, isCloth: true };
}

interface Art {
  readonly step: JobStep;
  readonly look: Look;
  /** How far the source is faded in over the result, 0..1. */
  readonly fade: number;
  readonly computed: Computed;
  readonly trace: DrawnTrace | null;
  readonly hidden: ReadonlySet<string>;
  /** How far the source is faded in under outlines and distances, 0..1. */
  readonly underFade: number;
  readonly size: ArtSize;
  readonly garment: string;
}

/** Colours of the classes of the distance map, nearest first. */
export const DISTANCE_COLOURS = ["#8a8880", "#2c6fbb", "#d98a00", "#c0261c"] as const;

/** What lies on the table at a step, looked at in one way; `splitLayers` left of the divider, if there is one. */
export function layArt(art: Art): { layers: TableLayer[]; splitLayers: TableLayer[] | undefined } {
  const { look, computed, trace, size, garment, fade, underFade } = art;
  const sheet = garmentSheet(size, garment);
  const upright = computed.prepared?.upright ?? computed.source;
  const shown = (opacity: number): TableLayer[] =>
    upright && opacity > 0 ? [{ kind: "bitmap", bitmap: upright, opacity }] : [];
  const source = [sheet, ...shown(1)];
  const paper: TableLayer[] = [{ ...sheet, colour: "#ffffff", isCloth: false }];
  switch (look) {
    case "source":
      return { layers: source, splitLayers: undefined };
    case "split":
      return { layers: [sheet, ...resultOf(art, source)], splitLayers: source };
    case "outlines":
      return {
        layers: trace ? [...paper, ...shown(underFade), ...outlineLayers(trace)] : source,
        splitLayers: undefined,
      };
    case "distance":
      return {
        layers: computed.traced?.deviation
          ? [...paper, ...shown(underFade), ...distanceLayers(computed.traced.deviation)]
          : source,
        splitLayers: undefined,
      };
    case "difference":
      return {
        layers: computed.difference
          ? [sheet, { kind: "bitmap", bitmap: computed.difference.bitmap, opacity: 1 }]
          : source,
        splitLayers: undefined,
      };
    default:
      return { layers: [sheet, ...resultOf(art, source), ...shown(fade)], splitLayers: undefined };
  }
}

/** The result of a step; the source until there is one. */
function resultOf({ step, computed, trace, hidden, garment }: Art, source: TableLayer[]): TableLayer[] {
  const { prepared, separation, reduced } = computed;
  if (step === "artwork") {
    if (!prepared) return source;
    const { bitmap, focus, bitmapScale: scale } = prepared;
    const placement = { scaleX: scale, scaleY: scale, dx: 0, dy: 0 };
    const marks: TableLayer[] = focus?.marks ? [{ kind: "bitmap", bitmap: focus.marks, opacity: 0.6, placement }] : [];
    return [{ kind: "bitmap", bitmap, opacity: 1, placement }, ...marks];
  }
  if (step === "separations" && separation) return plateLayers(separation, hidden);
  return trace && reduced ? resultLayers(trace, reduced.spots, garment) : source;
}

/** The design on the garment and the printable area of its placement, at scale. Units are upright pixels. */
export function placedTable(
  { bitmap, bitmapScale, frame }: PreparedPicture,
  { garment, placement }: Recipe["artwork"],
  mmPerPx: number,
): { width: number; height: number; layers: TableLayer[] } {
  const area = {
    width: placement ? placement.areaWidthMm / mmPerPx : frame.width,
    height: placement ? placement.areaHeightMm / mmPerPx : frame.height,
  };
  const { outline: body, seams, box, printAt } = silhouetteFor(placement);
  const inPx = 1 / mmPerPx;
  /** Middle of the print's upper edge on the table. */
  const x = (printAt.x - box.x) * inPx;
  const y = (printAt.y - box.y) * inPx;
  const onGarment = (path: string) => {
    const drawn = new Path2D();
    drawn.addPath(new Path2D(path), new DOMMatrix().scaleSelf(inPx).translateSelf(-box.x, -box.y));
    return drawn;
  };
  const outline = new Path2D();
  outline.rect(x - area.width / 2, y, area.width, area.height);
  const middle = new Path2D();
  middle.moveTo(x, y);
  middle.lineTo(x, y + area.height);
  const onTable = { scaleX: bitmapScale, scaleY: bitmapScale, dx: x - frame.width / 2, dy: y };
  return {
    width: box.width * inPx,
    height: box.height * inPx,
    layers: [
      { kind: "fills", fills: [{ colour: garment, path: onGarment(body) }] },
      { kind: "strokes", path: onGarment(body), colour: "#1e1d1a", screenPx: 1 },
      { kind: "strokes", path: onGarment(seams), colour: "#8a8880", screenPx: 1 },
      { kind: "strokes", path: middle, colour: "#1e1d1a", screenPx: 1, isHaloed: true, dashPx: 3 },
      { kind: "bitmap", bitmap, opacity: 1, placement: onTable },
      { kind: "strokes", path: outline, colour: "#1e1d1a", screenPx: 1.5, isHaloed: true, dashPx: 8 },
    ],
  };
}

/** A traced picture ready to draw and to be asked which spot is where. */
export interface DrawnTrace {
  readonly unders: readonly { readonly spotId: string; readonly path: Pieces }[];
  readonly fills: readonly { readonly spotId: string; readonly path: Pieces }[];
  readonly edges: Pieces;
  readonly nodes: Float64Array;
  /** The spots that it was traced from. */
  readonly spots: readonly Spot[];
}

export function drawTrace(traced: TracedView & { readonly spots: readonly Spot[] }): DrawnTrace {
  return {
    spots: traced.spots,
    unders: traced.fills
      .filter(({ under }) => under.length > 0)
      .map(({ spotId, under }) => ({ spotId, path: makePieces(under, true) })),
    fills: traced.fills.map(({ spotId, paths }) => ({ spotId, path: makePieces(paths, true) })),
    edges: makePieces(traced.edges, false),
    nodes: nodePoints(traced.edges),
  };
}

/** All spots as they will look. */
function resultLayers(trace: DrawnTrace, spots: readonly Spot[], garment: string): TableLayer[] {
  const colours = fillColours(trace.spots, spots, garment);
  const paint = ({ spotId, path }: DrawnTrace["fills"][number]) => ({ colour: colours.get(spotId) ?? garment, path });
  return [
    { kind: "fills", fills: trace.unders.map(paint) },
    { kind: "fills", fills: trace.fills.map(paint), isAbutting: true },
  ];
}

/** A ring round each place. */
export function ringPlaces(places: readonly { readonly x: number; readonly y: number }[], radius: number): TableLayer {
  const path = new Path2D();
  for (const { x, y } of places) {
    path.moveTo(x + radius, y);
    path.arc(x, y, radius, 0, 2 * Math.PI);
  }
  return { kind: "strokes", path, colour: "#b3261e", screenPx: 1.5, isHaloed: true };
}

/** Every boundary once, with its nodes. */
function outlineLayers(trace: DrawnTrace): TableLayer[] {
  return [
    { kind: "strokes", path: trace.edges, colour: "#1e1d1a", screenPx: 1.2 },
    { kind: "nodes", points: trace.nodes, colour: "#b3261e" },
  ];
}

/** Boundaries in the colour of their distance from the source's, the farthest on top. */
function distanceLayers({ stretches }: Deviation): TableLayer[] {
  return stretches.map((lines, i) => ({
    kind: "strokes",
    path: makePolylinePieces(lines),
    colour: DISTANCE_COLOURS[i],
    screenPx: 1.5 + i,
  }));
}

/** A simplification that is tried: the lines as they are, and over them as they would be, with their nodes. */
export function triedLayers({ before, after, picked }: TriedView): TableLayer[] {
  return [
    // What was picked is seen even where no node can be spared.
    { kind: "strokes", path: makePieces(picked, true), colour: "#1e1d1a", screenPx: 2, isHaloed: true, dashPx: 6 },
    { kind: "strokes", path: makePieces(before, false), colour: "#f0b429", screenPx: 5, isHaloed: true },
    { kind: "strokes", path: makePieces(after, false), colour: "#1e1d1a", screenPx: 1.2 },
    { kind: "nodes", points: nodePoints(after), colour: "#1e1d1a" },
  ];
}

/** Plates that are not hidden, first printed lowest. */
function plateLayers(separation: Separation, hidden: ReadonlySet<string>): TableLayer[] {
  const fills = separation.plates
    .filter((plate) => !hidden.has(plate.id))
    .map((plate) => ({ colour: formatHex(plate.rgb), path: makePieces(plate.region, true) }));
  return [{ kind: "fills", fills }];
}

/** Where a place of the art (upright pixels) lies on a film, mm. */
export function placeOnFilm(set: FilmSet, { x, y }: { x: number; y: number }): { x: number; y: number } {
  const onSheet = { x: set.art.x + x * set.mmPerPx, y: set.art.y + y * set.mmPerPx };
  return set.isMirrored ? { ...onSheet, x: set.sheet.width - onSheet.x } : onSheet;
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
    { kind: "fills", fills: [{ colour: "#000", path: makePieces(film.plate.region, true) }], placement: art },
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
