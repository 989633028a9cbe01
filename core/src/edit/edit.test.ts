import { describe, expect, it } from "vitest";
import { asCircle, boundsOfAll, type CubicPath, nodesOf, pathArea } from "../geometry/index.ts";
import { expectPlanar, spotArea } from "../lay/lay.test.support.ts";
import { drawSvg, traceRaster } from "../testing/pictures.test.support.ts";
import type { Drawing } from "../trace/index.ts";
import {
  addNode,
  applyEdit,
  applyEdits,
  closeGap,
  type Edit,
  figurePaths,
  handEdges,
  LOST,
  moveNodes,
  nodesAt,
  removeNodes,
} from "./index.ts";

function trace(content: string, size = 120): Drawing {
  return traceRaster(drawSvg(size, content)).map;
}

/** Done, and a planar map again; fails where the edit changes nothing. */
function edited(map: Drawing, edit: Edit): Drawing {
  const done = applyEdit(map, edit);
  if (typeof done === "string") throw new Error(done);
  expectPlanar(done);
  return done;
}

const spotAt = (map: Drawing, x: number, y: number) => {
  const { faces } = map;
  const inside = (path: CubicPath) => {
    const line = nodesOf([path]);
    let isIn = false;
    for (let i = 0; i + 3 < line.length; i += 2)
      if (line[i + 1] > y !== line[i + 3] > y)
        if (line[i] + ((y - line[i + 1]) / (line[i + 3] - line[i + 1])) * (line[i + 2] - line[i]) > x) isIn = !isIn;
    return isIn;
  };
  return faces.find(({ paths }) => paths.filter(inside).length % 2 === 1)?.spotId ?? null;
};

const TWO =
  '<rect x="20" y="20" width="40" height="80" fill="#c0261c"/><rect x="60" y="20" width="40" height="80" fill="#2c6fbb"/>';

describe("a node that is moved", () => {
  it("takes both neighbours along, and nothing else changes", () => {
    const map = trace(TWO);
    const edges = handEdges(map);
    const red = spotAt(map, 30, 60) ?? "";
    const blue = spotAt(map, 80, 60) ?? "";
    const before = [spotArea(map, red), spotArea(map, blue)];
    const top = nodesAt(edges, { x: 60, y: 20 }, 1);
    const moved = edited(map, { kind: "line", changes: moveNodes(edges, top, () => [10, 0]) });
    // A triangle of 80 by 10 changes hands.
    expect(spotArea(moved, red) - before[0]).toBeCloseTo(400, 0);
    expect(spotArea(moved, blue) - before[1]).toBeCloseTo(-400, 0);
    expect(moved.edges).toHaveLength(map.edges.length);
  });

  it("over a third shape lays the line over it", () => {
    const map = trace(`${TWO}<circle cx="80" cy="60" r="8" fill="#1d7a3c"/>`);
    const edges = handEdges(map);
    const seam = edges.findIndex(({ path }) =>
      [...nodesOf([path])].every((v, i) => i % 2 === 1 || Math.abs(v - 60) < 1),
    );
    const { path } = edges[seam];
    const [red, green] = [spotAt(map, 30, 60) ?? "", spotAt(map, 80, 60) ?? ""];
    const was = path;
    const now = Float64Array.from([path[0], path[1], 100, 40, 100, 80, ...path.slice(-2)]);
    const done = edited(map, {
      kind: "line",
      changes: [{ was, now, left: edges[seam].left, right: edges[seam].right }],
    });
    // The bulge reaches 30 px beyond the seam and lies over the left half of the circle.
    expect(spotArea(done, green)).toBeLessThan(0.75 * spotArea(map, green));
    expect(spotArea(done, red)).toBeGreaterThan(spotArea(map, red) + 1500);
    const total = (drawing: Drawing) =>
      drawing.faces.reduce((sum, { paths }) => sum - paths.reduce((all, one) => all + pathArea(one), 0), 0);
    expect(total(done)).toBeCloseTo(total(map), 6);
  });

  it("that is taken out leaves a line as near as one curve can be", () => {
    const map = trace('<path d="M20 60 C20 20 100 20 100 60 C100 100 20 100 20 60Z" fill="#c0261c"/>');
    const edges = handEdges(map);
    const red = spotAt(map, 60, 60) ?? "";
    const ring = edges.findIndex(({ left, right }) => left === red || right === red);
    const count = edges[ring].path.length;
    const fuller = edited(map, { kind: "line", changes: addNode(edges, ring, 0.4) });
    expect(fuller.edges[ring].path.length).toBe(count + 6);
    const done = edited(fuller, { kind: "line", changes: removeNodes(handEdges(fuller), [{ edge: ring, node: 1 }]) });
    expect(done.edges[ring].path.length).toBe(count);
    expect(Math.abs(spotArea(done, red) / spotArea(map, red) - 1)).toBeLessThan(1e-6);
  });
});

