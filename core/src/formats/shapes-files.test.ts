// Shapes as files, read back by others: dxf-parser (npm), ghostscript, librsvg (Debian) and resvg (npm).
import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import DxfParser, { type ICircleEntity, type IPolylineEntity } from "dxf-parser";
import sharp from "sharp";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { Rgb } from "../colour/index.ts";
import { type CubicPath, flattenPath, lengthOf } from "../geometry/index.ts";
import { drawSvg, renderSvg, traceRaster } from "../testing/pictures.test.support.ts";
import { layShapes, oneColour, type ShapeDrawing, type Stacking, writeShapesDxf, writeShapesSvg } from "./index.ts";
import { writeShapesEps } from "./shapes-eps.ts";
import { writeShapesPdf } from "./shapes-pdf.ts";

const MM_PER_PX = 0.1;
/** What every reader has to agree within. */
const NEAR_MM = 0.01;
/** Pixel of the readers' pictures: 5080 dpi. */
const PIXEL_MM = 0.005;
const DATE = new Date("2026-11-25T00:00:00Z");
const folder = mkdtempSync(join(tmpdir(), "plain-palette-shapes-"));
afterAll(() => rmSync(folder, { recursive: true }));

const { map, reduction } = traceRaster(
  drawSvg(
    120,
    '<path d="M12.3 8.2H107.6V70Q107 110 60 111Q12 110 12.3 70Z" fill="#14304f"/>' +
      '<circle cx="45.2" cy="52.7" r="24.4" fill="#f2b134"/><circle cx="45.2" cy="52.7" r="9" fill="#14304f"/>' +
      '<path d="M60 30L100 36L70 96Z" fill="#d8412f"/>',
  ),
);
const { spots } = reduction;
const lay = (stacking: Stacking): ShapeDrawing => layShapes(map, spots, MM_PER_PX, stacking);

interface Place {
  readonly x: number;
  readonly y: number;
  readonly rgb: Rgb;
}

/** Places just off every boundary on either side, source pixels, and the colour that has to be seen there. */
function placesBesideBoundaries(): Place[] {
  const away = (NEAR_MM + PIXEL_MM) / MM_PER_PX;
  const points = map.edges.map(({ path }) => flattenPath(path, 0.002));
  const places: Place[] = [];
  map.edges.forEach(({ left, right }, e) => {
    const line = points[e];
    for (let i = 2; i + 3 < line.length; i += 2) {
      const [x, y] = [(line[i] + line[i + 2]) / 2, (line[i + 1] + line[i + 3]) / 2];
      const [dx, dy] = [line[i + 2] - line[i], line[i + 3] - line[i + 1]];
      const length = lengthOf(dx, dy);
      if (length === 0) continue;
      // Left of the way on screen, y down, is (dy, -dx).
      for (const [face, sign] of [
        [left, 1],
        [right, -1],
      ]) {
        const place = { x: x + (sign * away * dy) / length, y: y - (sign * away * dx) / length };
        const isClear = points.every((other, o) => o === e || distanceToLine(other, place.x, place.y) > away);
        const spot = face < 0 ? null : spots.find(({ id }) => id === map.faces[face].spotId);
        if (isClear && spot) places.push({ ...place, rgb: spot.rgb });
      }
    }
  });
  return places;
}

function distanceToLine(line: readonly number[], x: number, y: number): number {
  let nearest = Number.POSITIVE_INFINITY;
  for (let i = 0; i + 3 < line.length; i += 2) {
    const [dx, dy] = [line[i + 2] - line[i], line[i + 3] - line[i + 1]];
    const t = ((x - line[i]) * dx + (y - line[i + 1]) * dy) / (dx * dx + dy * dy || 1);
    const u = Math.min(1, Math.max(0, t));
    nearest = Math.min(nearest, lengthOf(line[i] + u * dx - x, line[i + 1] + u * dy - y));
  }
  return nearest;
}

/** Share of the places at which a picture of the whole page shows another colour. */
function shareWrong({ width, data, channels }: { width: number; data: ArrayLike<number>; channels: number }): number {
  const perPx = width / map.width;
  const places = placesBesideBoundaries();
  expect(places.length).toBeGreaterThan(300);
  const wrong = places.filter(({ x, y, rgb }) => {
    const p = (Math.floor(y * perPx) * width + Math.floor(x * perPx)) * channels;
    return rgb.some((value, c) => Math.abs(value - data[p + c]) > 3);
  });
  return wrong.length / places.length;
}

