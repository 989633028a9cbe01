// Transfer film against what was traced: do flush layers keep their shapes, what does a lap cover when film slips, does anything
// leave the design, what does an independent reading of the cut files find wrong, and what do layers cost beside plates.

import { planCuts, writeHpgl } from "@plain-palette/core/cut";
import {
  type CubicPath,
  flattenPath,
  growRegion,
  pathToSvg,
  polygonPath,
  polygonsArea,
  subtract,
  toPolygons,
} from "@plain-palette/core/geometry";
import { findFaults, readPlot, USUAL_CUTTER } from "@plain-palette/core/practice";
import { makeRecipe } from "@plain-palette/core/recipe";
import { assignSpots, findColours, reduceColours } from "@plain-palette/core/reduce";
import { screens, separatePlates } from "@plain-palette/core/screens";
import { faceArea, type PlanarMap, tracePicture } from "@plain-palette/core/trace";
import { cutLayers, type Layering, type LayerMode, transferSettingsSchema } from "@plain-palette/core/transfer";
import { Resvg } from "@resvg/resvg-js";
import { type Icon, renderIcon } from "./icons.ts";
import { middleTime } from "./timing.ts";

/** Icons are traced at this size and pressed this wide. */
const SIDE = 512;
const WIDTH_MM = 100;
/** Layers are looked at this large. */
const GRID = 1024;
const PX_PER_MM = GRID / WIDTH_MM;
const SLIP_MM = 0.4;
const LAP_MM = 0.5;
const WAYS = 8;
const FLATTEN_PX = 0.01;
/** A layer may leave the design by so much. */
const BEYOND_MM = 0.01;
/** The sheet of icons that layers and plates are made of. */
const SHEET_SIDE = 2048;
const SHEET_COLOURS = 12;

function traceArt(svg: string, side: number, count: number | null) {
  const raster = renderIcon(svg, side);
  const recipe = makeRecipe({ colours: { count } });
  const findings = findColours(raster);
  const reduction = reduceColours(findings, recipe.colours, [255, 255, 255]);
  const map = tracePicture(findings, reduction, assignSpots(findings, reduction, []), recipe.shapes);
  return { map, spots: reduction.spots };
}

type Art = ReturnType<typeof traceArt>;

/** Layers as they are proposed, or that all meet what lies over them one way. */
function layersOf({ map, spots }: Art, mode: LayerMode | null): Layering {
  const decided = mode ? Object.fromEntries(spots.map(({ id }) => [id, { mode }])) : {};
  return cutLayers({ map, spots, widthMm: WIDTH_MM }, transferSettingsSchema.parse({ lapMm: LAP_MM, decided }));
}

/**
 * What paths cover, drawn by resvg: the middle of each pixel counts. Curves are made lines first, the same from both their sides:
 * a renderer makes others of a curve that it is given backwards.
 */
function draw(paths: readonly Float64Array[], { width, height }: PlanarMap): Uint8Array {
  const d = paths.map((path) => pathToSvg(polygonPath(flattenPath(path, FLATTEN_PX).slice(2)), 5)).join("");
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" shape-rendering="crispEdges"><path d="${d}"/></svg>`;
  const { pixels } = new Resvg(svg, { fitTo: { mode: "width", value: GRID } }).render();
  return Uint8Array.from({ length: GRID * GRID }, (_, p) => (pixels[p * 4 + 3] >= 128 ? 1 : 0));
}

/** The design without a rim of `reach` pixels. */
function withoutRim(mask: Uint8Array, reach: number): Uint8Array {
  const kept = mask.slice();
  for (const step of [1, GRID]) {
    const before = kept.slice();
    for (let p = 0; p < kept.length; p++)
      for (let k = -reach; k <= reach && kept[p] === 1; k++) if (before[p + k * step] !== 1) kept[p] = 0;
  }
  return kept;
}

/** The most shirt that shows when one layer slips and the others lie, mm2. */
function bareMm2(films: readonly Uint8Array[], design: Uint8Array): number {
  const all = new Uint8Array(GRID * GRID);
  for (const film of films) for (let p = 0; p < all.length; p++) all[p] += film[p];
  let most = 0;
  for (const film of films)
    for (let way = 0; way < WAYS; way++) {
      const [dx, dy] = [Math.cos, Math.sin].map((of) =>
        Math.round(SLIP_MM * PX_PER_MM * of((way * 2 * Math.PI) / WAYS)),
      );
      const shift = dx + dy * GRID;
      let bare = 0;
      for (let p = 0; p < all.length; p++) if (design[p] === 1 && all[p] - film[p] + film[p - shift] === 0) bare++;
      most = Math.max(most, bare);
    }
  return most / PX_PER_MM ** 2;
}

