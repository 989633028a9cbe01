import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cosineBetween, isLine, pathArea, pointOn, segmentCount } from "../geometry/index.ts";
import { expectPlanar } from "../lay/lay.test.support.ts";
import { renderSvg, traceRaster } from "../testing/pictures.test.support.ts";
import type { Drawing } from "../trace/index.ts";
import {
  addNode,
  applyEdit,
  closeGap,
  type HandEdge,
  handEdges,
  type LineChange,
  moveHandle,
  moveNodes,
  nodesAt,
  pullSegment,
  removeNodes,
  shapeNodes,
  shapeSegments,
} from "./index.ts";

/** A leaf of two curves that meet smoothly at the top and in a corner at the bottom. */
const LEAF: HandEdge = {
  path: Float64Array.from([50, 90, 10, 70, 30, 10, 50, 10, 70, 10, 90, 70, 50, 90]),
  start: -1,
  end: -1,
  left: "green",
  right: null,
};
const BOX: HandEdge = {
  path: Float64Array.from([0, 0, 0, 0, 0, 40, 0, 40, 0, 40, 30, 40, 30, 40, 30, 40, 30, 0, 30, 0, 30, 0, 0, 0, 0, 0]),
  start: -1,
  end: -1,
  left: "red",
  right: null,
};

describe("a handle", () => {
  it("turns the other one of a smooth node with it, at that one's own length", () => {
    const [{ now }] = moveHandle([LEAF], { edge: 0, s: 0, which: 1 }, { x: 30, y: 0 }, false);
    expect(segmentCount(now)).toBe(2);
    const [nx, ny] = [now[6], now[7]];
    expect(cosineBetween(nx - now[4], ny - now[5], now[8] - nx, now[9] - ny)).toBeCloseTo(1, 12);
    expect(Math.hypot(now[8] - nx, now[9] - ny)).toBeCloseTo(20, 9);
  });
  it("moves alone where the node is to be a corner, or is one", () => {
    expect(segmentCount(moveHandle([LEAF], { edge: 0, s: 0, which: 1 }, { x: 30, y: 0 }, true)[0].now)).toBe(1);
    expect(segmentCount(moveHandle([LEAF], { edge: 0, s: 0, which: 0 }, { x: 0, y: 60 }, false)[0].now)).toBe(1);
  });
});

describe("a segment", () => {
  it("that is pulled goes through where the hand is", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 15, max: 85 }),
        fc.integer({ min: -30, max: 30 }),
        fc.integer({ min: -30, max: 30 }),
        (share, dx, dy) => {
          const t = share / 100;
          for (const edge of [LEAF, BOX]) {
            const [{ was, now }] = pullSegment([edge], 0, 1, t, dx, dy);
            const before = isLine(was, 0)
              ? pointOn(
                  Float64Array.from([
                    was[0],
                    was[1],
                    was[0] + (was[6] - was[0]) / 3,
                    was[1] + (was[7] - was[1]) / 3,
                    was[6] - (was[6] - was[0]) / 3,
                    was[7] - (was[7] - was[1]) / 3,
                    was[6],
                    was[7],
                  ]),
                  0,
                  t,
                )
              : pointOn(was, 0, t);
            const [x, y] = pointOn(now, 0, t);
            expect([x - before[0], y - before[1]]).toEqual([expect.closeTo(dx, 9), expect.closeTo(dy, 9)]);
          }
        },
      ),
    );
  });
  it("gets a node without moving, becomes straight, and curved again as its neighbours run", () => {
    const [{ was, now }] = addNode([LEAF], 0, 0.3);
    expect(segmentCount(now)).toBe(segmentCount(was) + 1);
    expect(pathArea(now)).toBeCloseTo(pathArea(was), 9);
    const [straight] = shapeSegments([LEAF], [{ edge: 0, s: 0 }], "straight");
    expect(isLine(straight.now, 0)).toBe(true);
    const [curved] = shapeSegments([BOX], [{ edge: 0, s: 1 }], "curved");
    // It leaves its nodes in the directions of the sides before and after.
    expect([curved.now[2] - curved.now[0], curved.now[4] - curved.now[6]]).toEqual([0, 0]);
  });
});

