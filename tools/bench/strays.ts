// Colours where they do not belong, on small, blurred and compressed art: pixels whose colour no drawn region within a pixel
// and a half has, and shapes traced for shapes drawn. Over several open icon sets, at the median and the 90th percentile.
import { ciede2000, type Rgb, rgbToLab } from "@plain-palette/core/colour";
import { layShapes, writeShapesSvg } from "@plain-palette/core/formats";
import { findComponents, type Raster } from "@plain-palette/core/raster";
import { makeRecipe } from "@plain-palette/core/recipe";
import { assignSpots, findColours, reduceColours, UNDECIDED } from "@plain-palette/core/reduce";
import { tracePicture } from "@plain-palette/core/trace";
import sharp from "sharp";
import { type Icon, readFlatIcons, renderIcon, throughJpeg } from "./icons.ts";

/** npm: MIT, CC-BY 4.0, Apache 2.0, MIT. */
const SETS = ["fluent-emoji-flat", "twemoji", "noto-v1", "flat-color-icons"].map((name) => `@iconify-json/${name}`);
/** Drawings of each set. */
const MOST = 20;
/** Pixels of the comparison to a pixel of the picture. */
const FINE = 4;
/** A region within this of a pixel may lend it its colour, px. */
const NEAR_PX = 1.5;
/** Up to this CIEDE2000 a traced colour is a drawn one. */
const SAME = 8;
/** Smallest region that counts as drawn, px: what is smaller goes with the specks. */
const LEAST_REGION_PX = 4;

/** One way in which art arrives. */
interface Kind {
  readonly name: string;
  readonly side: number;
  make(clean: Raster): Promise<Raster>;
}

const KINDS: readonly Kind[] = [
  { name: "JPEG 40, 300 px", side: 300, make: (clean) => throughJpeg(clean, 40) },
  { name: "blur 0.8, 256 px", side: 256, make: (clean) => blurred(clean, 0.8) },
  { name: "JPEG 60, 512 px", side: 512, make: (clean) => throughJpeg(clean, 60) },
  { name: "JPEG 75, 200 px", side: 200, make: (clean) => throughJpeg(clean, 75) },
  { name: "PNG, 256 px", side: 256, make: async (clean) => clean },
];

async function blurred({ width, height, data }: Raster, sigma: number): Promise<Raster> {
  const raw = await sharp(data, { raw: { width, height, channels: 4 } })
    .blur(sigma)
    .raw()
    .toBuffer();
  return { width, height, data: new Uint8ClampedArray(raw.buffer, raw.byteOffset, raw.length) };
}

interface Outcome {
  /** Share of the picture, 0..1. */
  readonly strays: number;
  readonly ratio: number;
  readonly isExact: boolean;
}

/** What is really where: the drawing without anti-aliasing, fine, as the number of the nearest drawn colour. */
function drawnLabels(icon: Icon, side: number): Uint8Array {
  const crisp = renderIcon(icon.svg.replace("<svg ", '<svg shape-rendering="crispEdges" '), side * FINE);
  return labelsOf(
    crisp,
    icon.colours.map(({ rgb }) => rgb),
  );
}

function labelsOf({ data }: Raster, colours: readonly Rgb[]): Uint8Array {
  const labels = new Uint8Array(data.length / 4);
  const known = new Map<number, number>();
  for (let p = 0; p < labels.length; p++) {
    const key = (data[p * 4] << 16) | (data[p * 4 + 1] << 8) | data[p * 4 + 2];
    let label = known.get(key);
    if (label === undefined) {
      const rgb: Rgb = [data[p * 4], data[p * 4 + 1], data[p * 4 + 2]];
      const away = colours.map((c) => (c[0] - rgb[0]) ** 2 + (c[1] - rgb[1]) ** 2 + (c[2] - rgb[2]) ** 2);
      label = away.indexOf(Math.min(...away));
      known.set(key, label);
    }
    labels[p] = label;
  }
  return labels;
}

