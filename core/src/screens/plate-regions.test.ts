// Plates as a press sees them: nothing left bare that should be covered, nothing white that peeks out, circles round.
import polygonClipping, { type MultiPolygon, type Polygon } from "polygon-clipping";
import { describe, expect, it } from "vitest";
import { parseHex } from "../colour/index.ts";
import { type CubicPath, flattenPath, pathArea, segmentCount } from "../geometry/index.ts";
import type { Raster } from "../raster/index.ts";
import { assignSpots, findColours, reduceColours, type SpotCorrection, UNDECIDED } from "../reduce/index.ts";
import { independentRegion } from "../testing/independent-regions.test.support.ts";
import { drawExactly, drawLettering, PLAIN_SHAPES } from "../testing/pictures.test.support.ts";
import { tracePicture } from "../trace/index.ts";
import { type Plate, separatePlates } from "./index.ts";

const GOLD = "f2b134";
const INK_BLACK = "101014";
const WHITE = "ffffff";

interface Job {
  readonly widthMm: number;
  readonly trapMm?: number;
  readonly chokeMm?: number;
  readonly garment?: string;
  /** Spots that are the garment's own colour. */
  readonly shows?: readonly string[];
  readonly added?: string;
  readonly corrections?: readonly SpotCorrection[];
}

/** A picture's traced map, and its plates by id. */
function separate(raster: Raster, job: Job) {
  const findings = findColours(raster);
  const reduction = reduceColours(findings, {
    ...UNDECIDED,
    count: findings.found.length,
    decided: Object.fromEntries((job.shows ?? []).map((id) => [id, { role: "garment" as const }])),
    added: job.added ? [{ id: job.added, hex: `#${job.added}` }] : [],
  });
  const assignment = assignSpots(findings, reduction, job.corrections ?? []);
  const map = tracePicture(findings, reduction, assignment, { ...PLAIN_SHAPES, tolerancePx: 0.05 });
  const settings = {
    order: [],
    trapMm: job.trapMm ?? 0.3,
    base: { mode: "auto" as const, chokeMm: job.chokeMm ?? 0.35, thinnestMm: 0.35, decided: {} },
  };
  const garment = parseHex(job.garment ?? "#ffffff");
  const { plates, mmPerPx } = separatePlates({ map, spots: reduction.spots, widthMm: job.widthMm, garment }, settings);
  const plate = (id: string): Plate => {
    const found = plates.find((one) => one.id === id);
    if (!found) throw new Error(`no plate ${id}`);
    return found;
  };
  return { map, plate, mmPerPx };
}

/** A region for the independent library, within a micrometre. */
const polygonsOf = (region: readonly CubicPath[], mmPerPx: number) => independentRegion(region, mmPerPx, 0.001);

function areaMm2(polygons: MultiPolygon): number {
  return polygons.flat().reduce((sum, ring) => {
    let twice = 0;
    for (let i = 0; i + 1 < ring.length; i++) twice += ring[i][0] * ring[i + 1][1] - ring[i + 1][0] * ring[i][1];
    return sum + twice / 2;
  }, 0);
}

function shifted(polygons: MultiPolygon, dx: number, dy: number): MultiPolygon {
  return polygons.map((rings) => rings.map((ring) => ring.map(([x, y]): [number, number] => [x + dx, y + dy])));
}

/** Largest difference (mm) between a closed path and the circle of a radius round a centre, along the whole path. */
function offCircle(path: CubicPath, cxMm: number, cyMm: number, radiusMm: number, mmPerPx: number): number {
  let worst = 0;
  for (let s = 0; s < segmentCount(path); s++)
    for (let k = 0; k < 8; k++) {
      const [x, y] = pointAt(path, s, k / 8);
      worst = Math.max(worst, Math.abs(Math.hypot(x * mmPerPx - cxMm, y * mmPerPx - cyMm) - radiusMm));
    }
  return worst;
}

function pointAt(path: CubicPath, s: number, t: number): [number, number] {
  const u = 1 - t;
  const weights = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
  const sum = (axis: number) => weights.reduce((v, w, k) => v + w * path[s * 6 + k * 2 + axis], 0);
  return [sum(0), sum(1)];
}

