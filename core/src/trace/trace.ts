// Tracing: reduced pixels to the planar map. Topology from the pixel cracks, position from coverage, curves by fitting.
import { type CubicPath, joinPaths, lengthOf, pathArea, reversePath } from "../geometry/index.ts";
import { type Components, findComponents, type LabelMap, NONE, sineAndCosine } from "../raster/index.ts";
import type { Assignment, Findings, Reduction, UnderLine } from "../reduce/index.ts";
import { absorbSpecks } from "./absorb-specks.ts";
import { readBoundary, type TracedPicture } from "./boundary.ts";
import { BARE, type Chain, type ChainGraph, followChains } from "./chains.ts";
import { type CurveSettings, fitChain } from "./fit-chain.ts";
import { placeJunctions } from "./junctions.ts";
import { type MapEdge, type MapFace, type PlanarMap, spotPaths } from "./planar-map.ts";
import { roughPath } from "./rough-path.ts";
import { anyOf, testSlivers } from "./slivers.ts";
import { squareUp } from "./square-up.ts";
import { testThinLines } from "./thin-lines.ts";
import { type Crossings, untangle } from "./untangle.ts";

/** The person's decisions about shapes, part of the recipe. */
export interface ShapeSettings {
  /** Largest distance of a curve from the boundary it stands for, source pixels. */
  readonly tolerancePx: number;
  /** Smallest turn that is a corner, degrees: smaller ones are rounded. */
  readonly cornerDeg: number;
  /** Regions of at most this many pixels across (squared: pixels of area) are specks. */
  readonly specksPx: number;
  /** Regions narrower than this go to their neighbour, source pixels. */
  readonly thinnestPx: number;
  /** Whether small shapes keep to a fine tolerance, whatever the others do. */
  readonly keepsText: boolean;
}

/** Tolerance of curves that cross, as a share of what was asked for. */
const CLOSER_SHARE = 0.25;
/** Reach that takes all of a boundary when every corner of it is a place, px. */
const WHOLE_PX = 2;
/** How often boundaries that cross are made again: each time they take their neighbours along. */
const TIMES = 12;

/** The label map with nothing where a spot is dropped; itself where none is. */
function withoutDropped({ width, height, data }: LabelMap, { spots }: Reduction): LabelMap {
  if (!spots.some(({ role }) => role === "drop")) return { width, height, data };
  const lookUp = Uint8Array.from({ length: 256 }, (_, spot) => (spots[spot]?.role === "drop" ? NONE : spot));
  return { width, height, data: data.map((spot) => lookUp[spot]) };
}

/** Label map of spots after "drop" and specks, with its regions: what is traced. */
function labelSpots(
  findings: Findings,
  assignment: Assignment,
  reduction: Reduction,
  settings: ShapeSettings,
): { spots: LabelMap; components: Components } {
  const withSpecks = withoutDropped(assignment.spots, reduction);
  const components = findComponents(withSpecks);
  const spots = absorbSpecks(
    withSpecks,
    components,
    settings.specksPx * settings.specksPx,
    anyOf(testSlivers(findings, reduction, components), testThinLines(components, withSpecks, settings.thinnestPx)),
  );
  return { spots, components: spots === withSpecks ? components : findComponents(spots) };
}

/** Traces a reduced picture. A picture without any colour gives a map without faces. */
export function tracePicture(
  findings: Findings,
  reduction: Reduction,
  assignment: Assignment,
  settings: ShapeSettings,
): PlanarMap {
  const { spots, components } = labelSpots(findings, assignment, reduction, settings);
  const picture: TracedPicture = {
    raster: findings.raster,
    found: findings.labels,
    foundColours: findings.found.map((colour) => colour.rgb),
    spots,
    assigned: assignment.spots,
    spotColours: reduction.spots.map((spot) => spot.pictureRgb),
    noise: findings.noise,
  };
  const spotIds = reduction.spots.map((spot) => spot.id);
  const isDropped = new Set(reduction.spots.filter(({ role }) => role === "drop").map(({ id }) => id));
  const underLines = assignment.underLines.filter(({ spotId }) => !isDropped.has(spotId));
  const curves: CurveSettings = {
    tolerancePx: settings.tolerancePx,
    cornerCosine: sineAndCosine(settings.cornerDeg).cos,
    keepsText: settings.keepsText,
  };
  return {
    ...traceLabels(picture, components, spotIds, curves),
    underLines: underLines.map((under) => ({ spotId: under.spotId, paths: traceUnder(under, curves) })),
  };
}