describe("a shape", () => {
  const RING = '<path d="M60 20 A40 40 0 1 1 40 25.4" fill="none" stroke="#c0261c" stroke-width="10"/>';

  it("that is an open ring is closed between its two ends", () => {
    const map = trace(RING);
    const edges = handEdges(map);
    const red = spotAt(map, 96, 56) ?? "";
    expect(map.faces.filter(({ spotId }) => spotId === red)[0].rings).toHaveLength(1);
    const ends = [
      [60, 15],
      [60, 25],
      [37.5, 21],
      [42.5, 29.7],
    ].flatMap(([x, y]) => nodesAt(edges, { x, y }, 1.5));
    const gap = closeGap(edges, ends, 3);
    expect(gap?.spotId).toBe(red);
    const done = edited(map, {
      kind: "lay",
      paths: [gap?.curve ?? new Float64Array()],
      spotId: red,
      isHeld: false,
      onlyOn: null,
    });
    const [ring] = done.faces.filter(({ spotId }) => spotId === red);
    expect(ring.rings).toHaveLength(2);
    // Its two circles have radii of 45 and 35.
    expect(spotArea(done, red)).toBeGreaterThan(0.985 * Math.PI * (45 ** 2 - 35 ** 2));
    expect(spotArea(done, red)).toBeLessThan(1.01 * Math.PI * (45 ** 2 - 35 ** 2));
  });

  const BALLOON =
    '<circle cx="60" cy="40" r="25" fill="#c0261c"/><rect x="58.5" y="60" width="3" height="50" fill="#c0261c"/>';

  it("comes free where the line to it is broken, and can be taken away alone", () => {
    const map = trace(BALLOON);
    const red = spotAt(map, 60, 40) ?? "";
    const parted = edited(map, { kind: "cut", path: Float64Array.from([50, 66, 50, 66, 70, 66, 70, 66]), spotId: red });
    expect(parted.faces.filter(({ spotId }) => spotId === red)).toHaveLength(2);
    const string = edited(parted, {
      kind: "pieces",
      picks: [{ at: { x: 60, y: 90 }, spotId: red }],
      stays: "away",
      placed: [],
      over: [],
    });
    expect(Math.abs(spotArea(string, red) - spotArea(map, red) + 3 * 44)).toBeLessThan(2);
    expect(string.faces.filter(({ spotId }) => spotId === red)).toHaveLength(1);
  });

  it("is parted by a gap of its width, and joined again by a bridge", () => {
    const map = trace(TWO);
    const red = spotAt(map, 30, 60) ?? "";
    const white = spotAt(map, 5, 5) ?? "";
    const stroke = (width: number) => figurePaths({ kind: "stroke", curve: [10, 60, 10, 60, 110, 60, 110, 60], width });
    const parted = edited(map, { kind: "lay", paths: stroke(6), spotId: white, isHeld: false, onlyOn: red });
    expect(spotArea(map, red) - spotArea(parted, red)).toBeCloseTo(6 * 40, 0);
    expect(parted.faces.filter(({ spotId }) => spotId === red)).toHaveLength(2);
    const bridge = figurePaths({ kind: "stroke", curve: [40, 50, 40, 50, 40, 70, 40, 70], width: 10 });
    const joined = edited(parted, { kind: "lay", paths: bridge, spotId: red, isHeld: false, onlyOn: null });
    expect(joined.faces.filter(({ spotId }) => spotId === red)).toHaveLength(1);
    expect(spotArea(joined, red) - spotArea(parted, red)).toBeCloseTo(60, 0);
  });

  it("moves with what it encloses; what surrounds it takes its old place", () => {
    const map = trace('<circle cx="40" cy="40" r="20" fill="#c0261c"/><circle cx="40" cy="40" r="10" fill="#2c6fbb"/>');
    const [red, blue, white] = [spotAt(map, 26, 40) ?? "", spotAt(map, 40, 40) ?? "", spotAt(map, 5, 5) ?? ""];
    const done = edited(map, {
      kind: "pieces",
      picks: [{ at: { x: 26, y: 40 }, spotId: red }],
      stays: "away",
      placed: [{ dx: 40, dy: 40, matrix: [1, 0, 0, 1] }],
      over: [],
    });
    expect([spotAt(done, 40, 40), spotAt(done, 80, 80), spotAt(done, 66, 80)]).toEqual([white, blue, red]);
    for (const spot of [red, blue, white]) expect(spotArea(done, spot)).toBeCloseTo(spotArea(map, spot), 2);
  });

  it("is laid in place of a damaged one", () => {
    const map = trace(
      '<rect x="20" y="20" width="20" height="30" fill="#c0261c"/><path d="M70 20h20v30h-20v-9l8 -3l-8 -2z" fill="#c0261c"/>',
    );
    const red = spotAt(map, 30, 30) ?? "";
    const done = edited(map, {
      kind: "pieces",
      picks: [{ at: { x: 30, y: 30 }, spotId: red }],
      stays: "kept",
      placed: [{ dx: 50, dy: 0, matrix: [1, 0, 0, 1] }],
      over: [{ at: { x: 85, y: 30 }, spotId: red }],
    });
    expect(spotArea(done, red)).toBeCloseTo(2 * 600, 0);
  });

  it("becomes one with its neighbour, and the boundary between them is gone", () => {
    const map = trace(TWO);
    const [red, blue] = [spotAt(map, 30, 60) ?? "", spotAt(map, 80, 60) ?? ""];
    const done = edited(map, {
      kind: "pieces",
      picks: [{ at: { x: 80, y: 60 }, spotId: blue }],
      stays: { spotId: red },
      placed: [],
      over: [],
    });
    expect(done.faces).toHaveLength(map.faces.length - 1);
    expect(spotArea(done, red)).toBeCloseTo(spotArea(map, red) + spotArea(map, blue), 9);
  });

  it("that is round becomes a true circle, and stays so whatever is simplified", () => {
    const map = trace(
      '<rect x="10" y="10" width="100" height="100" fill="#c0261c"/><circle cx="60.3" cy="58.9" r="11" fill="#ffffff"/>',
    );
    const white = spotAt(map, 60, 59) ?? "";
    const round: Edit = { kind: "round", at: { x: 60, y: 59 }, spotId: white, diameterPx: 20 };
    const { drawing, misfits } = applyEdits(map, [
      { id: "a", edit: round },
      { id: "b", edit: { kind: "simplify", tolerancePx: 3, scope: { kind: "all" } } },
    ]);
    expect(misfits.size).toBe(0);
    const circles = drawing.edges.filter(({ isHeld }) => isHeld).flatMap(({ path }) => asCircle(path) ?? []);
    expect(circles).toHaveLength(1);
    expect(circles[0].radius).toBeCloseTo(10, 9);
    expect(Math.abs(circles[0].x - 60.3) + Math.abs(circles[0].y - 58.9)).toBeLessThan(0.1);
  });
});