describe("a poured colour's plate", () => {
  const drawing = drawExactly(
    120,
    `<circle cx="60" cy="60" r="40" fill="#${WHITE}" stroke="#${INK_BLACK}" stroke-width="6"/><path d="M25 60H95" stroke="#${INK_BLACK}" stroke-width="3"/>`,
  );
  const pour = (trapMm: number) =>
    separate(drawing, {
      widthMm: 60,
      trapMm,
      added: "d8412f",
      shows: [WHITE],
      corrections: [
        { id: "p", isOn: true, kind: "pour", reach: "area", loop: [], at: { x: 60, y: 40 }, spotId: "d8412f" },
      ],
    });

  it("never covers less with a wider trap, and has no ring of shirt in it", () => {
    const traps = [0, 0.1, 0.3, 0.5, 0.8, 1.2];
    const plates = traps.map((trapMm) => pour(trapMm).plate("d8412f"));
    for (let i = 1; i < traps.length; i++) expect(plates[i].coverage).toBeGreaterThanOrEqual(plates[i - 1].coverage);
    for (const { region } of plates) expect(region).toHaveLength(1);
  });

  it("is what an independent library makes of the poured area, its run under the lines and its trap", () => {
    const { map, plate, mmPerPx } = pour(0.8);
    const own = polygonsOf(
      map.faces
        .filter(({ spotId }) => spotId === "d8412f")
        .flatMap(({ rings }) => rings.map((ring) => ringOf(map, ring))),
      mmPerPx,
    );
    const under = polygonsOf(
      map.below.flatMap(({ faces }) => faces.flatMap(({ paths }) => paths)),
      mmPerPx,
    );
    const region = polygonsOf(plate("d8412f").region, mmPerPx);
    // The trap is at most so wide: everything within 0.8 mm, but nothing beyond it or the middle of the lines.
    expect(areaMm2(polygonClipping.difference(polygonClipping.union(own, under), region))).toBeLessThan(0.01);
    expect(Math.abs(plate("d8412f").coverage * 60 * 60 - areaMm2(region))).toBeLessThan(0.2);
  });
});

function ringOf(map: ReturnType<typeof separate>["map"], ring: Int32Array): CubicPath {
  const parts = Array.from(ring, (half) => {
    const { path } = map.edges[half >> 1];
    if ((half & 1) === 0) return path;
    return path.map((_, i) => path[path.length - 2 - (i - (i % 2)) + (i % 2)]);
  });
  return Float64Array.from([...parts[0].subarray(0, 2), ...parts.flatMap((part) => [...part.subarray(2)])]);
}

describe("a trap along a closed boundary", () => {
  const disc = (inside: string, around: string) =>
    drawExactly(
      100,
      `<rect width="100" height="100" fill="#${around}"/><circle cx="50" cy="50" r="30" fill="#${inside}"/>`,
    );

  it("is a whole ring, inside a dark disc and round a light one: no bite where the boundary begins", () => {
    const inDark = separate(disc(INK_BLACK, GOLD), { widthMm: 50 }).plate(GOLD);
    expect(inDark.trapMm2).toBeCloseTo(Math.PI * (15 ** 2 - 14.7 ** 2), 1);
    const roundLight = separate(disc(GOLD, INK_BLACK), { widthMm: 50 }).plate(GOLD);
    expect(roundLight.trapMm2).toBeCloseTo(Math.PI * (15.3 ** 2 - 15 ** 2), 1);
    // One ring each: the art's rectangle with its hole, and the disc.
    expect(inDark.region).toHaveLength(2);
    expect(roundLight.region).toHaveLength(1);
  });

  it("leaves no cloth bare when a plate slips by less than the trap", () => {
    const { plate, mmPerPx } = separate(disc(INK_BLACK, GOLD), { widthMm: 50 });
    const gold = polygonsOf(plate(GOLD).region, mmPerPx);
    const black = polygonsOf(plate(INK_BLACK).region, mmPerPx);
    const whole: Polygon = [
      [
        [1, 1],
        [49, 1],
        [49, 49],
        [1, 49],
      ],
    ];
    for (const [dx, dy] of [
      [0.29, 0],
      [-0.29, 0],
      [0, 0.29],
      [0, -0.29],
      [0.2, 0.2],
      [-0.2, 0.2],
    ]) {
      const bare = polygonClipping.difference([whole], gold, shifted(black, dx, dy));
      expect(areaMm2(bare)).toBeLessThan(1e-4);
    }
  });
});

