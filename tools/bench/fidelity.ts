// How near traced shapes come to the drawing that was rendered: area of difference by length of boundary, and nodes by the
// artist's own segments.
import { mkdir, rm } from "node:fs/promises";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import type { Rgb } from "@plain-palette/core/colour";
import { layShapes, writeShapesSvg } from "@plain-palette/core/formats";
import type { Raster } from "@plain-palette/core/raster";
import { makeRecipe } from "@plain-palette/core/recipe";
import { assignSpots, findColours, reduceColours } from "@plain-palette/core/reduce";
import { countShapes, tracePicture } from "@plain-palette/core/trace";
import sharp from "sharp";
import { countVisibleSegments, type LabelledView } from "./artist.ts";
import { type Icon, renderIcon, throughJpeg } from "./icons.ts";

/** Width at which source and result are compared. */
const SIDE = 2048;
const WORST = 10;
const PICTURES = join(dirname(fileURLToPath(import.meta.url)), "../../.bench/worst-shapes");

interface Measure {
  readonly icon: Icon;
  /** Area of difference by length of the source's boundaries, source pixels. */
  readonly errorPx: number;
  readonly nodes: number;
  readonly segments: number;
  readonly result: LabelledView;
}

/** Every pixel's nearest colour. */
function labelView(raster: Raster, colours: readonly Rgb[]): LabelledView {
  const { width, height, data } = raster;
  const labels = new Uint8Array(width * height);
  let lastKey = -1;
  let last = 0;
  for (let p = 0; p < labels.length; p++) {
    const r = data[p * 4];
    const g = data[p * 4 + 1];
    const b = data[p * 4 + 2];
    const key = (r << 16) | (g << 8) | b;
    if (key !== lastKey) {
      lastKey = key;
      let least = Number.POSITIVE_INFINITY;
      colours.forEach((colour, i) => {
        const d2 = (r - colour[0]) ** 2 + (g - colour[1]) ** 2 + (b - colour[2]) ** 2;
        if (d2 < least) {
          least = d2;
          last = i;
        }
      });
    }
    labels[p] = last;
  }
  return { side: width, labels };
}

/**
 * Length of the boundaries between labels, pixels: the Cauchy-Crofton formula over lines in four directions, as in
 * J. Serra, Image Analysis and Mathematical Morphology (1982).
 */
function boundaryLength({ side, labels }: LabelledView): number {
  let straight = 0;
  let slanted = 0;
  for (let y = 0; y + 1 < side; y++)
    for (let x = 0; x + 1 < side; x++) {
      const p = y * side + x;
      if (labels[p] !== labels[p + 1]) straight++;
      if (labels[p] !== labels[p + side]) straight++;
      if (labels[p] !== labels[p + side + 1]) slanted++;
      if (labels[p + 1] !== labels[p + side]) slanted++;
    }
  return (Math.PI / 8) * (straight + slanted / Math.SQRT2);
}

function trace(raster: Raster) {
  const recipe = makeRecipe();
  const findings = findColours(raster);
  const reduction = reduceColours(findings, recipe.colours);
  const assignment = assignSpots(findings, reduction, []);
  return { map: tracePicture(findings, reduction, assignment, recipe.shapes), spots: reduction.spots };
}

function measureIcon(icon: Icon, raster: Raster, source: LabelledView, length: number, segments: number): Measure {
  const { map, spots } = trace(raster);
  const svg = writeShapesSvg(layShapes(map, spots, 1)).replace(/width="[^"]*" height="[^"]*"/, "");
  const colours = icon.colours.map(({ rgb }) => rgb);
  const result = labelView(renderIcon(svg, SIDE), colours);
  let differing = 0;
  for (let p = 0; p < source.labels.length; p++) if (source.labels[p] !== result.labels[p]) differing++;
  return {
    icon,
    errorPx: (differing / length) * (raster.width / SIDE),
    nodes: countShapes(map).nodes,
    segments,
    result,
  };
}

/** Value below which a share of the values lies. */
function quantile(values: readonly number[], share: number): number {
  return [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))];
}

const KINDS: readonly { name: string; make(icon: Icon): Raster | Promise<Raster> }[] = [
  { name: "PNG 512 px", make: (icon) => renderIcon(icon.svg, 512) },
  { name: "JPEG 75, 512 px", make: (icon) => throughJpeg(renderIcon(icon.svg, 512), 75) },
  { name: "PNG 128 px", make: (icon) => renderIcon(icon.svg, 128) },
];

/** Measures tracing on the kinds of input and prints medians; pictures of the worst are left in .bench/worst-shapes. */
export async function measureShapes(icons: readonly Icon[], kinds = KINDS): Promise<void> {
  const measures = kinds.map((): Measure[] => []);
  for (const icon of icons) {
    const source = labelView(
      renderIcon(icon.svg, SIDE),
      icon.colours.map(({ rgb }) => rgb),
    );
    const length = boundaryLength(source);
    const segments = countVisibleSegments(icon.svg, source);
    for (const [k, kind] of kinds.entries())
      measures[k].push(measureIcon(icon, await kind.make(icon), source, length, segments));
  }
  const table: Record<string, unknown> = {};
  for (const [k, kind] of kinds.entries()) {
    const errors = measures[k].map(({ errorPx }) => errorPx);
    const nodes = measures[k].map(({ nodes, segments }) => nodes / segments);
    table[kind.name] = {
      "error, median px": quantile(errors, 0.5).toFixed(3),
      "90 %": quantile(errors, 0.9).toFixed(3),
      worst: quantile(errors, 1).toFixed(2),
      "nodes by drawn segments, median": quantile(nodes, 0.5).toFixed(2),
      "90 % of nodes": quantile(nodes, 0.9).toFixed(2),
    };
  }
  console.table(table);
  await rm(PICTURES, { recursive: true, force: true });
  for (const [k, kind] of kinds.entries()) {
    const worst = [...measures[k]].sort((a, b) => b.errorPx - a.errorPx).slice(0, WORST);
    console.log(`\n${kind.name}, farthest from the drawing: ${worst.map(sayMeasure).join(", ")}`);
    for (const [i, measure] of worst.entries()) await drawMeasure(measure, join(PICTURES, kind.name), i);
  }
}

const sayMeasure = ({ icon, errorPx }: Measure) => `${icon.name} ${errorPx.toFixed(2)}`;

/** The result with every differing place in red, a quarter of the size. */
async function drawMeasure({ icon, result }: Measure, folder: string, rank: number): Promise<void> {
  await mkdir(folder, { recursive: true });
  const colours = icon.colours.map(({ rgb }) => rgb);
  const source = labelView(renderIcon(icon.svg, SIDE), colours);
  const data = new Uint8Array(SIDE * SIDE * 3);
  for (let p = 0; p < result.labels.length; p++) {
    const rgb = colours[result.labels[p]].map((v) => 255 - (255 - v) / 3);
    data.set(source.labels[p] === result.labels[p] ? rgb : [220, 0, 0], p * 3);
  }
  await sharp(data, { raw: { width: SIDE, height: SIDE, channels: 3 } })
    .png()
    .toFile(join(folder, `${rank + 1}-${icon.name}.png`));
}