/** For every picture pixel a bit for each drawn colour within NEAR_PX of it. */
function coloursNear(labels: Uint8Array, side: number): Uint32Array {
  const fine = side * FINE;
  const near = new Uint32Array(side * side);
  const reach = NEAR_PX * FINE;
  for (let y = 0; y < side; y++)
    for (let x = 0; x < side; x++) {
      const cx = (x + 0.5) * FINE;
      const cy = (y + 0.5) * FINE;
      let bits = 0;
      for (let v = Math.max(0, Math.floor(cy - reach)); v < Math.min(fine, cy + reach); v++)
        for (let u = Math.max(0, Math.floor(cx - reach)); u < Math.min(fine, cx + reach); u++)
          if ((u + 0.5 - cx) ** 2 + (v + 0.5 - cy) ** 2 <= reach * reach) bits |= 1 << labels[v * fine + u];
      near[y * side + x] = bits;
    }
  return near;
}

function countRegions(labels: Uint8Array, side: number): number {
  const fine = side * FINE;
  const { areaPx } = findComponents({ width: fine, height: fine, data: labels });
  return areaPx.filter((area) => area >= LEAST_REGION_PX * FINE * FINE).length;
}

async function judge(icon: Icon, { side, make }: Kind): Promise<Outcome> {
  const picture = await make(renderIcon(icon.svg, side));
  const findings = findColours(picture);
  const reduction = reduceColours(findings, UNDECIDED);
  const assignment = assignSpots(findings, reduction, []);
  const map = tracePicture(findings, reduction, assignment, makeRecipe().shapes);
  const svg = writeShapesSvg(layShapes(map, reduction.spots, 1));
  const result = renderIcon(svg.replace("<svg ", '<svg shape-rendering="crispEdges" '), side * FINE);
  const drawn = drawnLabels(icon, side);
  const near = coloursNear(drawn, side);
  const spots = reduction.spots.map(({ pictureRgb }) => pictureRgb);
  const labels = labelsOf(result, spots);
  // Which drawn colours a traced one may stand for.
  const stands = spots.map((rgb) =>
    icon.colours.reduce(
      (bits, other, i) => (ciede2000(rgbToLab(rgb), rgbToLab(other.rgb)) < SAME ? bits | (1 << i) : bits),
      0,
    ),
  );
  let strays = 0;
  const fine = side * FINE;
  for (let p = 0; p < labels.length; p++) {
    const x = Math.floor((p % fine) / FINE);
    const y = Math.floor(Math.floor(p / fine) / FINE);
    if ((near[y * side + x] & stands[labels[p]]) === 0) strays++;
  }
  return {
    strays: strays / labels.length,
    ratio: map.faces.length / Math.max(1, countRegions(drawn, side)),
    isExact: reduction.spots.length === icon.colours.length,
  };
}

/** Prints the figures for every kind. */
export async function measureStrays(): Promise<void> {
  const icons = (await Promise.all(SETS.map((set) => readFlatIcons(set, MOST)))).flat();
  const table: Record<string, object> = {};
  for (const kind of KINDS) {
    const outcomes: Outcome[] = [];
    for (const icon of icons) {
      const outcome = await judge(icon, kind);
      outcomes.push(outcome);
      if (process.env.STRAYS === "all")
        console.log(kind.name, icon.name, (outcome.strays * 100).toFixed(2), outcome.ratio.toFixed(2), outcome.isExact);
    }
    const at = (values: number[], q: number) => values.sort((a, b) => a - b)[Math.floor((values.length - 1) * q)];
    const strays = outcomes.map((one) => one.strays * 100);
    const ratios = outcomes.map((one) => one.ratio);
    table[kind.name] = {
      "strays %, median": at(strays, 0.5).toFixed(3),
      "90th": at(strays, 0.9).toFixed(3),
      "shapes, median": at(ratios, 0.5).toFixed(2),
      "shapes, 90th": at(ratios, 0.9).toFixed(2),
      "exact colours": `${outcomes.filter((one) => one.isExact).length} of ${outcomes.length}`,
    };
  }
  console.table(table);
}