/** Pixels of the design that no layer covers, all lying where they belong. */
function barePx(films: readonly Uint8Array[], design: Uint8Array): number {
  return design.reduce((bare, one, p) => bare + (one === 1 && films.every((film) => film[p] === 0) ? 1 : 0), 0);
}

/** Pixels of a layer beyond the design, those at its edge apart. */
function outsidePx(film: Uint8Array, design: Uint8Array): number {
  let outside = 0;
  for (let p = GRID; p < film.length - GRID; p++)
    if (film[p] === 1 && [0, 1, -1, GRID, -GRID].every((near) => design[p + near] === 0)) outside++;
  return outside;
}

/** What of the layers lies more than a hundredth of a millimetre outside the design, mm2. */
function beyondMm2({ layers, mmPerPx }: Layering, shapes: readonly CubicPath[]): number {
  const flattenPx = BEYOND_MM / 10 / mmPerPx;
  const room = growRegion(toPolygons(shapes, flattenPx), BEYOND_MM / mmPerPx, flattenPx);
  const films = layers.map(({ region }) => subtract(toPolygons(region, flattenPx), room));
  return Math.max(0, ...films.map(polygonsArea)) * mmPerPx ** 2;
}

/** Largest share by which a flush layer's area is off that of its traced shapes. */
function offTraced({ layers }: Layering, { map }: Art): number {
  const mm2 = (WIDTH_MM / map.width) ** 2;
  const offs = layers.map(({ spotId, areaMm2 }) => {
    const own = map.faces.reduce((sum, face) => (face.spotId === spotId ? sum + faceArea(face) : sum), 0);
    return Math.abs(areaMm2 / (own * mm2) - 1);
  });
  return Math.max(0, ...offs);
}

/** Prints figures of the icons, and what layers cost beside plates on a sheet of them. */
export async function measureTransfer(icons: readonly Icon[], sheet: string): Promise<void> {
  let [off, hairlines, outside, beyond, faults, files] = [0, 0, 0, 0, 0, 0];
  const bare: Record<"flush" | "lapped", number[]> = { flush: [], lapped: [] };
  for (const { svg } of icons) {
    // What resvg draws is given back when rubbish is collected.
    global.gc?.();
    const art = traceArt(svg, SIDE, null);
    const ink = new Set(art.spots.filter(({ role }) => role === "ink").map(({ id }) => id));
    const shapes = art.map.faces.filter(({ spotId }) => ink.has(spotId)).flatMap(({ paths }) => paths);
    const design = draw(shapes, art.map);
    const inner = withoutRim(design, Math.round(SLIP_MM * PX_PER_MM) + 2);
    for (const mode of ["flush", "lapped"] as const) {
      const layering = layersOf(art, mode);
      const films = layering.layers.map(({ region }) => draw(region, art.map));
      bare[mode].push(bareMm2(films, inner));
      outside = Math.max(outside, ...films.map((film) => outsidePx(film, design)));
      beyond = Math.max(beyond, beyondMm2(layering, shapes));
      if (mode === "flush") {
        off = Math.max(off, offTraced(layering, art));
        hairlines = Math.max(hairlines, barePx(films, design));
      }
      for (const { region } of layering.layers) {
        const plot = readPlot(writeHpgl(planCuts(region, { ...layering, isMirrored: true })));
        faults += findFaults(plot, USUAL_CUTTER).length;
        files++;
      }
    }
  }
  const worst = icons[bare.lapped.indexOf(Math.max(...bare.lapped))]?.name;
  const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
  console.table({
    "flush layers: area off the traced shapes' (largest share)": off,
    "flush layers: pixels bare between them (largest)": hairlines,
    "flush: shirt bare when a layer slips 0.4 mm, mm2 (mean)": Number(mean(bare.flush).toFixed(2)),
    [`lapped by 0.5 mm: the same (largest, ${worst})`]: Math.max(0, ...bare.lapped),
    "pixels of layers outside the design (largest)": outside,
    "area of a layer more than 0.01 mm outside the design, mm2 (largest)": beyond,
    [`faults that the cutter finds in ${files} files`]: faults,
  });
  const art = traceArt(sheet, SHEET_SIDE, SHEET_COLOURS);
  const design = { ...art, widthMm: WIDTH_MM * 3, garment: [29, 42, 68] as const };
  const plateMs = await middleTime(() =>
    separatePlates(design, { ...screens.settingsIn({ processes: {} }), order: [] }),
  );
  const layerMs = await middleTime(() => layersOf(art, null));
  console.log(
    `layers of a sheet of 36 at ${SHEET_SIDE} px: ${Math.round(layerMs)} ms, ${(layerMs / plateMs).toFixed(2)} x of its plates (${Math.round(plateMs)} ms)`,
  );
}
