import { describe, expect, it } from "vitest";
import { polygonPath } from "../geometry/index.ts";
import { assignSpots } from "../reduce/index.ts";
import { drawSvg, renderSvg, traceRaster } from "../testing/pictures.test.support.ts";
import { findNearInks, findThinPlaces, findThinRegion, measureShading } from "./index.ts";

const LIMITS = { lineMm: 0.35, gapMm: 0.5 };
/** 10 px to the millimetre: 254 dpi. */
const MM_PER_PX = 0.1;

function thinPlaces(content: string, role: "ink" | "drop" = "drop") {
  const { map, reduction } = traceRaster(drawSvg(200, content));
  // The paper is no ink, unless it is asked about.
  const spots = reduction.spots.map((spot) => (spot.id === "ffffff" ? { ...spot, role } : spot));
  return findThinPlaces(map, spots, LIMITS, MM_PER_PX);
}

describe("what is thinner than prints", () => {
  it("measures a line across, to six hundredths of a millimetre at any angle, and says where", () => {
    for (const angle of [0, 17, 45, 90]) {
      const [place, ...more] = thinPlaces(
        `<rect x="20" y="98.8" width="160" height="2.4" fill="#14304f" transform="rotate(${angle} 100 100)"/>`,
      );
      expect(more).toEqual([]);
      expect(place).toMatchObject({ kind: "line", spotId: "14304f" });
      expect(Math.abs(place.widthMm - 0.24)).toBeLessThan(0.06);
      expect(Math.abs(place.lengthMm - 16)).toBeLessThan(1);
      const across =
        (place.x - 100) * -Math.sin((angle * Math.PI) / 180) + (place.y - 100) * Math.cos((angle * Math.PI) / 180);
      expect(Math.abs(across)).toBeLessThan(1);
    }
  });

  it("measures a gap of open garment between two inks, not one that an ink fills", () => {
    const two =
      '<rect x="20" y="40" width="76" height="100" fill="#d8412f"/><rect x="99" y="40" width="80" height="100" fill="#14304f"/>';
    const [gap] = thinPlaces(two);
    expect(gap).toMatchObject({ kind: "gap", spotId: null });
    expect(Math.abs(gap.widthMm - 0.3)).toBeLessThan(0.05);
    // White printed into it is a line of 0.3 mm.
    expect(thinPlaces(two, "ink").map(({ kind, spotId }) => [kind, spotId])).toEqual([["line", "ffffff"]]);
  });

  it("finds nothing in what is wide enough, and takes no tip or corner for a thin line", () => {
    expect(
      thinPlaces(
        '<path d="M100 10L121 72H187L134 111L154 174L100 136L46 174L66 111L13 72H79Z" fill="#d8412f"/><rect x="160" y="180" width="30" height="6" fill="#14304f"/>',
      ),
    ).toEqual([]);
  });

  it("takes no tapering wedge, spike or brush stroke's end for a thin line, however long", () => {
    const spikes = Array.from(
      { length: 9 },
      (_, i) => `<path d="M${20 + i * 18} 190L${28 + i * 18} 190L${24 + i * 18} 130Z"/>`,
    );
    const wedge = '<path d="M10 20L190 20L190 46Z"/>';
    const brush = '<path d="M20 100C60 60 120 60 190 100C120 76 60 76 20 100Z"/>';
    expect(thinPlaces(`<g fill="#14304f">${spikes.join("")}${wedge}${brush}</g>`)).toEqual([]);
  });

  it("still finds the thin line that a wedge runs out into", () => {
    const [place, ...more] = thinPlaces('<path d="M10 100L100 98.8H180V101.2H100L10 112Z" fill="#14304f"/>');
    expect(more).toEqual([]);
    expect(Math.abs(place.widthMm - 0.24)).toBeLessThan(0.05);
  });

  it("finds where an underbase is thinner than prints, with place and measure", () => {
    const bar = (x: number, width: number) => polygonPath([x, 20, x + width, 20, x + width, 80, x, 80]);
    const [place, ...more] = findThinRegion(
      { line: "base" },
      [bar(10, 20), bar(50, 2)],
      { lineMm: 0.35, gapMm: 0 },
      MM_PER_PX,
    );
    expect(more).toEqual([]);
    expect(place).toMatchObject({ kind: "base", spotId: null });
    expect(place.widthMm).toBeCloseTo(0.2, 3);
    expect(place.x).toBeCloseTo(51, 1);
  });

  it("finds each of several places, thinnest first", () => {
    const places = thinPlaces(
      '<rect x="20" y="30" width="150" height="3" fill="#14304f"/><rect x="20" y="90" width="150" height="2" fill="#14304f"/><rect x="20" y="140" width="150" height="12" fill="#d8412f"/>',
    );
    expect(places).toHaveLength(2);
    expect(Math.abs(places[0].y - 91)).toBeLessThan(1.2);
    expect(Math.abs(places[1].y - 31.5)).toBeLessThan(1.2);
  });
});

describe("colours that will not come out as meant", () => {
  it("names inks that are nearly the same, as they will be printed", () => {
    const { reduction } = traceRaster(
      drawSvg(100, '<rect width="50" height="90" fill="#1f7a8c"/><rect x="50" width="40" height="90" fill="#2a8496"/>'),
    );
    const pairs = findNearInks(reduction.spots);
    expect(pairs).toMatchObject([{ a: "1f7a8c", b: "2a8496" }]);
    const other = reduction.spots.map((spot) =>
      spot.id === "2a8496" ? { ...spot, rgb: [216, 65, 47] as const } : spot,
    );
    expect(findNearInks(other)).toEqual([]);
  });

  it("measures the share that shades; flat art has none", () => {
    const share = (svg: string) => {
      const { findings, reduction } = traceRaster(renderSvg(svg));
      return measureShading(findings, reduction, assignSpots(findings, reduction, []));
    };
    const flat =
      '<svg xmlns="http://www.w3.org/2000/svg" width="200" height="200"><rect width="200" height="200" fill="#ffffff"/><circle cx="90" cy="90" r="60" fill="#d8412f"/></svg>';
    expect(share(flat)).toBe(0);
    const shaded = flat.replace(
      "<circle",
      '<defs><linearGradient id="g"><stop stop-color="#14304f"/><stop offset="1" stop-color="#ffd27a"/></linearGradient></defs><rect width="200" height="100" fill="url(#g)"/><circle',
    );
    expect(share(shaded)).toBeGreaterThan(0.1);
  });
});
