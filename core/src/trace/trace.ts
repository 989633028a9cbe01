// Tracing: reduced pixels to the planar map. Topology from the pixel cracks, position from coverage, curves by fitting.
import { type CubicPath, lengthOf } from "../geometry/index.ts";
import { type Components, findComponents, type LabelMap, NONE } from "../raster/index.ts";
import type { Assignment, Findings, Reduction, UnderLine } from "../reduce/index.ts";
import { absorbSpecks, mapLabels } from "./absorb-specks.ts";
import { type BoundaryPoints, readBoundary, SHORT_CRACKS, type TracedPicture } from "./boundary.ts";
import { BARE, type Chain, type ChainGraph, followChains } from "./chains.ts";
import { fitCircle } from "./circle.ts";
import { sharpenCorners } from "./corners.ts";
import { fitEllipse } from "./ellipse.ts";
import { fitRun } from "./fit.ts";
import { type Guide, guideAt } from "./guide.ts";
import { placeJunctions } from "./junctions.ts";
import { type MapEdge, type MapFace, type PlanarMap, spotPaths } from "./planar-map.ts";
import { scatterOf } from "./scatter.ts";
import { testSlivers } from "./slivers.ts";
import { squareUp } from "./square-up.ts";
import { findStraights } from "./straights.ts";

/** The person's decisions about shapes, part of the recipe. */
export interface ShapeSettings {
  /** Largest distance of a curve from the boundary it stands for, source pixels. */
  readonly tolerancePx: number;
  /** Regions of at most this many pixels across (squared: pixels of area) are specks. */
  readonly specksPx: number;
}

/** Extra tolerance (px) where an edge has no anti-aliasing: the pixel steps themselves are half a pixel off. */
const HARD_EDGE_PX = 0.35;
/** Tolerance for short boundaries, px: a wider one would straighten single pixels away. */
const SHORT_PX = 0.2;
/** Tolerance that the scatter of a boundary's own points asks for, as a multiple of it, and its limit, px. */
const SCATTER_SHARE = 2;
/** Compression also moves neighbouring points together: tolerance per unit of noise. */
const NOISE_PX = 0.1;
const MOST_NOISE_PX = 0.6;