/** Outlines of what a fill runs under. They lie hidden below the lines, so that the grid's own position is enough. */
function traceUnder({ x, y, mask, spotId }: UnderLine, curves: CurveSettings): CubicPath[] {
  const { width, height } = mask;
  const raster = { width, height, data: new Uint8ClampedArray(width * height * 4) };
  const picture = {
    raster,
    found: mask,
    foundColours: [[0, 0, 0]],
    spots: mask,
    assigned: mask,
    spotColours: [[0, 0, 0]],
    noise: 0,
  } as const;
  const map = traceLabels(picture, findComponents(mask), [spotId], curves);
  return spotPaths({ ...map, underLines: [] }, spotId).map((path) => path.map((v, i) => v + (i % 2 === 0 ? x : y)));
}

/** Traces a label map: `spotIds` are those of its labels. */
function traceLabels(
  picture: TracedPicture,
  components: Components,
  spotIds: readonly string[],
  curves: CurveSettings,
): Omit<PlanarMap, "underLines"> {
  const { raster, spots } = picture;
  const graph = followChains(spots, components);
  const boundaries = graph.chains.map((chain) => readBoundary(picture, chain));
  const vertices = placeJunctions(graph, boundaries, raster.width, raster.height);
  const faceOf = numberFaces(components);
  const fit = (e: number, tolerancePx: number, isClear = false) =>
    fitChain(graph.chains[e], boundaries[e], vertices, picture, { ...curves, tolerancePx }, isClear);
  const edges = graph.chains.map(
    (chain, e): MapEdge => ({
      start: chain.start,
      end: chain.end,
      left: chain.left === BARE ? BARE : faceOf[chain.left],
      right: chain.right === BARE ? BARE : faceOf[chain.right],
      ...fit(e, curves.tolerancePx),
    }),
  );
  squareUp(edges, vertices, raster.width, raster.height);
  const rings = collectRings(graph, edges);
  const rough = new Map<number, number[]>();
  /** Lays boundaries on the grid round the given places, and all that end at a vertex near them. */
  const layOnGrid = (at: Crossings, reachPx: number) => {
    for (const [e, places] of at) rough.set(e, [...(rough.get(e) ?? []), ...places]);
    const moved = new Set([...at.keys(), ...putBack(graph, vertices, at, reachPx)]);
    for (const e of moved)
      edges[e].path = roughPath(
        graph.chains[e],
        edges[e].read,
        vertices,
        picture,
        rough.get(e) ?? [],
        reachPx,
        curves.cornerCosine,
      );
    return moved;
  };
  untangle(edges, TIMES, (crossing, time) => {
    // From time to time farther round the places where they cross.
    if (time > 2) return layOnGrid(crossing, 2 ** (time - 1));
    for (const e of crossing.keys())
      edges[e].path = fit(e, curves.tolerancePx * (time === 1 ? 1 : CLOSER_SHARE), true).path;
    return [...crossing.keys()];
  });
  const lost = edgesOfLostFaces(graph, edges, rings);
  if (lost.size > 0) {
    layOnGrid(lost, WHOLE_PX);
    untangle(edges, TIMES, (crossing, time) => layOnGrid(crossing, WHOLE_PX * 2 ** time));
  }
  const faces: MapFace[] = [];
  for (let c = 0; c < components.label.length; c++) {
    if (components.label[c] === NONE) continue;
    const spotId = spotIds[components.label[c]];
    faces.push({ spotId, areaPx: components.areaPx[c], rings: rings.get(faceOf[c]) ?? [] });
  }
  return { width: raster.width, height: raster.height, vertices, edges, faces };
}