describe("a light ink beside dark ones about two traps wide", () => {
  const holeWidths = (region: readonly CubicPath[], mmPerPx: number) =>
    region.map((path) => {
      const xs = [...flattenPath(path, 0.01)].filter((_, i) => i % 2 === 0);
      return (Math.max(...xs) - Math.min(...xs)) * mmPerPx;
    });

  it("runs through under them or leaves a gap as wide as a trap, never a sliver", () => {
    const strokes = [0.5, 0.62, 0.7, 0.8, 0.88, 0.95, 1.2, 1.6];
    const bars = strokes.map(
      (mm, i) => `<rect x="${100 + i * 100}" y="40" width="${mm * 40}" height="120" fill="#${INK_BLACK}"/>`,
    );
    const art = `<rect width="900" height="900" fill="#${GOLD}"/>${bars.join("")}`;
    const { plate, mmPerPx } = separate(drawExactly(900, art), { widthMm: 22.5 });
    const [whole, ...holes] = holeWidths(plate(GOLD).region, mmPerPx).sort((a, b) => b - a);
    expect(whole).toBeCloseTo(22.5, 1);
    expect(holes).toHaveLength(3);
    expect(holes[0]).toBeCloseTo(1.6 - 0.6, 1);
    expect(holes[2]).toBeGreaterThan(0.3);
  });

  it("has no hole under fine dark lettering that no screen holds open", () => {
    const letters = drawLettering("Grebe tide 84", { heightPx: 80, colour: `#${INK_BLACK}`, background: `#${GOLD}` });
    for (const heightMm of [4, 5, 6]) {
      const { plate, mmPerPx } = separate(letters, { widthMm: (letters.width * heightMm) / 80 });
      const holes = plate(GOLD).region.map((path) => Math.abs(pathArea(path)) * mmPerPx ** 2);
      expect(holes.filter((area) => area < 0.8)).toEqual([]);
    }
  });
});

describe("curves on the plates", () => {
  it("stay the traced ones where no trap touches them", () => {
    const { map, plate } = separate(
      drawExactly(
        100,
        `<circle cx="50" cy="50" r="30" fill="#${GOLD}"/><rect x="40" y="40" width="20" height="20" fill="#${INK_BLACK}"/>`,
      ),
      { widthMm: 50, shows: [WHITE] },
    );
    const outlines = map.edges.filter(({ start }) => start < 0).map(({ path }) => Math.abs(pathArea(path)));
    const [circle] = plate(GOLD).region.filter((path) => segmentCount(path) === 4);
    expect(outlines).toContain(Math.abs(pathArea(circle)));
  });

  it("of traps and chokes are circles to 3 micrometres, for a dot of a millimetre, too", () => {
    const dot = drawExactly(
      200,
      `<rect width="200" height="200" fill="#${INK_BLACK}"/><circle cx="100" cy="100" r="10" fill="#${GOLD}"/>`,
    );
    const { map, plate, mmPerPx } = separate(dot, { widthMm: 10 });
    const drawn = Math.min(...map.edges.map(({ path }) => Math.abs(pathArea(path))));
    const radius = Math.sqrt(drawn / Math.PI) * mmPerPx;
    expect(offCircle(plate(GOLD).region[0], 5, 5, radius + 0.3, mmPerPx)).toBeLessThan(0.0035);
    const disc = drawExactly(100, `<circle cx="50" cy="50" r="40" fill="#${GOLD}"/>`);
    const onDark = separate(disc, { widthMm: 50, garment: "#1d2a44", shows: [WHITE] });
    expect(offCircle(onDark.plate("base").region[0], 25, 25, 20 - 0.35, onDark.mmPerPx)).toBeLessThan(0.0035 + 0.01);
  });
});

