// Twelve edits on the demo's ferry logo, after everything before them has changed: each finds its place again.
import {
  handEdges,
  type LineChange,
  moveHandle,
  moveNodes,
  type NodeRef,
  nodesAt,
  pullSegment,
  removeNodes,
  shapeSegments,
} from "@plain-palette/core/edit";
import {
  asCircle,
  type CubicPath,
  flattenPath,
  isInLine,
  nearestOnPath,
  segmentCount,
} from "@plain-palette/core/geometry";
import { makeRaster, type Raster } from "@plain-palette/core/raster";
import {
  makeRecipe,
  makeResultCache,
  makeShapeEntry,
  type Recipe,
  type ResultCache,
  runSteps,
  type ShapeEntry,
  scaleRecipe,
} from "@plain-palette/core/recipe";
import { resultOf } from "@plain-palette/core/steps";
import type { Drawing } from "@plain-palette/core/trace";
import sharp from "sharp";
import { beforeAll, describe, expect, it } from "vitest";
import { ferrySvg } from "../../tools/demo/ferry.ts";

/** Pixels of the old picture to a unit of the drawing; the new one has twice as many. */
const SCALE = 0.8;
const BASE = { colours: { count: 7 } } as const;

async function draw(scale: number): Promise<Raster> {
  const { data, info } = await sharp(Buffer.from(ferrySvg()), { density: 72 * scale })
    .flatten({ background: "#fff" })
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return makeRaster(info.width, info.height, new Uint8ClampedArray(data.buffer, data.byteOffset, data.length));
}

let [old, large]: Raster[] = [];
let cache: ResultCache;
let entries: ShapeEntry[] = [];
/** Where what was done lies, by entry: places of the old picture, px. */
let probes: ReadonlyMap<string, readonly (readonly [number, number])[]> = new Map();

function run(recipe: Recipe, key: string, raster: Raster, kept: ResultCache = makeResultCache()) {
  for (const step of runSteps({ key, raster }, recipe, kept))
    if (!["prepare", "find", "reduce", "assign", "read", "trace", "edit"].includes(step.name)) break;
  return { edited: resultOf(kept.kept, "edit"), spots: resultOf(kept.kept, "reduce").spots };
}

/** A place of the drawing on the old picture. */
const on = (x: number, y: number) => ({ x: x * SCALE, y: y * SCALE });

function faceAtPlace({ faces }: Drawing, { x, y }: { x: number; y: number }) {
  const found = faces.find(
    ({ paths }) => paths.filter((path) => isInLine(flattenPath(path, 0.05), x, y)).length % 2 === 1,
  );
  if (!found) throw new Error(`nothing at ${x}, ${y}`);
  return found;
}

beforeAll(async () => {
  old = await draw(SCALE);
  large = await draw(2 * SCALE);
  cache = makeResultCache();
  const map = run(makeRecipe(BASE), "old", old, cache).edited.drawing;
  const edges = handEdges(map);
  const node = (x: number, y: number): NodeRef[] => {
    const found = nodesAt(edges, on(x, y), 12);
    if (found.length === 0) throw new Error(`no node at ${x}, ${y}`);
    return found;
  };
  const place = ({ edge, node: n }: NodeRef): readonly [number, number] => [
    edges[edge].path[n * 6],
    edges[edge].path[n * 6 + 1],
  ];
  const all: ShapeEntry[] = [];
  const where = new Map<string, (readonly [number, number])[]>();
  const add = (parts: object, at: readonly (readonly [number, number])[]) => {
    const id = `e${all.length + 1}`;
    all.push(makeShapeEntry({ id, ...parts } as Parameters<typeof makeShapeEntry>[0]));
    where.set(id, [...at]);
  };
  const line = (changes: readonly LineChange[], at: readonly (readonly [number, number])[]) =>
    add({ kind: "line", changes: changes.map((one) => ({ ...one, was: [...one.was], now: [...one.now] })) }, at);
  const moved = (refs: NodeRef[], dx: number, dy: number) => {
    const [x, y] = place(refs[0]);
    line(
      moveNodes(edges, refs, () => [dx, dy]),
      [[x + dx, y + dy]],
    );
  };
  const spot = (x: number, y: number) => faceAtPlace(map, on(x, y)).spotId;
  // 1 to 6: the lamp house's top and its sill, a stripe of the tower, the wave, a ray's tip, the light wave.
  moved(node(500, 268), 0, -6);
  moved(node(456, 352), -5, 2);
  moved(node(545.5, 553), 6, 0);
  const wave = edges.findIndex(({ path }) => nearestOnPath(path, ...xy(on(700, 655)), 12) && segmentCount(path) > 1);
  const pulled = nearestOnPath(edges[wave].path, ...xy(on(700, 655)), 40);
  const s = Math.floor(pulled?.at ?? 0);
  const bent = pullSegment(edges, wave, s, 0.5, 0, -8);
  line(bent, [mid(bent[0].now)]);
  const tern = node(653.6, 372.7);
  line(
    moveHandle(
      edges,
      { edge: tern[0].edge, s: tern[0].node, which: 0 },
      { x: place(tern[0])[0] - 20, y: place(tern[0])[1] + 14 },
      true,
    ),
    // The whole bird is moved by that later on.
    [[place(tern[0])[0] - 12, place(tern[0])[1] + 20]],
  );
  const lamp = edges.flatMap(({ path }, edge) =>
    nearestOnPath(path, ...xy(on(516, 330)), 2)
      ? [{ edge, s: Math.floor(nearestOnPath(path, ...xy(on(516, 330)), 2)?.at ?? 0) }]
      : [],
  );
  const curved = shapeSegments(edges, lamp.slice(0, 1), "curved");
  line(curved.length > 0 ? curved : removeNodes(edges, node(484, 346)), []);
  // 7 to 12: a drill hole, a gap across the tower, a bridge, the bird moved, a ray made red, a stretch smoothed.
  add(
    { kind: "draw", figure: { kind: "ellipse", at: on(700, 560), width: 18, height: 18 }, spotId: null, heldMm: 3.175 },
    [],
  );
  add(
    {
      kind: "draw",
      act: "part",
      figure: { kind: "stroke", curve: straight(on(430, 410), on(570, 410)), width: 4 },
      spotId: null,
      onlyOn: spot(500, 400),
    },
    [xy(on(500, 412.5))],
  );
  add(
    {
      kind: "draw",
      act: "join",
      figure: { kind: "stroke", curve: straight(on(500, 520), on(500, 580)), width: 6 },
      spotId: spot(500, 520),
    },
    [xy(on(503.75, 575))],
  );
  add(
    {
      kind: "pieces",
      picks: [{ at: on(624, 394), spotId: spot(624, 394) }],
      stays: "away",
      placed: [{ dx: -12, dy: 20 }],
    },
    [],
  );
  add({ kind: "pieces", picks: [{ at: on(500, 200), spotId: spot(500, 200) }], stays: { spotId: spot(500, 400) } }, []);
  add(
    {
      kind: "brush",
      points: [...xy(on(290, 655)), ...xy(on(330, 645)), ...xy(on(370, 660))],
      radiusPx: 10,
      strengthPx: 6,
      does: "smooth",
    },
    [],
  );
  entries = all;
  probes = where;
}, 60_000);