/** Edges of faces that curves have turned inside out, each with all its grid corners: a few pixels that must stay a shape. */
function edgesOfLostFaces(
  { chains }: ChainGraph,
  edges: readonly MapEdge[],
  rings: ReadonlyMap<number, readonly Int32Array[]>,
): Crossings {
  const lost = new Map<number, readonly number[]>();
  for (const ofFace of rings.values()) {
    const outlines = ofFace.filter((ring) => {
      const parts = Array.from(ring, (half) => (half & 1 ? reversePath(edges[half >> 1].path) : edges[half >> 1].path));
      return pathArea(joinPaths(parts)) < 0;
    });
    if (outlines.length === 1) continue;
    for (const ring of ofFace) for (const half of ring) lost.set(half >> 1, Array.from(chains[half >> 1].corners));
  }
  return lost;
}

/** Puts vertices near a crossing back to their grid corners. Returns all boundaries that end at one of them. */
function putBack(graph: ChainGraph, vertices: Float64Array, crossing: Crossings, reachPx: number): Set<number> {
  const moved = new Set<number>();
  for (const [e, places] of crossing)
    for (const vertex of [graph.chains[e].start, graph.chains[e].end]) {
      if (vertex < 0) continue;
      const [x, y] = [graph.vertices[vertex * 2], graph.vertices[vertex * 2 + 1]];
      let isNear = false;
      for (let i = 0; i < places.length && !isNear; i += 2)
        isNear = lengthOf(places[i] - x, places[i + 1] - y) < reachPx;
      if (!isNear) continue;
      vertices[vertex * 2] = x;
      vertices[vertex * 2 + 1] = y;
      for (let d = 0; d < 4; d++) {
        const half = graph.leaving[vertex * 4 + d];
        if (half >= 0) moved.add(half >> 1);
      }
    }
  return moved;
}

/** Face number of every component of a spot; BARE for the rest. */
function numberFaces(components: Components): Int32Array {
  const out = new Int32Array(components.label.length).fill(BARE);
  let next = 0;
  for (let c = 0; c < out.length; c++) if (components.label[c] !== NONE) out[c] = next++;
  return out;
}

/** Rings of every face, by walking half-edges and turning left at each vertex. */
function collectRings({ chains, leaving }: ChainGraph, edges: readonly MapEdge[]): Map<number, Int32Array[]> {
  const rings = new Map<number, Int32Array[]>();
  const seen = new Uint8Array(edges.length * 2);
  for (let first = 0; first < seen.length; first++) {
    const face = (first & 1) === 0 ? edges[first >> 1].left : edges[first >> 1].right;
    if (face === BARE || seen[first]) continue;
    const ring: number[] = [];
    let half = first;
    do {
      seen[half] = 1;
      ring.push(half);
      half = nextHalfEdge(chains, leaving, half);
    } while (half !== first);
    const list = rings.get(face);
    if (list) list.push(Int32Array.from(ring));
    else rings.set(face, [Int32Array.from(ring)]);
  }
  return rings;
}

function nextHalfEdge(chains: readonly Chain[], leaving: Int32Array, half: number): number {
  const { corners, start, end } = chains[half >> 1];
  const isForward = (half & 1) === 0;
  const vertex = isForward ? end : start;
  if (vertex < 0) return half;
  const n = corners.length;
  const dx = isForward ? corners[n - 2] - corners[n - 4] : corners[0] - corners[2];
  const dy = isForward ? corners[n - 1] - corners[n - 3] : corners[1] - corners[3];
  const d = dx > 0 ? 0 : dy > 0 ? 1 : dx < 0 ? 2 : 3;
  // Left first: the face on the left is hugged all the way round.
  for (const turn of [3, 0, 1]) {
    const next = leaving[vertex * 4 + ((d + turn) & 3)];
    if (next >= 0) return next;
  }
  throw new Error("a boundary ends in nothing");
}
