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
import { keepHistory, noteRatio } from "./history.ts";
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
import { measureUnderTheHand } from "./under-the-hand.ts";

sharp.concurrency(1);

const mark = (bytes: number) => `${Math.round(bytes / 1048576)} MB`;

/** Read once, where a part asks for them. */
let read: ReturnType<typeof readFlatIcons> | undefined;
const icons = () => {
  read ??= readFlatIcons(STATED_SET, 200);
  return read;
};

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
  const films = await timed(async () => {
    const set = layOutFilms(separation, screens.settingsIn(recipe).films, {
      job: "bench",
      client: "bench",
      date: "1970-01-01",
    });
    return [await writeFilmsPdf(set, font, new Date(0)), await writeSeparationsPdf(separation, new Date(0))];
  });
  const counts = makeReport(recipe, results, {}).shapes;
  const coverage = results.findings.found.length;

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

  const size = side > 2000 ? "24 MP" : "1 MP";
  const ratio = (own: number, other: number, name?: string) => {
    if (name) noteRatio(`${name}, ${size}`, own / other);
    return `${(own / other).toFixed(2)} x`;
  };
  console.log(
    `\n${size} (${side} x ${side}), ${counts.shapes} shapes, ${counts.nodes} nodes; peak ${mark(peak)} resident`,
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
      ratio: ratio(reduceMs, quantiseMs, "reduce : quantiser"),
      to: "sharp png({ palette, colours: 12, dither: 0 }), one thread",
    },
    trace: {
      ms: Math.round(times.trace),
      ratio: ratio(times.trace, contourMs, "trace : contours"),
      to: "d3-contour, plain contours of the same masks",
    },
    separate: {
      ms: Math.round(times.separate),
      ratio: ratio(times.separate, contourMs, "plates : contours"),
      to: "d3-contour, as above",
    },
    films: {
      ms: Math.round(films.ms),
      ratio: ratio(films.ms, reloaded.ms, "films : saved again"),
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

/** Everything, or of it what is named: `npm run bench -- sheet edits`. */
const PARTS: Readonly<Record<string, () => unknown>> = {
  steps: async () => {
    // Once unmeasured: the first run pays for compiling.
    const steps = runSteps({ key: "warm-up", raster: await draw(400) }, makeRecipe(), makeResultCache());
    while (!steps.next().done);
    for (const side of [1000, 4900]) await measure(side);
    await measureRung(2000);
  },
  colours: async () => {
    console.log(`\nColours found on the first 200 flat icons of ${STATED_SET}`);
    await measureColours(await icons());
  },
  shapes: async () => {
    console.log("\nShapes of the same icons against what was drawn");
    await measureShapes(await icons());
  },
  strays: async () => {
    console.log("\nColours where they do not belong, on four open icon sets");
    await measureStrays();
  },
  sheet: async () => {
    console.log("\nOne sheet of 36 of them, 12 colours");
    await measureSheet(await icons());
  },
  edits: async () => measureEdits(await icons()),
  typefaces: measureTypefaces,
  motifs: measureMotifs,
  transfer: async () => {
    console.log("\nThe same icons as transfer film, 100 mm wide");
    await measureTransfer(await icons(), sheetSvg(await icons()));
  },
  stitches: async () => {
    console.log("\nThe first 100 of them sewn, 90 mm wide");
    await measureStitches((await icons()).slice(0, 100));
    console.log("\nEight times the stitches");
    await measureGrowth();
  },
  stones: async () => {
    console.log("\nTheir outlines set with stones, 6 in wide");
    await measureStones(await icons());
    measureStoneGrowth();
  },
  hand: async () => {
    console.log("\nHow long a person waits at the page");
    await measureUnderTheHand();
  },
  load: async () => {
    console.log("\nCode that is fetched, and how long the page is busy at a stretch");
    await measureFirstLoad();
  },
  table: async () => {
    console.log("\nPanning the light table");
    await measureTable();
  },
};

const wanted = process.argv.slice(2);
const unknown = wanted.filter((name) => !(name in PARTS));
if (unknown.length > 0)
  throw new Error(`the bench has no part "${unknown.join('", "')}"; it has ${Object.keys(PARTS).join(", ")}`);
for (const [name, part] of Object.entries(PARTS)) if (wanted.length === 0 || wanted.includes(name)) await part();
keepHistory();
