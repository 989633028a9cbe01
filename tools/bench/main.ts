// npm run bench: what each step takes on a 1 and a 24 megapixel picture, as ratios to general-purpose libraries doing the
// nearest job on the same pixels in the same process. Never a timed test: machines differ, ratios less so.

import { drawLineArt, type LineArtSettings, pickColour, type Raster, removePicked } from "@plain-palette/core/raster";
import {
  makeAction,
  makeRecipe,
  makeReport,
  makeResultCache,
  type Results,
  runSteps,
} from "@plain-palette/core/recipe";
import { findColours, reduceColours } from "@plain-palette/core/reduce";
import { layOutFilms, screens, writeFilmsPdf, writeSeparationsPdf } from "@plain-palette/core/screens";
import { readLabelFont } from "@plain-palette/server/intake";
import { contours } from "d3-contour";
import { PDFDocument } from "pdf-lib";
import sharp from "sharp";
import { ferrySvg } from "../demo/ferry.ts";
import { measureColours } from "./colours.ts";
import { measureEdits } from "./edits.ts";
import { measureShapes } from "./fidelity.ts";
import { measureFirstLoad } from "./first-load.ts";
import { readFlatIcons, STATED_SET } from "./icons.ts";
import { measureMotifs } from "./motifs.ts";
import { measureSheet, sheetSvg } from "./sheet.ts";
import { measureGrowth, measureStitches } from "./stitches.ts";
import { measureStoneGrowth, measureStones } from "./stones.ts";
import { measureStrays } from "./strays.ts";
import { measureTable } from "./table.ts";
import { middleTime, timed } from "./timing.ts";
import { measureTransfer } from "./transfer.ts";
import { measureTypefaces } from "./typefaces.ts";

sharp.concurrency(1);

const mark = (bytes: number) => `${Math.round(bytes / 1048576)} MB`;

async function draw(side: number): Promise<Raster> {
  const { data, info } = await sharp(Buffer.from(ferrySvg()), { density: (72 * side) / 1000, limitInputPixels: false })
    .flatten({ background: "#fff" })
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return {
    width: info.width,
    height: info.height,
    data: new Uint8ClampedArray(data.buffer, data.byteOffset, data.length),
  };
}

/** One of each label's 0/1 mask, as a general-purpose contour library wants it. */
function maskOf(labels: Uint8Array, label: number): number[] {
  return Array.from(labels, (value) => (value === label ? 1 : 0));
}

function plainLineArt(): LineArtSettings {
  const action = makeAction({ id: "a1", kind: "line-art" });
  if (action.kind !== "line-art") throw new Error("this is no line art");
  return action;
}