const xy = ({ x, y }: { x: number; y: number }) => [x, y] as const;
const straight = (a: { x: number; y: number }, b: { x: number; y: number }) => [a.x, a.y, a.x, a.y, b.x, b.y, b.x, b.y];
const mid = (path: CubicPath): readonly [number, number] => [
  (path[0] + 3 * path[2] + 3 * path[4] + path[6]) / 8,
  (path[1] + 3 * path[3] + 3 * path[5] + path[7]) / 8,
];

/** How far what was done is from where it was put, px of the old picture; `shift` and `scale` lead to the new one. */
function farthest(drawing: Drawing, shift: readonly [number, number], scale: number): number {
  const off = [...probes].flatMap(([id, places]) =>
    places.map(([x, y]) => {
      const [px, py] = [(x - shift[0]) * scale, (y - shift[1]) * scale];
      const distances = drawing.edges.flatMap(({ path }) => nearestOnPath(path, px, py, 20)?.distance ?? []);
      return { id, px: Math.min(20, ...distances) / scale };
    }),
  );
  return Math.max(...off.map(({ px }) => px));
}

describe("twelve edits on the ferry's logo", () => {
  const recipeWith = (parts: object = {}, shapes: object = {}) =>
    makeRecipe({ ...BASE, ...parts, shapes: { ...shapes, entries } });

  it("lie where they were put, all of them", () => {
    expect(entries).toHaveLength(12);
    const { edited } = run(recipeWith(), "old", old, cache);
    expect([...edited.misfits]).toEqual([]);
    expect(farthest(edited.drawing, [0, 0], 1)).toBeLessThan(0.05);
  });

  it.each([0.1, 0.35, 1])("find their places at a tolerance of %s px", (tolerancePx) => {
    const { edited } = run(recipeWith({}, { tolerancePx }), "old", old, cache);
    expect([...edited.misfits]).toEqual([]);
    expect(farthest(edited.drawing, [0, 0], 1)).toBeLessThan(0.5);
  });

  it("find them while a colour is merged into another, and when it is parted again", () => {
    const { spots } = run(recipeWith(), "old", old, cache);
    const near = (hex: readonly number[]) => {
      const off = (rgb: readonly number[]) => Math.max(...rgb.map((v, c) => Math.abs(v - hex[c])));
      return spots.toSorted((a, b) => off(a.rgb) - off(b.rgb))[0].id;
    };
    // The light sea into the sea.
    const merges = [{ from: near([88, 166, 176]), into: near([31, 122, 140]) }];
    const merged = run(recipeWith({ colours: { count: 7, merges } }), "old", old, cache).edited;
    expect([...merged.misfits]).toEqual([]);
    expect(farthest(merged.drawing, [0, 0], 1)).toBeLessThan(0.5);
    const parted = run(recipeWith(), "old", old, cache).edited;
    expect([...parted.misfits]).toEqual([]);
    expect(farthest(parted.drawing, [0, 0], 1)).toBeLessThan(0.05);
  });

  it("find them on the cropped picture", () => {
    const actions = [{ id: "a1", kind: "crop", x: 40, y: 60, width: 700, height: 690 }];
    const { edited } = run(recipeWith({ artwork: { actions } }), "old", old);
    expect([...edited.misfits]).toEqual([]);
    expect(farthest(edited.drawing, [40, 60], 1)).toBeLessThan(0.5);
  });

  it("find them on a file of twice the pixels, and the drill hole is as wide as before", () => {
    const recipe = scaleRecipe(recipeWith(), 2);
    const { edited } = run(recipe, "large", large);
    expect([...edited.misfits]).toEqual([]);
    expect(farthest(edited.drawing, [0, 0], 2)).toBeLessThan(0.5);
    const circles = edited.drawing.edges.flatMap(({ path, isHeld }) => (isHeld ? (asCircle(path) ?? []) : []));
    expect(circles).toHaveLength(1);
    const mmPerPx = (10.5 * 25.4) / large.width;
    expect(2 * circles[0].radius * mmPerPx).toBeCloseTo(3.175, 6);
  });
});
