import { Resvg } from "@resvg/resvg-js";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { layShapes, writeShapesSvg } from "../formats/index.ts";
import type { Raster } from "../raster/index.ts";
import { drawSvg, PLAIN_SHAPES, paint, renderSvg } from "../testing/pictures.test.support.ts";
import { tracePicture } from "../trace/index.ts";
import {
  type Assignment,
  assignSpots,
  findColours,
  NOTHING,
  reduceColours,
  type SpotCorrection,
  UNDECIDED,
} from "./index.ts";

const ADDED = [
  { id: "fill", hex: "#f2b134" },
  { id: "fill-2", hex: "#58a6b0" },
];

/** The picture's spots after corrections, and what each pixel is. */
function correct(raster: Raster, corrections: readonly SpotCorrection[]) {
  const findings = findColours(raster);
  const reduction = reduceColours(findings, { ...UNDECIDED, added: ADDED });
  const assignment = assignSpots(findings, reduction, corrections);
  const at = (x: number, y: number) => reduction.spots[assignment.spotOfPixel.data[y * raster.width + x]]?.id ?? null;
  return { findings, reduction, assignment, at };
}

const recolour = (x: number, y: number, spotId: string): SpotCorrection => ({
  id: "1",
  isOn: true,
  kind: "recolour",
  reach: "area",
  loop: [],
  at: { x, y },
  spotId,
});
const divide = (line: number[], isFlipped = false): SpotCorrection => ({
  id: "1",
  isOn: true,
  kind: "divide",
  line,
  isFlipped,
  spotId: "fill",
});

describe("correcting the assignment", () => {
  const two = drawSvg(
    100,
    '<circle cx="30" cy="50" r="20" fill="#d8412f"/><circle cx="75" cy="50" r="20" fill="#d8412f"/>',
  );

  it("gives one area another spot, its edge pixels with it, and leaves its like alone", () => {
    const { at, assignment, reduction } = correct(two, [recolour(30.5, 50.5, "fill")]);
    expect([at(30, 50), at(75, 50), at(2, 2)]).toEqual(["fill", "d8412f", "ffffff"]);
    const areas = Object.fromEntries(reduction.spots.map(({ id }, i) => [id, assignment.areasPx[i]]));
    // Both circles are of one size: pi 20^2.
    expect(areas.fill).toBe(areas.d8412f);
    expect(Math.abs(areas.fill - Math.PI * 400)).toBeLessThan(15);
  });

  it("moves no boundary by giving an area another spot", () => {
    const plain = correct(two, []);
    const changed = correct(two, [recolour(30.5, 50.5, "fill")]);
    const trace = ({ findings, reduction, assignment }: typeof plain) =>
      tracePicture(findings, reduction, assignment, PLAIN_SHAPES).edges.map(({ path }) => [...path]);
    expect(trace(changed)).toEqual(trace(plain));
  });

  it("divides touching parts along the line drawn, the smaller side or the other becoming a spot of its own", () => {
    const touching = drawSvg(100, '<rect x="10" y="20" width="80" height="60" fill="#d8412f"/>');
    const line = [40, 10, 40, 90];
    const small = correct(touching, [divide(line)]);
    expect([small.at(20, 50), small.at(60, 50)]).toEqual(["fill", "d8412f"]);
    const large = correct(touching, [divide(line, true)]);
    expect([large.at(20, 50), large.at(60, 50)]).toEqual(["d8412f", "fill"]);
    const areas = small.reduction.spots.map(({ id }, i) => [id, small.assignment.areasPx[i]]);
    expect(Object.fromEntries(areas)).toMatchObject({ fill: 30 * 60, d8412f: 50 * 60 });
  });

  it("divides the thin neck that the line crosses, not the paper that it begins and ends in", () => {
    const necked = drawSvg(100, '<path d="M10 20H40V45H60V20H90V80H60V55H40V80H10Z" fill="#d8412f"/>');
    const { at } = correct(necked, [divide([50, 25, 50, 75])]);
    expect([at(20, 50), at(80, 50), at(50, 30), at(50, 70)].sort()).toEqual(
      ["d8412f", "ffffff", "ffffff", "fill"].sort(),
    );
  });

  it("property: a straight line at any angle divides a disc into the two parts that geometry says", () => {
    const disc = drawSvg(100, '<circle cx="50" cy="50" r="40" fill="#d8412f"/>');
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: Math.PI, noNaN: true }),
        fc.double({ min: 5, max: 30, noNaN: true }),
        (angle, off) => {
          const [c, s] = [Math.cos(angle), Math.sin(angle)];
          const line = [50 - s * off - c * 70, 50 + c * off - s * 70, 50 - s * off + c * 70, 50 + c * off + s * 70];
          const { assignment, reduction } = correct(disc, [divide(line)]);
          const part = assignment.areasPx[reduction.spots.findIndex(({ id }) => id === "fill")];
          // Area of a circle's segment at distance `off` from the centre.
          const segment = 1600 * Math.acos(off / 40) - off * Math.sqrt(1600 - off * off);
          expect(Math.abs(part - segment)).toBeLessThan(60);
        },
      ),
      { numRuns: 40 },
    );
  });

  it("says why a correction does nothing, and does the others", () => {
    const { at, assignment } = correct(two, [
      { ...divide([30, 45, 30, 55]), id: "short" },
      { ...recolour(500, 5, "fill"), id: "outside" },
      { ...recolour(30, 50, "gone"), id: "spotless" },
      { ...recolour(75.5, 50.5, "fill"), id: "good" },
      { ...recolour(30.5, 50.5, "fill"), id: "off", isOn: false },
    ]);
    expect([...assignment.misfits.keys()]).toEqual(["short", "outside", "spotless"]);
    expect(assignment.misfits.get("short")).toMatch(/not run all the way/);
    expect([at(30, 50), at(75, 50)]).toEqual(["d8412f", "fill"]);
  });
});

