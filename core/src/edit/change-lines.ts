// Stretches of boundaries drawn anew. Where the new line crosses nothing the map keeps its structure and only the paths change;
// where it does, what the line sweeps over changes hands.
import {
  boundsOf,
  type CubicPath,
  eachLineCrossing,
  isClosed,
  isInLine,
  joinPaths,
  linePath,
  moveEnds,
  partOfPath,
  pathArea,
  pointAlong,
  reversePath,
  segmentCount,
  withEnds,
} from "../geometry/index.ts";
import { layOutlines } from "../lay/index.ts";
import { type MapFace, type PlanarMap, ringPath, spotOf } from "../trace/index.ts";
import { type LineChange, LOST, TANGLED } from "./edits.ts";
import { findStretch, type Stretch } from "./find-stretch.ts";
import { boxOf, doTouch, flatOf, pointOf } from "./known-paths.ts";

/** A change that has found its stretch: the new line in the edge's direction, from where the stretch begins. */
interface Found {
  readonly stretch: Stretch;
  readonly now: CubicPath;
  /** Spots on the left and right of the new line. */
  readonly sides: readonly [string | null, string | null];
}

/** The map with its lines changed; or why not: none of them finds its place, or the new lines cannot be laid. */
export function changeLines<M extends PlanarMap>(map: M, changes: readonly LineChange[]): M | string {
  const found = changes.flatMap((change) => {
    const stretch = findStretch(map, change);
    return stretch ? [placeChange(map, change, stretch)] : [];
  });
  if (found.length === 0) return LOST;
  return replacePaths(map, found) ?? sweep(map, found) ?? TANGLED;
}

function placeChange(map: PlanarMap, { was, now }: LineChange, stretch: Stretch): Found {
  const isMoved = (i: number, k: number) => was[i] !== now[k] || was[i + 1] !== now[k + 1];
  const [n, m] = [was.length, now.length];
  const [first, last] = [isMoved(0, 0), isMoved(n - 2, m - 2)];
  const turned = stretch.isBack ? reversePath(now) : now;
  const [movesStart, movesEnd] = stretch.isBack ? [last, first] : [first, last];
  const edge = map.edges[stretch.edge];
  const end = segmentCount(edge.path);
  const [x0, y0] = pointAlong(edge.path, stretch.from);
  const [x1, y1] = pointAlong(edge.path, stretch.to > end ? stretch.to - end : stretch.to);
  const isRing = edge.start < 0 && stretch.to - stretch.from === end;
  const placed = moveEnds(
    turned,
    ...((movesStart || isRing ? [turned[0], turned[1]] : [x0, y0]) as [number, number]),
    ...((movesEnd || isRing ? [turned[m - 2], turned[m - 1]] : [x1, y1]) as [number, number]),
  );
  return { stretch, now: placed, sides: [spotOf(map, edge.left), spotOf(map, edge.right)] };
}

/** The map with only paths and vertices changed; null where lines then cross or a shape is turned inside out. */
function replacePaths<M extends PlanarMap>(map: M, found: readonly Found[]): M | null {
  // What reaches over the picture's edge is cut off there.
  if (found.some(({ now }) => now.some((v, i) => v < 0 || v > (i % 2 === 0 ? map.width : map.height)))) return null;
  const vertices = map.vertices.slice();
  const paths = new Map<number, CubicPath>();
  for (const e of new Set(found.map(({ stretch }) => stretch.edge)))
    paths.set(
      e,
      redraw(
        map.edges[e].path,
        found.filter(({ stretch }) => stretch.edge === e),
      ),
    );
  const moved = new Set<number>();
  for (const [e, path] of paths) {
    const { start, end } = map.edges[e];
    if (start < 0) continue;
    for (const [vertex, i] of [
      [start, 0],
      [end, path.length - 2],
    ] as const) {
      if (path[i] === map.vertices[vertex * 2] && path[i + 1] === map.vertices[vertex * 2 + 1]) continue;
      vertices.set([path[i], path[i + 1]], vertex * 2);
      moved.add(vertex);
    }
  }
  map.edges.forEach(({ start, end, path }, e) => {
    if (start < 0 || (!moved.has(start) && !moved.has(end))) return;
    const [x0, y0, x1, y1] = [
      ...vertices.subarray(start * 2, start * 2 + 2),
      ...vertices.subarray(end * 2, end * 2 + 2),
    ];
    paths.set(e, moveEnds(paths.get(e) ?? path, x0, y0, x1, y1));
  });
  const edges = map.edges.map((edge, e) => {
    const path = paths.get(e);
    return path ? { ...edge, path, read: new Float64Array(0) } : edge;
  });
  const staying = edges.flatMap(({ path }, e) => (paths.has(e) ? [] : [path]));
  if (sweepsOver(map, found, staying) || doCross([...paths.values()], staying)) return null;
  const isChanged = (face: MapFace) => face.rings.some((ring) => ring.some((half) => paths.has(half >> 1)));
  const faces = map.faces.map((face): MapFace => {
    if (!isChanged(face)) return face;
    const drawn = face.rings.map((ring) => ringPath({ edges }, ring));
    return { ...face, paths: drawn, areaPx: Math.abs(drawn.reduce((sum, path) => sum + pathArea(path), 0)) };
  });
  const isTurned = faces.some(({ paths: drawn }, f) =>
    drawn.some((path, r) => drawn !== map.faces[f].paths && pathArea(path) * pathArea(map.faces[f].paths[r]) <= 0),
  );
  return isTurned ? null : { ...map, vertices, edges, faces };
}