const side = (map.width * MM_PER_PX) / PIXEL_MM;

async function drawnByGhostscript(name: string, bytes: Uint8Array | string, ...extra: string[]) {
  const [file, png] = [join(folder, name), join(folder, `${name}.png`)];
  writeFileSync(file, bytes);
  const dpi = String(25.4 / PIXEL_MM);
  const quiet = ["-q", "-dSAFER", "-dBATCH", "-dNOPAUSE", "-sDEVICE=png16m"];
  execFileSync("gs", [...quiet, ...extra, `-r${dpi}`, `-sOutputFile=${png}`, file]);
  const { data, info } = await sharp(png, { limitInputPixels: false }).raw().toBuffer({ resolveWithObject: true });
  return { data, width: info.width, height: info.height, channels: info.channels };
}

describe.each(["abutting", "stacked"] as const)(
  "%s shapes, read by others within a hundredth of a millimetre",
  (stacking) => {
    let drawing: ShapeDrawing;
    beforeAll(() => {
      drawing = lay(stacking);
    });

    it("SVG by resvg", () => {
      const drawn = renderSvg(
        writeShapesSvg(drawing)
          .replace(/width="[^"]*"/, `width="${side}"`)
          .replace(/height="[^"]*"/, `height="${side}"`),
      );
      expect(drawn.width).toBe(side);
      expect(shareWrong({ ...drawn, channels: 4 })).toBe(0);
    });
    it("SVG by librsvg", async () => {
      const [svg, png] = [join(folder, `${stacking}.svg`), join(folder, `${stacking}.png`)];
      writeFileSync(svg, writeShapesSvg(drawing));
      execFileSync("rsvg-convert", ["-w", String(side), "-h", String(side), "-o", png, svg]);
      const { data, info } = await sharp(png).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
      expect(shareWrong({ data, width: info.width, channels: 4 })).toBe(0);
    });
    it("PDF by ghostscript, on a page that holds all of it", async () => {
      const drawn = await drawnByGhostscript(`${stacking}.pdf`, await writeShapesPdf(drawing, DATE));
      expect([drawn.width, drawn.height]).toEqual([side, side]);
      expect(shareWrong(drawn)).toBe(0);
    });
    it("EPS by ghostscript, within its bounding box", async () => {
      const drawn = await drawnByGhostscript(`${stacking}.eps`, writeShapesEps(drawing), "-dEPSCrop");
      expect([drawn.width, drawn.height]).toEqual([side, side]);
      expect(shareWrong(drawn)).toBe(0);
    });
    it("DXF by dxf-parser: every colour a layer, every curve where the map has it", () => {
      const dxf = new DxfParser().parseSync(writeShapesDxf(drawing));
      expect(Object.keys(dxf?.tables.layer.layers ?? {})).toHaveLength(drawing.groups.length);
      const entities = (dxf?.entities ?? []) as (ICircleEntity | IPolylineEntity)[];
      const paths = drawing.groups.flatMap(({ shapes }) => shapes.flat());
      expect(entities).toHaveLength(paths.length);
      entities.forEach((entity, i) => {
        const drawn = pointsOf(entity);
        const own = flattenPath(paths[i], 0.002).map((v, k) => (k % 2 === 0 ? v : map.height - v) * MM_PER_PX);
        for (let k = 0; k < own.length; k += 2) expect(distanceToLine(drawn, own[k], own[k + 1])).toBeLessThan(NEAR_MM);
        for (let k = 0; k < drawn.length; k += 2)
          expect(distanceToLine(own, drawn[k], drawn[k + 1])).toBeLessThan(NEAR_MM);
      });
      expect(entities.some(({ type }) => type === "CIRCLE")).toBe(true);
    });
  },
);