describe("pouring a fill into a line drawing", () => {
  /** Line art as it is after its paper was taken away: black lines with alpha, 5 px wide, two cells side by side. */
  const drawing = renderSvg(
    '<svg xmlns="http://www.w3.org/2000/svg" width="120" height="80"><g fill="none" stroke="#101010" stroke-width="5"><ellipse cx="45" cy="40" rx="30.3" ry="27.7"/><path d="M75.2 40.4L105 20.3V62.7Z" stroke-linejoin="round"/></g></svg>',
  );
  const pour = (id: string, x: number, y: number, spotId: string): SpotCorrection => ({
    id,
    isOn: true,
    kind: "pour",
    reach: "area",
    loop: [],
    at: { x, y },
    spotId,
  });
  const corrections = [pour("1", 45, 40, "fill"), pour("2", 98, 41, "fill-2")];

  it("fills enclosed areas of nothing", () => {
    const { at } = correct(drawing, corrections);
    expect([at(45, 40), at(98, 41), at(2, 2), at(45, 12)]).toEqual(["fill", "fill-2", null, "101010"]);
  });

  it("runs under the lines to their middle, and not out of them", () => {
    const { assignment, findings } = correct(drawing, corrections);
    for (const { x, y, mask } of assignment.underLines)
      for (let q = 0; q < mask.data.length; q++) {
        if (mask.data[q] !== 0) continue;
        const u = x + (q % mask.width);
        const v = y + Math.floor(q / mask.width);
        // Inside the ellipse's or the triangle's line, never on what is outside the drawing.
        const outside = findings.labels.data[v * 120 + u] === 255 && assignment.spotOfPixel.data[v * 120 + u] === 255;
        expect(outside).toBe(false);
      }
    const ellipse = assignment.underLines.find(({ spotId }) => spotId === "fill");
    const row = 40 - (ellipse?.y ?? 0);
    const first =
      ellipse?.mask.data.subarray(row * ellipse.mask.width, (row + 1) * ellipse.mask.width).indexOf(0) ?? -1;
    // The ellipse's line has its middle at 45 - 30.3.
    expect(Math.abs((ellipse?.x ?? 0) + first - 14.7)).toBeLessThan(1.2);
  });

  it("property: no bare pixel shows between line and fill at any zoom (drawn with anti-aliasing by resvg)", () => {
    const { findings, reduction, assignment } = correct(drawing, corrections);
    const map = tracePicture(findings, reduction, assignment, PLAIN_SHAPES);
    const svg = writeShapesSvg(layShapes(map, reduction.spots, 0.1));
    fc.assert(
      fc.property(fc.double({ min: 0.3, max: 9, noNaN: true }), (zoom) => {
        const { width, height, pixels } = new Resvg(svg, {
          background: "#ff00ff",
          fitTo: { mode: "width", value: Math.round(120 * zoom) },
        }).render();
        const scale = width / 120;
        for (let y = 0; y < height; y++)
          for (let x = 0; x < width; x++) {
            // Well inside the outer half of the lines: of the ellipse only, whose inside is known.
            const u = (x + 0.5) / scale;
            const v = (y + 0.5) / scale;
            if (((u - 45) / 29.5) ** 2 + ((v - 40) / 26.9) ** 2 > 1) continue;
            const i = (y * width + x) * 4;
            const [r, g, b] = [pixels[i], pixels[i + 1], pixels[i + 2]];
            // Black, amber or a mix of the two: no magenta shines through.
            const t = r / 242;
            expect(Math.abs(g - (16 + t * 161)) + Math.abs(b - (16 + t * 36))).toBeLessThan(24);
          }
      }),
      { numRuns: 12 },
    );
  });

  it("poured again with another spot, an area is that spot's alone", () => {
    const { assignment, at } = correct(drawing, [pour("1", 45, 40, "fill"), pour("2", 45, 40, "fill-2")]);
    expect(at(45, 40)).toBe("fill-2");
    expect(assignment.underLines.map(({ spotId }) => spotId)).toEqual(["fill-2"]);
  });

  it("one after another, fills run under what they run under when made at once", () => {
    const { findings, reduction } = correct(drawing, []);
    const all = [...corrections, pour("3", 98, 41, "fill"), recolour(45, 12, NOTHING)];
    let last: Assignment | null = null;
    for (let n = 1; n <= all.length; n++) {
      last = assignSpots(findings, reduction, all.slice(0, n), last);
      const atOnce = assignSpots(findings, reduction, all.slice(0, n));
      expect(last.underLines).toEqual(atOnce.underLines);
      expect(last.spotOfPixel).toEqual(atOnce.spotOfPixel);
      expect(last.areasPx).toEqual(atOnce.areasPx);
    }
    // The line itself is gone.
    expect(last?.underLines).toEqual([]);
  });

  it("leaves what is lighter than the fill alone: only darker lines have fills under them", () => {
    const light = paint(60, 60, (x, y) => (Math.hypot(x - 30, y - 30) > 20 ? [240, 240, 230] : [20, 20, 20]));
    const { assignment } = correct(light, [pour("1", 30, 30, "fill-2")]);
    expect(assignment.underLines).toEqual([]);
  });
});