/** Label map of spots after "drop" and specks, with its regions: what is traced. */
function labelSpots(
  findings: Findings,
  assignment: Assignment,
  reduction: Reduction,
  settings: ShapeSettings,
): { spots: LabelMap; components: Components } {
  const lookUp = Uint8Array.from({ length: 256 }, (_, spot) => (reduction.spots[spot]?.role === "drop" ? NONE : spot));
  const withSpecks = mapLabels(assignment.spots, lookUp);
  const components = findComponents(withSpecks);
  const spots = absorbSpecks(
    withSpecks,
    components,
    settings.specksPx * settings.specksPx,
    testSlivers(findings, reduction, components),
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
  return {
    ...traceLabels(picture, components, spotIds, settings.tolerancePx),
    underLines: underLines.map((under) => ({ spotId: under.spotId, paths: traceUnder(under, settings.tolerancePx) })),
  };
}

/** Outlines of what a fill runs under. They lie hidden below the lines, so that the grid's own position is enough. */
function traceUnder({ x, y, mask, spotId }: UnderLine, tolerancePx: number): CubicPath[] {
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
  const map = traceLabels(picture, findComponents(mask), [spotId], tolerancePx);
  return spotPaths({ ...map, underLines: [] }, spotId).map((path) => path.map((v, i) => v + (i % 2 === 0 ? x : y)));
}

/** Traces a label map: `spotIds` are those of its labels. */
function traceLabels(
  picture: TracedPicture,
  components: Components,
  spotIds: readonly string[],
  tolerancePx: number,
): Omit<PlanarMap, "underLines"> {
  const { raster, spots } = picture;
  const graph = followChains(spots, components);
  const boundaries = graph.chains.map((chain) => readBoundary(picture, chain));
  const vertices = placeJunctions(graph, boundaries, raster.width, raster.height);
  const faceOf = numberFaces(components);
  const edges = graph.chains.map(
    (chain, i): MapEdge => ({
      start: chain.start,
      end: chain.end,
      left: chain.left === BARE ? BARE : faceOf[chain.left],
      right: chain.right === BARE ? BARE : faceOf[chain.right],
      path: fitChain(chain, boundaries[i], vertices, picture, tolerancePx),
    }),
  );
  squareUp(edges, vertices, raster.width, raster.height);
  const rings = collectRings(graph, edges);
  const faces: MapFace[] = [];
  for (let c = 0; c < components.label.length; c++) {
    if (components.label[c] === NONE) continue;
    const spotId = spotIds[components.label[c]];
    faces.push({ spotId, areaPx: components.areaPx[c], rings: rings.get(faceOf[c]) ?? [] });
  }
  return { width: raster.width, height: raster.height, vertices, edges, faces };
}

/** Face number of every component of a spot; BARE for the rest. */
function numberFaces(components: Components): Int32Array {
  const out = new Int32Array(components.label.length).fill(BARE);
  let next = 0;
  for (let c = 0; c < out.length; c++) if (components.label[c] !== NONE) out[c] = next++;
  return out;
}

/** The curve of one chain, ends exactly on its vertices. */
function fitChain(
  chain: Chain,
  boundary: BoundaryPoints,
  vertices: Float64Array,
  { raster: { width, height }, noise }: TracedPicture,
  tolerancePx: number,
): CubicPath {
  const isShort = chain.corners.length / 2 - 1 < SHORT_CRACKS;
  const wide = Math.max(
    tolerancePx + Math.min(MOST_NOISE_PX, noise * NOISE_PX),
    Math.min(MOST_NOISE_PX, SCATTER_SHARE * scatterOf(boundary.points)),
  );
  const tolerance = isShort ? Math.min(wide, SHORT_PX) : wide + (boundary.isHard ? HARD_EDGE_PX : 0);
  if (isOnPictureEdge(chain, width, height)) return pictureEdge(chain, vertices);
  if (chain.start >= 0) {
    const points = withEnds(boundary.points, vertices, chain);
    const { points: line, corners } = isShort ? { points, corners: [] } : sharpenCorners(points, false);
    return fitBetween(
      line,
      [0, ...corners.filter((c) => c > 0 && c < line.length / 2 - 1), line.length / 2 - 1],
      tolerance,
    );
  }
  const points = boundary.points.length >= 6 ? boundary.points : crackCorners(chain);
  const { points: line, corners } = sharpenCorners(points, true);
  if (corners.length === 0)
    return fitCircle(line, tolerance) ?? fitEllipse(line, tolerance) ?? fitSmoothLoop(line, tolerance);
  return fitBetween(rotateLoop(line, corners[0]), [...corners.map((c) => c - corners[0]), line.length / 2], tolerance);
}

/** Whether a chain lies on the picture's own edge: every corner of it on one of the four sides, with nothing on one hand. */
function isOnPictureEdge({ corners, left, right }: Chain, width: number, height: number): boolean {
  if (left !== BARE && right !== BARE) return false;
  for (let i = 0; i < corners.length; i += 2) {
    const isInside = corners[i] > 0 && corners[i] < width && corners[i + 1] > 0 && corners[i + 1] < height;
    if (isInside) return false;
  }
  return true;
}

/** The picture's edge as it is: straight, with its right angles, from vertex to vertex. */
function pictureEdge({ corners, start, end }: Chain, vertices: Float64Array): CubicPath {
  const out: number[] = [corners[0], corners[1]];
  for (let i = 2; i < corners.length; i += 2) {
    const isBend =
      i + 2 >= corners.length ||
      (corners[i] - corners[i - 2]) * (corners[i + 3] - corners[i + 1]) !==
        (corners[i + 1] - corners[i - 1]) * (corners[i + 2] - corners[i]);
    if (!isBend) continue;
    const o = out.length;
    out.push(out[o - 2], out[o - 1], corners[i], corners[i + 1], corners[i], corners[i + 1]);
  }
  if (start >= 0) {
    const n = out.length;
    out[0] = vertices[start * 2];
    out[1] = vertices[start * 2 + 1];
    out[2] = out[0];
    out[3] = out[1];
    out[n - 4] = out[n - 2] = vertices[end * 2];
    out[n - 3] = out[n - 1] = vertices[end * 2 + 1];
  }
  return Float64Array.from(out);
}

function crackCorners({ corners }: Chain): Float64Array {
  return Float64Array.from(corners.subarray(0, corners.length - 2));
}

function withEnds(points: Float64Array, vertices: Float64Array, { start, end }: Chain): Float64Array {
  const out = new Float64Array(points.length + 4);
  out[0] = vertices[start * 2];
  out[1] = vertices[start * 2 + 1];
  out.set(points, 2);
  out[out.length - 2] = vertices[end * 2];
  out[out.length - 1] = vertices[end * 2 + 1];
  return out;
}

/** The loop starting at point `first`, which is repeated at its end. */
function rotateLoop(points: Float64Array, first: number): Float64Array {
  const out = new Float64Array(points.length + 2);
  out.set(points.subarray(first * 2));
  out.set(points.subarray(0, first * 2), points.length - first * 2);
  out[points.length] = out[0];
  out[points.length + 1] = out[1];
  return out;
}

/**
 * Fits each run between consecutive `breaks` (point indices, first and last included), sharp at the breaks. A run that
 * comes back to where it began is broken at its far end, too: one segment would loop.
 */
function fitBetween(points: Float64Array, breaks: readonly number[], tolerance: number): CubicPath {
  const out: number[] = [points[0], points[1]];
  const fit = (from: number, to: number) => {
    for (const value of fitRun(points, from, to, tolerance, null, null)) out.push(value);
  };
  for (let k = 1; k < breaks.length; k++) {
    const from = breaks[k - 1];
    const to = breaks[k];
    const comesBack = points[from * 2] === points[to * 2] && points[from * 2 + 1] === points[to * 2 + 1];
    const middle = comesBack ? farthest(points, from, to) : from;
    if (middle > from) fit(from, middle);
    fit(middle, to);
  }
  return Float64Array.from(out);
}

/** Index of the point between two that lies farthest from the first. */
function farthest(points: Float64Array, from: number, to: number): number {
  let best = from;
  let most = 0;
  for (let i = from + 1; i < to; i++) {
    const distance = lengthOf(points[i * 2] - points[from * 2], points[i * 2 + 1] - points[from * 2 + 1]);
    if (distance > most) {
      most = distance;
      best = i;
    }
  }
  return best;
}

/**
 * A closed curve without corners. The seam is as smooth as the rest: it lies where a straight part begins, or else at the
 * topmost point.
 */
function fitSmoothLoop(points: Float64Array, tolerance: number): CubicPath {
  const n = points.length / 2;
  let top = 0;
  for (let i = 1; i < n; i++) if (points[i * 2 + 1] < points[top * 2 + 1]) top = i;
  const fromTop = rotateLoop(points, top);
  const straight = findStraights(fromTop, 0, n, tolerance * 0.5).find(({ from }) => from > 0);
  const loop = straight ? rotateLoop(points, (top + straight.from) % n) : fromTop;
  const seam = straight ? footOn(straight, loop[0], loop[1]) : guideAtSeam(loop, tolerance);
  if (seam) {
    loop[0] = loop[2 * n] = seam.x;
    loop[1] = loop[2 * n + 1] = seam.y;
  }
  const out: number[] = [loop[0], loop[1]];
  const run = fitRun(loop, 0, n, tolerance, seam && [seam.dx, seam.dy], seam && [-seam.dx, -seam.dy]);
  for (const value of run) out.push(value);
  return Float64Array.from(out);
}

function footOn({ x, y, dx, dy }: Guide, px: number, py: number): Guide {
  const along = (px - x) * dx + (py - y) * dy;
  return { x: x + along * dx, y: y + along * dy, dx, dy };
}

/** Where a loop's first point really lies, from the points on either side of it. */
function guideAtSeam(loop: Float64Array, tolerance: number): Guide | null {
  const n = loop.length / 2 - 1;
  const side = Math.min(12, (n - 1) >> 1);
  const around = new Float64Array((2 * side + 1) * 2);
  for (let k = -side; k <= side; k++) {
    const i = ((k + n) % n) * 2;
    around[(k + side) * 2] = loop[i];
    around[(k + side) * 2 + 1] = loop[i + 1];
  }
  return guideAt(around, side, 0, 2 * side, tolerance * 0.3);
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
