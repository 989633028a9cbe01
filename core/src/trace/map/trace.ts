// Tracing: reduced pixels to the planar map. Topology from the pixel cracks, position from coverage, curves by fitting.
import { joinPaths, lengthOf, pathArea, reversePath } from "../../geometry/index.ts";
import { type Components, NONE } from "../../raster/index.ts";
import type { Assignment, Findings, Reduction } from "../../reduce/index.ts";
import type { Sharing } from "../../share/index.ts";
import {
  type Crossings,
  type CurveSettings,
  fitLine,
  fitTogether,
  roughPath,
  squareUp,
  toleranceOf,
  untangle,
} from "../fit/index.ts";
import {
  BARE,
  type Chain,
  type ChainGraph,
  clearChain,
  type LabelReading,
  pictureEdge,
  type ReadSettings,
  readShapes,
  type ShapesReading,
} from "../read/index.ts";
import { type Drawing, joinMaps } from "./drawing.ts";
import { type MapEdge, type MapFace, type PlanarMap, ringPath } from "./planar-map.ts";

/** The person's decisions about shapes, part of the recipe. */
export interface ShapeSettings extends ReadSettings, CurveSettings {}

/** Tolerance of curves that cross, as a share of what was asked for. */
const CLOSER_SHARE = 0.25;
/** Reach that takes all of a boundary when every corner of it is a place, px. */
const WHOLE_PX = 2;
/** How often boundaries that cross are made again: each time they take their neighbours along. */
const TIMES = 12;

/** Traces a reduced picture. A picture without any colour gives a map without faces. */
export function tracePicture(
  findings: Findings,
  reduction: Reduction,
  assignment: Assignment,
  settings: ShapeSettings,
): Drawing {
  return fitShapes(readShapes(findings, reduction, assignment, settings), settings);
}

/** Fits curves to the boundaries that were read, with whoever helps. */
export function* fitShapesTogether(reading: ShapesReading, curves: CurveSettings): Sharing<Drawing> {
  yield* fitTogether(
    [reading, ...reading.underLines].flatMap(({ lines }) => lines),
    curves,
  );
  return fitShapes(reading, curves);
}

/** Fits curves to the boundaries that were read. */
export function fitShapes(reading: ShapesReading, curves: CurveSettings): Drawing {
  const art = fitLabels(reading, curves);
  const poured = reading.underLines.map((under) => ({ map: fitLabels(under, curves), x: under.x, y: under.y }));
  return { ...art, below: poured.length > 0 ? [joinMaps(art.width, art.height, poured)] : [] };
}

function fitLabels(reading: LabelReading, curves: CurveSettings): PlanarMap {
  const { picture, components, spotIds, graph, boundaries, lines, cornerCosine } = reading;
  const { width, height } = picture.raster;
  const vertices = reading.vertices.slice();
  const faceOf = numberFaces(components);
  const edges = graph.chains.map((chain, e): MapEdge => {
    const line = lines[e];
    return {
      start: chain.start,
      end: chain.end,
      left: chain.left === BARE ? BARE : faceOf[chain.left],
      right: chain.right === BARE ? BARE : faceOf[chain.right],
      path: line ? fitLine(line, toleranceOf(line, curves)) : pictureEdge(chain, vertices),
      read: line ? line.points : new Float64Array(0),
      isHeld: !line,
      isCut: false,
    };
  });
  squareUp(edges, vertices, width, height);
  const rings = collectRings(graph, edges);
  /** Fits a boundary again to the points away from its ends, and to where these are now. */
  const fitAgain = (e: number, share: number) => {
    const read = lines[e];
    const line = read && clearChain(read, graph.chains[e], boundaries[e], vertices, picture, cornerCosine);
    const closer = { ...curves, tolerancePx: curves.tolerancePx * share };
    if (line) edges[e].path = fitLine(line, toleranceOf(line, closer));
  };
  const rough = new Map<number, number[]>();
  /** Lays boundaries on the grid round the given places, and all that end at a vertex near them. */
  const layOnGrid = (at: Crossings, reachPx: number) => {
    for (const [e, places] of at) rough.set(e, [...(rough.get(e) ?? []), ...places]);
    const moved = new Set([...at.keys(), ...putBack(graph, vertices, at, reachPx)]);
    for (const e of moved) {
      const line = lines[e];
      edges[e].path = line
        ? roughPath(graph.chains[e], line, vertices, rough.get(e) ?? [], reachPx, cornerCosine)
        : pictureEdge(graph.chains[e], vertices);
    }
    return moved;
  };
  untangle(edges, TIMES, (crossing, time) => {
    // From time to time farther round the places where they cross.
    if (time > 2) return layOnGrid(crossing, 2 ** (time - 1));
    for (const e of crossing.keys()) fitAgain(e, time === 1 ? 1 : CLOSER_SHARE);
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
    const own = rings.get(faceOf[c]) ?? [];
    const paths = own.map((ring) => ringPath({ edges }, ring));
    faces.push({ spotId, areaPx: components.areaPx[c], rings: own, paths });
  }
  return { width, height, vertices, edges, faces };
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