async function measure(side: number): Promise<void> {
  const raster = await draw(side);
  const raw = { width: raster.width, height: raster.height, channels: 4 as const };
  const pixels = Buffer.from(raster.data.buffer, raster.data.byteOffset, raster.data.length);
  const recipe = makeRecipe({ artwork: { garment: "#1d2a44" } });
  const times: Record<string, number> = {};
  let peak = 0;
  const steps = runSteps({ key: "bench", raster }, recipe, makeResultCache());
  let step = steps.next();
  while (!step.done) {
    const { part } = step.value;
    const { ms, value } = await timed(() => steps.next());
    times[part] = (times[part] ?? 0) + ms;
    step = value;
    peak = Math.max(peak, process.memoryUsage().rss);
  }
  const results: Results = step.value;
  const separation = screens.resultIn(results.made);
  if (!separation) throw new Error("nothing was separated");
  const font = await readLabelFont();
  const date = new Date(0);
  const films = await timed(async () => {
    const set = layOutFilms(separation, screens.settingsIn(recipe).films, {
      job: "bench",
      client: "bench",
      date: "1970-01-01",
    });
    return [await writeFilmsPdf(set, font, date), await writeSeparationsPdf(separation, date)];
  });
  const { counts, coverage } = {
    counts: makeReport(recipe, results, {}).shapes,
    coverage: results.findings.found.length,
  };

  const seeds = [{ x: 2, y: 2 }];
  const picked = await timed(() => {
    const { mask } = pickColour(raster, { seeds, rgb: [255, 255, 255], tolerance: 22, reach: "connected" });
    return removePicked(raster, mask);
  });
  const lineArt = await timed(() => drawLineArt(raster, plainLineArt()));
  const thresholded = await timed(() =>
    sharp(pixels, { raw }).flatten({ background: "#fff" }).threshold(128).raw().toBuffer(),
  );

  const reduceMs = await middleTime(() => reduceColours(findColours(raster), recipe.colours));
  const quantiseMs = await middleTime(() =>
    sharp(pixels, { raw }).png({ palette: true, colours: 12, dither: 0 }).toBuffer(),
  );
  // Contours of every colour's mask; on 24 MP of one colour only, times the number of colours, since it wants arrays of numbers.
  const labels = results.findings.labels.data;
  const masks = side > 2000 ? 1 : coverage;
  const contoured = await timed(() => {
    for (let label = 0; label < masks; label++)
      contours().size([raster.width, raster.height]).thresholds([0.5])(maskOf(labels, side > 2000 ? 2 : label));
  });
  const contourMs = (contoured.ms * coverage) / masks;
  const reloaded = await timed(async () => {
    for (const file of films.value) await (await PDFDocument.load(file)).save();
  });

  const ratio = (own: number, other: number) => `${(own / other).toFixed(2)} x`;
  console.log(
    `\n${(side * side) / 1e6 > 20 ? "24" : "1"} MP (${side} x ${side}), ${counts.shapes} shapes, ${counts.nodes} nodes; peak ${mark(peak)} resident`,
  );
  const flattening = "sharp flatten + threshold, one thread";
  console.table({
    pick: {
      ms: Math.round(picked.ms),
      ratio: ratio(picked.ms, thresholded.ms),
      to: `${flattening} (the rim unmixed, too)`,
    },
    "line art": { ms: Math.round(lineArt.ms), ratio: ratio(lineArt.ms, thresholded.ms), to: flattening },
    reduce: {
      ms: Math.round(reduceMs),
      ratio: ratio(reduceMs, quantiseMs),
      to: "sharp png({ palette, colours: 12, dither: 0 }), one thread",
    },
    trace: {
      ms: Math.round(times.trace),
      ratio: ratio(times.trace, contourMs),
      to: "d3-contour, plain contours of the same masks",
    },
    separate: { ms: Math.round(times.separate), ratio: ratio(times.separate, contourMs), to: "d3-contour, as above" },
    films: {
      ms: Math.round(films.ms),
      ratio: ratio(films.ms, reloaded.ms),
      to: "pdf-lib loading and saving the two files again",
    },
  });
}

/** Moving the number of colours by one, against finding the colours. */
async function measureRung(side: number): Promise<void> {
  const raster = await draw(side);
  const found = await timed(() => findColours(raster));
  const settings = makeRecipe().colours;
  const moved = await timed(() => reduceColours(found.value, { ...settings, count: found.value.found.length - 1 }));
  console.log(
    `\n${(side * side) / 1e6} MP: finding ${Math.round(found.ms)} ms, one rung ${moved.ms.toFixed(1)} ms (${(moved.ms / found.ms).toFixed(3)} x)`,
  );
}

// Once unmeasured: the first run pays for compiling.
await draw(400).then((raster) => {
  const steps = runSteps({ key: "warm-up", raster }, makeRecipe(), makeResultCache());
  while (!steps.next().done);
});
for (const side of [1000, 4900]) await measure(side);
await measureRung(2000);
console.log(`\nColours found on the first 200 flat icons of ${STATED_SET}`);
const icons = await readFlatIcons(STATED_SET, 200);
await measureColours(icons);
console.log("\nShapes of the same icons against what was drawn");
await measureShapes(icons);
console.log("\nColours where they do not belong, on four open icon sets");
await measureStrays();
console.log("\nOne sheet of 36 of them, 12 colours");
await measureSheet(icons);
measureEdits(icons);
await measureTypefaces();
await measureMotifs();
console.log("\nThe same icons as transfer film, 100 mm wide");
await measureTransfer(icons, sheetSvg(icons));
console.log("\nThe first 100 of them sewn, 90 mm wide");
await measureStitches(icons.slice(0, 100));
console.log("\nEight times the stitches");
await measureGrowth();
console.log("\nTheir outlines set with stones, 6 in wide");
await measureStones(icons);
measureStoneGrowth();
console.log("\nCode that is fetched, and how long the page is busy at a stretch");
await measureFirstLoad();
console.log("\nPanning the light table");
await measureTable();