describe("a node", () => {
  it("becomes smooth: both handles on one line; and a corner: each on the way to its neighbour", () => {
    const [{ now }] = shapeNodes([BOX], [{ edge: 0, node: 1 }], "smooth");
    expect(cosineBetween(now[6] - now[4], now[7] - now[5], now[8] - now[6], now[9] - now[7])).toBeCloseTo(1, 12);
    const [corner] = shapeNodes([LEAF], [{ edge: 0, node: 1 }], "corner");
    const [nx, ny] = [corner.now[6], corner.now[7]];
    expect(cosineBetween(corner.now[4] - nx, corner.now[5] - ny, 50 - nx, 90 - ny)).toBeCloseTo(1, 9);
  });
  it("of a ring stays if no area would be left", () => {
    expect(removeNodes([LEAF], [{ edge: 0, node: 1 }])).toEqual([]);
    expect(removeNodes([BOX], [{ edge: 0, node: 1 }])).toHaveLength(1);
  });
  it("is no end of a ring by itself", () => {
    expect(
      closeGap(
        [BOX],
        [0, 1, 2, 3].map((node) => ({ edge: 0, node })),
        2,
      ),
    ).toBeNull();
  });
});

/** Six flat icons (npm @iconify-json/fluent-emoji-flat, MIT), 128 px wide. */
function readMaps(): Drawing[] {
  const { icons } = JSON.parse(
    readFileSync(createRequire(import.meta.url).resolve("@iconify-json/fluent-emoji-flat/icons.json"), "utf8"),
  );
  return ["artist-palette", "balloon", "bell", "bicycle", "duck", "fish"].map((name) => {
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 32 32"><rect width="32" height="32" fill="#fff"/>${icons[name].body}</svg>`;
    return traceRaster(renderSvg(svg, 4)).map;
  });
}

describe("whatever the hand does to nodes and lines", () => {
  const maps = readMaps();
  const size = fc.integer({ min: -250, max: 250 }).map((v) => v / 10);
  const share = fc.integer({ min: 0, max: 999 }).map((v) => v / 1000);
  const deed = fc.constantFrom("move", "handle", "pull", "remove", "smooth", "corner");

  it("leaves a planar map that covers the same area, three deeds in a row", () => {
    fc.assert(
      fc.property(
        fc.nat(5),
        fc.array(fc.tuple(deed, share, share, size, size), { minLength: 3, maxLength: 3 }),
        (m, deeds) => {
          let map = maps[m];
          for (const [kind, e, n, dx, dy] of deeds) {
            const changes = changesOf(map, kind, e, n, dx, dy);
            if (changes.length === 0) continue;
            const done = applyEdit(map, { kind: "line", changes });
            expect(done).toBeTypeOf("object");
            if (typeof done === "string") return;
            expectPlanar(done);
            expect(areaOf(done)).toBeCloseTo(areaOf(map), 6);
            map = done;
          }
        },
      ),
      { numRuns: 300 },
    );
  });
});

function areaOf({ faces }: Drawing): number {
  return faces.reduce((sum, { paths }) => sum - paths.reduce((all, path) => all + pathArea(path), 0), 0);
}

/** What a deed changes at a node picked by shares; nothing at the picture's own edge. */
function changesOf(map: Drawing, kind: string, e: number, n: number, dx: number, dy: number): LineChange[] {
  const edges = handEdges(map);
  const edge = Math.floor(e * edges.length);
  const { path } = edges[edge];
  const s = Math.floor(n * segmentCount(path));
  const [x, y] = [path[s * 6], path[s * 6 + 1]];
  const nodes = nodesAt(edges, { x, y }, 1e-6);
  if (map.edges[edge].isHeld || nodes.some((one) => map.edges[one.edge].isHeld)) return [];
  if (kind === "move") return moveNodes(edges, nodes, () => [dx, dy]);
  if (kind === "handle") return moveHandle(edges, { edge, s, which: 0 }, { x: x + dx, y: y + dy }, dx > 0);
  if (kind === "pull") return pullSegment(edges, edge, s, 0.5, dx, dy);
  if (kind === "remove") return removeNodes(edges, nodes);
  return shapeNodes(edges, nodes, kind === "smooth" ? "smooth" : "corner");
}