it("a hole to the garment becomes a true circle, wider or narrower than it was", () => {
  const map = trace('<rect x="10" y="10" width="100" height="100" fill="#c0261c"/>');
  const red = spotAt(map, 60, 60) ?? "";
  const rough = figurePaths({ kind: "polygon", at: { x: 60, y: 60 }, width: 22, corners: 9, angleDeg: 4 });
  const pierced = edited(map, { kind: "lay", paths: rough, spotId: null, isHeld: false, onlyOn: null });
  for (const diameterPx of [18, 30]) {
    const round = edited(pierced, { kind: "round", at: { x: 61, y: 59 }, spotId: null, diameterPx });
    expect(spotArea(map, red) - spotArea(round, red)).toBeCloseTo((Math.PI * diameterPx ** 2) / 4, 0);
    const circles = round.edges.flatMap(({ path, isHeld }) => (isHeld ? (asCircle(path) ?? []) : []));
    expect(circles).toMatchObject([
      { x: expect.closeTo(60, 3), y: expect.closeTo(60, 3), radius: expect.closeTo(diameterPx / 2, 9) },
    ]);
  }
  expect(applyEdit(map, { kind: "round", at: { x: 60, y: 60 }, spotId: null, diameterPx: 9 })).toBe(LOST);
});

describe("a brush", () => {
  const LUMP = '<path d="M20 30h35q5 -8 10 0h35v60h-80z" fill="#c0261c"/>';
  const brush = { kind: "brush", points: [45, 28, 75, 28], radiusPx: 10, strengthPx: 12, keepsCorners: true } as const;

  it("straightens a lump away, and smooths it down, corners of the shape left alone", () => {
    const map = trace(LUMP);
    const red = spotAt(map, 60, 60) ?? "";
    const [straight, smooth] = [
      edited(map, { ...brush, does: "straighten", keepsCorners: false }),
      edited(map, { ...brush, does: "smooth", keepsCorners: false }),
    ];
    expect(spotArea(straight, red)).toBeCloseTo(4800, -1);
    const topOf = ({ faces }: Drawing) =>
      boundsOfAll(faces.filter(({ spotId }) => spotId === red).flatMap(({ paths }) => paths)).top;
    expect([topOf(map), topOf(smooth), topOf(straight)].map(Math.round)).toEqual([26, 28, 30]);
    const corner = (drawing: Drawing) => nodesAt(handEdges(drawing), { x: 100, y: 30 }, 0.3).length;
    expect([corner(straight), corner(smooth)]).toEqual([1, 1]);
  });

  it("where nothing is says so and changes nothing", () => {
    const map = trace(LUMP);
    expect(applyEdit(map, { ...brush, points: [60, 110, 61, 110], does: "smooth", radiusPx: 3 })).toBe(LOST);
  });
});

it("an edit that has lost its place is told of by name, and those after it are made", () => {
  const map = trace(TWO);
  const [red, blue] = [spotAt(map, 30, 60) ?? "", spotAt(map, 80, 60) ?? ""];
  const gone: Edit = {
    kind: "pieces",
    picks: [{ at: { x: 80, y: 60 }, spotId: blue }],
    stays: "away",
    placed: [],
    over: [],
  };
  const { drawing, misfits, memory } = applyEdits(map, [
    { id: "first", edit: gone },
    { id: "lost", edit: { ...gone, picks: [{ at: { x: 110, y: 110 }, spotId: red }] } },
    { id: "last", edit: { ...gone, picks: [{ at: { x: 30, y: 60 }, spotId: red }] } },
  ]);
  expect([...misfits]).toEqual([["lost", LOST]]);
  expect(new Set(drawing.faces.map(({ spotId }) => spotId))).toEqual(new Set([spotAt(map, 5, 5)]));
  // What came before the change is not made again.
  const again = applyEdits(map, [{ id: "first", edit: gone }], memory);
  expect(again.drawing).toBe(memory.steps[0].drawing);
});
