import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, describe, expect, it } from "vitest";
import { findThinRegion } from "../checks/index.ts";
import { type CubicPath, pathToSvg, polygonPath, reversePath } from "../geometry/index.ts";
import { renderSvg } from "../testing/pictures.test.support.ts";
import { circleRegion } from "../testing/separation.test.support.ts";
import { thicken } from "./thicken.ts";

const folder = mkdtempSync(join(tmpdir(), "plain-palette-thicken-"));
afterAll(() => rmSync(folder, { recursive: true }));

/** A tenth of a millimetre to the unit; pictures of it have two and a half pixels to the unit. */
const MM_PER_PX = 0.1;
const ZOOM = 2.5;
const SIZE = 300;
const LIMIT_MM = 1;
const PRECISION = { tolerancePx: 0.1, cutPx: 0.5 };

/** A straight strip between two places, `width` wide. */
function strip(x0: number, y0: number, x1: number, y1: number, width: number): CubicPath {
  const length = Math.hypot(x1 - x0, y1 - y0);
  const [nx, ny] = [((y1 - y0) / length) * (width / 2), ((x0 - x1) / length) * (width / 2)];
  return polygonPath([x0 + nx, y0 + ny, x1 + nx, y1 + ny, x1 - nx, y1 - ny, x0 - nx, y0 - ny]);
}

const [outer] = circleRegion(220, 80, 50);
const [inner] = circleRegion(220, 80, 44);
/** A plate of 6 x 8 mm with a bar of 0.5 mm that hangs from its side. */
const PLATE = polygonPath([20, 20, 80, 20, 80, 57, 150, 57, 150, 62, 80, 62, 80, 100, 20, 100]);
/** A fork of bars 0.6 mm wide. */
const FORK = polygonPath([20, 250, 67, 250, 67, 200, 73, 200, 73, 250, 120, 250, 120, 256, 20, 256]);
const REGION = [PLATE, outer, reversePath(inner), FORK, strip(160, 280, 280, 180, 4)];

function draw(region: readonly CubicPath[]): Uint8Array {
  const d = region.map((path) => pathToSvg(path, 4)).join("");
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${SIZE}" height="${SIZE}" viewBox="0 0 ${SIZE} ${SIZE}"><path d="${d}"/></svg>`;
  const { data } = renderSvg(svg, ZOOM);
  return Uint8Array.from({ length: data.length / 4 }, (_, p) => (data[p * 4 + 3] >= 128 ? 255 : 0));
}

/** What a disc of a diameter (pixels) reaches inside what is white, by netpbm's morphology. */
function openWithNetpbm(picture: Uint8Array, diameter: number): Uint8Array {
  const side = SIZE * ZOOM;
  const half = Math.floor(diameter / 2);
  const wide = 2 * half + 1;
  // In a plain PBM 0 is white, which is what counts.
  let disc = `P1\n${wide} ${wide}\n`;
  for (let y = -half; y <= half; y++) {
    for (let x = -half; x <= half; x++) disc += x * x + y * y <= (diameter / 2) ** 2 ? "0 " : "1 ";
    disc += "\n";
  }
  const at = (name: string) => join(folder, name);
  writeFileSync(at("disc.pbm"), disc);
  writeFileSync(at("region.pgm"), Buffer.concat([Buffer.from(`P5\n${side} ${side}\n255\n`), picture]));
  const opened = execFileSync("pgmmorphconv", ["-open", at("disc.pbm"), at("region.pgm")], { maxBuffer: 1 << 26 });
  return new Uint8Array(opened.subarray(opened.length - side * side));
}

/** How many square millimetres of one are not in the other. */
function mm2Without(one: Uint8Array, other: Uint8Array): number {
  let count = 0;
  one.forEach((value, p) => {
    if (value > 127 && other[p] <= 127) count++;
  });
  return count * (MM_PER_PX / ZOOM) ** 2;
}

describe("strips that are too thin to cut", () => {
  const { region, added } = thicken(REGION, LIMIT_MM, MM_PER_PX, PRECISION);
  const before = draw(REGION);
  const after = draw(region);
  // A pixel's diagonal less than the limit: edges on the grid are only so exact.
  const diameter = (LIMIT_MM / MM_PER_PX) * ZOOM - 2;

  it("are all as wide as cuts, measured by opening with a disc in netpbm; only corners are left over", () => {
    expect(mm2Without(before, openWithNetpbm(before, diameter))).toBeGreaterThan(25);
    // A disc of 1 mm leaves 0.054 mm2 of a square's corner; there are 16, and the last quarter millimetre of five ends.
    expect(mm2Without(after, openWithNetpbm(after, diameter))).toBeLessThan(16 * 0.054 + 5 * 0.15);
    const limits = { lineMm: LIMIT_MM, gapMm: 0 };
    expect(findThinRegion({ line: "strip" }, REGION, limits, MM_PER_PX)).toHaveLength(3);
    expect(findThinRegion({ line: "strip" }, region, limits, MM_PER_PX)).toEqual([]);
  });

  it("are widened to both sides alike, and nothing that was wide enough moves", () => {
    expect(mm2Without(before, after)).toBe(0);
    // Half a millimetre and a little round the middles of what was thin.
    const reach = draw([
      strip(79, 59.5, 151, 59.5, 11),
      circleRegion(220, 80, 52.5)[0],
      reversePath(circleRegion(220, 80, 41.5)[0]),
      polygonPath([19, 247.5, 64, 247.5, 64, 199, 76, 199, 76, 247.5, 121, 247.5, 121, 258.5, 19, 258.5]),
      strip(159, 280.8, 281, 179.2, 11),
    ]);
    const fresh = after.map((value, p) => (value > 127 && before[p] <= 127 ? 255 : 0));
    expect(mm2Without(fresh, reach)).toBeLessThan(0.01);
    expect(mm2Without(fresh, new Uint8Array(fresh.length))).toBeGreaterThan(18);
  });

  it("come with what was added to them, and few nodes", () => {
    const fresh = after.map((value, p) => (value > 127 && before[p] <= 127 ? 255 : 0));
    expect(mm2Without(fresh, draw(added))).toBeLessThan(0.3);
    expect(region.length).toBe(REGION.length);
    expect(region.reduce((sum, path) => sum + (path.length - 2) / 6, 0)).toBeLessThan(70);
  });

  it("are left alone where nothing is thin", () => {
    const wide = [polygonPath([20, 20, 80, 20, 80, 100, 20, 100])];
    expect(thicken(wide, LIMIT_MM, MM_PER_PX, PRECISION)).toEqual({ region: wide, added: [] });
  });
});