describe("the underbase on dark cloth", () => {
  const onNavy = { garment: "#1d2a44", shows: ["1d2a44"] };
  const shareBased = (heightMm: number) => {
    const picture = drawLettering("Harbour", { heightPx: heightMm * 20, colour: `#${WHITE}`, background: "#1d2a44" });
    const { plate } = separate(picture, { ...onNavy, widthMm: picture.width / 20 });
    return plate("base").coverage / plate(WHITE).coverage;
  };

  it("lies under at least nine tenths of bold lettering of 3 and 4 mm", () => {
    for (const heightMm of [3, 4]) expect(shareBased(heightMm)).toBeGreaterThan(0.9);
  });

  it("is choked in full under what is wide, and never peeks out when it slips by less", () => {
    const blobs = drawExactly(
      160,
      `<rect width="160" height="160" fill="#1d2a44"/><circle cx="60" cy="60" r="40" fill="#${GOLD}"/><path d="M70 150L150 150L110 70Z" fill="#${WHITE}"/>`,
    );
    const { plate, mmPerPx } = separate(blobs, { ...onNavy, widthMm: 80 });
    const inks = polygonClipping.union(
      polygonsOf(plate(GOLD).region, mmPerPx),
      polygonsOf(plate(WHITE).region, mmPerPx),
    );
    const base = polygonsOf(plate("base").region, mmPerPx);
    for (const [dx, dy] of [
      [0.34, 0],
      [-0.34, 0],
      [0, 0.34],
      [0, -0.34],
      [0.24, 0.24],
      [-0.24, -0.24],
    ])
      expect(areaMm2(polygonClipping.difference(shifted(base, dx, dy), inks))).toBeLessThan(0.02);
    const edge = 2 * Math.PI * 20 + 40 + 2 * Math.hypot(20, 40);
    expect(areaMm2(inks) - areaMm2(base)).toBeGreaterThan(0.9 * 0.35 * edge * 0.9);
  });

  it("lies under a gold line of 0.5 mm as wide as prints", () => {
    const line = drawExactly(
      200,
      `<rect width="200" height="200" fill="#1d2a44"/><path d="M20 100H180" stroke="#${GOLD}" stroke-width="10"/>`,
    );
    const { plate } = separate(line, { ...onNavy, widthMm: 10 });
    expect(plate("base").coverage * 100).toBeGreaterThan(8 * 0.35);
  });

  it("runs on under a black outline by the choke, and to the middle of a thin one", () => {
    const ringed = (strokePx: number) => {
      const art = drawExactly(
        240,
        `<rect width="240" height="240" fill="#1d2a44"/><circle cx="120" cy="120" r="${80 + strokePx / 2}" fill="#${GOLD}" stroke="#${INK_BLACK}" stroke-width="${strokePx}"/>`,
      );
      return separate(art, { ...onNavy, widthMm: 24 }).plate("base").coverage * 24 * 24;
    };
    expect(ringed(20)).toBeCloseTo(Math.PI * 8.35 ** 2, 0);
    expect(ringed(4)).toBeCloseTo(Math.PI * 8.2 ** 2, 0);
  });

  it("is whole under fine dark lettering on a light ink: no pinholes that no screen holds open", () => {
    const onGold = drawLettering("Grebe tide 84", { heightPx: 60, colour: `#${INK_BLACK}`, background: `#${GOLD}` });
    for (const heightMm of [3, 4, 5]) {
      const { plate, mmPerPx } = separate(onGold, { garment: "#1d2a44", widthMm: (onGold.width * heightMm) / 60 });
      const areas = plate("base").region.map((path) => Math.abs(pathArea(path)) * mmPerPx ** 2);
      expect(areas.filter((area) => area < 1)).toEqual([]);
    }
    // Strokes as wide as print beside two chokes keep their gap.
    const wide = drawLettering("II", { heightPx: 120, colour: `#${INK_BLACK}`, background: `#${GOLD}` });
    expect(separate(wide, { garment: "#1d2a44", widthMm: wide.width / 10 }).plate("base").region).toHaveLength(3);
  });

  it("is pulled back from an ink that was given no base although it is lighter", () => {
    const halves = drawExactly(
      100,
      `<rect width="50" height="100" fill="#${GOLD}"/><rect x="50" width="50" height="100" fill="#${WHITE}"/>`,
    );
    const findings = findColours(halves);
    const reduction = reduceColours(findings, UNDECIDED);
    const map = tracePicture(findings, reduction, assignSpots(findings, reduction, []), PLAIN_SHAPES);
    const base = { mode: "on" as const, chokeMm: 0.35, thinnestMm: 0.35, decided: { [WHITE]: false } };
    const { plates } = separatePlates(
      { map, spots: reduction.spots, widthMm: 50, garment: parseHex("#000000") },
      { order: [], trapMm: 0, base },
    );
    const region = plates.find(({ kind }) => kind === "base")?.region ?? [];
    expect(Math.max(...region.flatMap((path) => [...path].filter((_, i) => i % 2 === 0))) * 0.5).toBeCloseTo(24.65, 1);
  });
});