/** An edge's path with its changed stretches. */
function redraw(path: CubicPath, found: readonly Found[]): CubicPath {
  const sorted = found.toSorted((a, b) => a.stretch.from - b.stretch.from);
  const segments = segmentCount(path);
  const parts: CubicPath[] = [];
  const add = (part: CubicPath) => {
    const last = parts.at(-1);
    const n = part.length;
    parts.push(last ? withEnds(part, last[last.length - 2], last[last.length - 1], part[n - 2], part[n - 1]) : part);
  };
  const over = Math.max(0, (sorted.at(-1)?.stretch.to ?? 0) - segments);
  let at = over;
  for (const { stretch, now } of sorted) {
    if (stretch.from - at > 1e-9) add(partOfPath(path, at, stretch.from));
    add(now);
    at = stretch.to;
  }
  if (over === 0 && segments - at > 1e-9) add(partOfPath(path, at, segments));
  const joined = joinPaths(parts);
  // A ring that was drawn over its first node begins where that stretch ends.
  return path[0] === path[path.length - 2] && path[1] === path[path.length - 1] && over === 0
    ? withEnds(joined, joined[0], joined[1], joined[0], joined[1])
    : joined;
}

/** Whether boundaries that stay lie between an old line and its new one, or on the way of a ring that is moved as a whole. */
function sweepsOver(map: PlanarMap, found: readonly Found[], staying: readonly CubicPath[]): boolean {
  const ways: CubicPath[] = [];
  const isSwept = found.some(({ stretch, now }) => {
    const old = partOfPath(map.edges[stretch.edge].path, stretch.from, stretch.to);
    if (isClosed(old)) ways.push(linePath([old[0], old[1], now[0], now[1]]));
    const loop = [...flatOf(now), ...flatOf(reversePath(old))];
    const { left, top, right, bottom } = boundsOf(loop);
    return staying.some((path) => {
      const [x, y] = pointOf(path);
      return x >= left && x <= right && y >= top && y <= bottom && isInLine(loop, x, y);
    });
  });
  return isSwept || doCross(ways, staying, false);
}

/** Whether paths cross any that stay, or themselves and each other. */
function doCross(paths: readonly CubicPath[], staying: readonly CubicPath[], amongThemselves = true): boolean {
  const boxes = paths.map(boxOf);
  const near = staying.filter((path) => boxes.some((box) => doTouch(box, boxOf(path))));
  let isCrossed = false;
  eachLineCrossing([...paths, ...near].map(flatOf), paths.keys(), (a, _, b) => {
    isCrossed ||= amongThemselves || Math.max(a, b) >= paths.length;
  });
  return isCrossed;
}

/** What lies between an old line and its new one goes to the side from which the line has moved away. */
function sweep<M extends PlanarMap>(map: M, found: readonly Found[]): M | null {
  const laid = found.map(({ stretch, now }) => {
    const { path } = map.edges[stretch.edge];
    const old = partOfPath(path, stretch.from, stretch.to);
    const n = old.length;
    const m = now.length;
    const parts = [now];
    if (now[m - 2] !== old[n - 2] || now[m - 1] !== old[n - 1])
      parts.push(linePath([now[m - 2], now[m - 1], old[n - 2], old[n - 1]]));
    parts.push(reversePath(old));
    if (now[0] !== old[0] || now[1] !== old[1]) parts.push(linePath([old[0], old[1], now[0], now[1]]));
    return { paths: [joinPaths(parts)] };
  });
  return layOutlines(map, {
    laid,
    decide: ({ spotId, windings }) => {
      let own = spotId;
      // Where several lines swept over a place it changed hands more than once.
      const isASide = (spot: string | null) =>
        found.some(({ sides }, k) => windings[k] !== 0 && (sides[0] === spot || sides[1] === spot));
      for (let round = 0; round <= found.length; round++)
        found.forEach(({ sides }, k) => {
          const [gains, loses] = windings[k] > 0 ? sides : [sides[1], sides[0]];
          if (windings[k] !== 0 && (own === loses || !isASide(own))) own = gains;
        });
      return own;
    },
  });
}