/** Points close together along a circle or a closed polyline of lines and arcs. */
function pointsOf(entity: ICircleEntity | IPolylineEntity): number[] {
  const out: number[] = [];
  if ("radius" in entity) {
    for (let k = 0; k <= 720; k++) {
      const angle = (k * Math.PI) / 360;
      out.push(entity.center.x + entity.radius * Math.cos(angle), entity.center.y + entity.radius * Math.sin(angle));
    }
    return out;
  }
  const { vertices } = entity;
  vertices.forEach((from, i) => {
    const to = vertices[(i + 1) % vertices.length];
    const bulge = from.bulge ?? 0;
    const angle = 4 * Math.atan(bulge);
    const steps = bulge === 0 ? 1 : 64;
    const [cx, cy] = [(from.x + to.x) / 2, (from.y + to.y) / 2];
    const h = bulge === 0 ? 0 : (1 - bulge * bulge) / (4 * bulge);
    const [ox, oy] = [cx - h * (to.y - from.y), cy + h * (to.x - from.x)];
    for (let k = 0; k < steps; k++) {
      if (bulge === 0) {
        out.push(from.x, from.y);
        continue;
      }
      const [s, c] = [Math.sin((angle * k) / steps), Math.cos((angle * k) / steps)];
      out.push(ox + c * (from.x - ox) - s * (from.y - oy), oy + s * (from.x - ox) + c * (from.y - oy));
    }
  });
  return [...out, out[0], out[1]];
}

describe("stacked shapes", () => {
  const areaOf = (paths: readonly CubicPath[]) =>
    paths.reduce((sum, path) => {
      const line = flattenPath(path, 0.01);
      let twice = 0;
      for (let i = 0; i + 3 < line.length; i += 2) twice += line[i] * line[i + 3] - line[i + 2] * line[i + 1];
      return sum + twice / 2;
    }, 0);
  it("are solid under what is laid on them later", () => {
    const order = ["#ffffff", "#14304f", "#f2b134", "#d8412f"];
    const bySize = [...spots].sort((a, b) => order.indexOf(hexOf(a.rgb)) - order.indexOf(hexOf(b.rgb)));
    const groups = layShapes(map, bySize, MM_PER_PX, "stacked").groups;
    expect(groups.map(({ spot }) => hexOf(spot.rgb))).toEqual(order);
    // Paper under everything, navy under both others but where it is paper; the last colour as it was.
    expect(Math.abs(areaOf(groups[0].shapes.flat()))).toBeCloseTo(120 * 120, 6);
    const ofSpot = (i: number) =>
      map.faces.filter((face) => face.spotId === groups[i].spot.id).flatMap((face) => face.paths);
    const total = [1, 2, 3].reduce((sum, i) => sum + Math.abs(areaOf(ofSpot(i))), 0);
    const [navy] = groups[1].shapes;
    expect(navy).toHaveLength(1);
    expect(Math.abs(areaOf(navy))).toBeCloseTo(total, 6);
    expect(Math.abs(areaOf(groups[3].shapes.flat()))).toBeCloseTo(Math.abs(areaOf(ofSpot(3))), 6);
  });
});

describe("one file for each colour", () => {
  it("has one group, and the page of all", () => {
    const drawing = lay("abutting");
    for (const group of drawing.groups) {
      const svg = writeShapesSvg(oneColour(drawing, group));
      expect(svg.match(/<g /g)).toHaveLength(1);
      expect(svg).toContain('width="12mm" height="12mm" viewBox="0 0 120 120"');
      expect(svg).not.toContain("stroke");
    }
  });
});

describe("layer names", () => {
  it("are legal and different, whatever the inks are called", () => {
    const named = (name: string, i: number) => ({ ...spots[i], name });
    const drawing = lay("abutting");
    const groups = drawing.groups.map((group, i) => ({
      ...group,
      spot: named(["Rød №3 (50 %)", "金", "銀", "a very long name that goes on and on for ever"][i], i),
    }));
    const dxf = new DxfParser().parseSync(writeShapesDxf({ ...drawing, groups }));
    const names = Object.keys(dxf?.tables.layer.layers ?? {});
    expect(names).toHaveLength(groups.length);
    for (const name of names) expect(name).toMatch(/^[A-Z0-9_]{1,31}$/);
  });
});

function hexOf(rgb: Rgb): string {
  return `#${rgb.map((v) => v.toString(16).padStart(2, "0")).join("")}`;
}