describe("many areas at once", () => {
  const cells = drawSvg(
    120,
    '<rect width="120" height="120" fill="#f2efe4"/><g fill="#d8412f"><circle cx="25" cy="30" r="14"/><circle cx="70" cy="30" r="14"/><circle cx="25" cy="85" r="14"/><rect x="100" y="90" width="20" height="30"/></g>',
  );
  const take = (
    reach: "enclosed" | "everywhere" | "loop",
    spotId = "fill",
    loop: number[] = [],
  ): Extract<SpotCorrection, { kind: "recolour" | "pour" }> => ({
    id: "1",
    isOn: true,
    kind: "recolour",
    reach,
    loop,
    at: { x: 25, y: 30 },
    spotId,
  });
  const four = [
    [25, 30],
    [70, 30],
    [25, 85],
    [110, 110],
  ] as const;
  const after = (correction: SpotCorrection) => {
    const { at } = correct(cells, [correction]);
    return four.map(([x, y]) => at(x, y) === "fill");
  };

  it("everywhere its colour is, only where it is enclosed, or all that lies wholly in a drawn loop", () => {
    expect(after(take("everywhere"))).toEqual([true, true, true, true]);
    // The fourth reaches the picture's edge.
    expect(after(take("enclosed"))).toEqual([true, true, true, false]);
    expect(after(take("loop", "fill", [5, 5, 95, 5, 95, 50, 5, 60]))).toEqual([true, true, false, false]);
    const { assignment } = correct(cells, [take("loop", "fill", [20, 20, 30, 20, 30, 40])]);
    expect([...assignment.misfits.values()]).toEqual(["no area lies wholly inside its loop"]);
  });

  it("can be given to nothing at all: the garment shows", () => {
    const { at } = correct(cells, [take("everywhere", NOTHING)]);
    expect([at(25, 30), at(110, 110), at(60, 60)]).toEqual([null, null, "f2efe4"]);
  });

  it("does not repaint an outline when a pour lands on a line", () => {
    const outline = drawSvg(120, '<circle cx="60" cy="60" r="40" fill="none" stroke="#101014" stroke-width="6"/>');
    const { assignment, at } = correct(outline, [
      { ...take("everywhere"), kind: "pour", reach: "area", at: { x: 60, y: 20 } },
    ]);
    expect([...assignment.misfits.values()].join()).toContain("on a line");
    expect(at(60, 20)).toBe("101014");
  });
});
