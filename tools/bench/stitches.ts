// Stitch plans against the shapes that they are made of: thread drawn from the written list by a renderer that is not ours. Is
// every area covered, does thread lie where it should not, does every stitch keep to the machine's limits?
import { listAreas } from "@plain-palette/core/area";
import { flattenPath, pathToSvg, polygonPath } from "@plain-palette/core/geometry";
import { wholeFrame } from "@plain-palette/core/raster";
import { makeRecipe } from "@plain-palette/core/recipe";
import { assignSpots, findColours, reduceColours } from "@plain-palette/core/reduce";
import {
  chooseAreas,
  type MeasuredArea,
  measureAreas,
  planStitches,
  type StitchPlan,
  stitchSettingsSchema,
  writeStitchesCsv,
} from "@plain-palette/core/stitch";
import { type PlanarMap, tracePicture } from "@plain-palette/core/trace";
import { Resvg } from "@resvg/resvg-js";
import { type Icon, renderIcon } from "./icons.ts";
import { middleTime } from "./timing.ts";

/** Icons are traced at this size and sewn this wide. */
const SIDE = 512;
const WIDTH_MM = 90;
const THREAD_MM = 0.4;
const PULL_MM = 0.2;
/** What is looked at: so many pixels a millimetre. */
const PX_PER_MM = 12;
const GRID = WIDTH_MM * PX_PER_MM;
/** Uncovered spots narrower than this are no holes. */
const HOLE_MM = 0.8;

interface Row {
  readonly command: string;
  readonly x: number;
  readonly y: number;
  readonly thread: number;
}

/** The list, read by nothing of the planner's. */
function readList(text: string): Row[] {
  const rows = text.split("\n").filter((line) => line !== "" && !line.startsWith("#"));
  return rows.slice(1).map((line) => {
    const [, command = "", x, y, thread] = line.split(",");
    return { command, x: Number(x) + WIDTH_MM / 2, y: WIDTH_MM / 2 - Number(y), thread: Number(thread) };
  });
}

function drawSvg(content: string) {
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${WIDTH_MM} ${WIDTH_MM}">${content}</svg>`;
  return new Resvg(svg, { fitTo: { mode: "width", value: GRID } }).render();
}

function drawMask(content: string): Uint8Array {
  const { pixels } = drawSvg(content);
  return Uint8Array.from({ length: GRID * GRID }, (_, p) => (pixels[p * 4 + 3] >= 128 ? 1 : 0));
}

/** What thread covers of what is sewn in one colour. */
function drawThread(rows: readonly Row[], thread: number): Uint8Array {
  const lines: string[] = [];
  let line: string[] = [];
  const end = () => {
    if (line.length > 1) lines.push(`<polyline points="${line.join(" ")}"/>`);
    line = [];
  };
  for (const { command, x, y, thread: own } of rows) {
    if (own !== thread || command !== "stitch") end();
    if (own === thread && command === "stitch") line.push(`${x},${y}`);
  }
  end();
  return drawMask(
    `<g fill="none" stroke="#000" stroke-width="${THREAD_MM}" stroke-linecap="round" stroke-linejoin="round">${lines.join("")}</g>`,
  );
}

/** The colour that is seen at each place, from 1; 0 where no thread lies. */
function drawSeen(rows: readonly Row[]): Uint8Array {
  const lines: { thread: number; points: string[] }[] = [];
  rows.forEach(({ command, x, y, thread }, i) => {
    if (command !== "stitch") return;
    const isOn = rows[i - 1]?.command === "stitch" && rows[i - 1]?.thread === thread;
    if (isOn) lines.at(-1)?.points.push(`${x},${y}`);
    else lines.push({ thread, points: [`${x},${y}`] });
  });
  const content = lines
    .filter(({ points }) => points.length > 1)
    .map(({ thread, points }) => `<polyline stroke="rgb(${thread},0,0)" points="${points.join(" ")}"/>`);
  const { pixels } = drawSvg(
    `<g fill="none" shape-rendering="crispEdges" stroke-width="${THREAD_MM}" stroke-linecap="round" stroke-linejoin="round">${content.join("")}</g>`,
  );
  return Uint8Array.from({ length: GRID * GRID }, (_, p) => pixels[p * 4] ?? 0);
}

function drawFaces(map: PlanarMap, areas: readonly MeasuredArea[], grownMm: number): Uint8Array {
  const scale = WIDTH_MM / map.width;
  const d = areas
    .flatMap(({ face }) => map.faces[face]?.paths ?? [])
    .map((path) =>
      pathToSvg(
        polygonPath(
          flattenPath(path, 0.02)
            .slice(2)
            .map((px) => px * scale),
        ),
        4,
      ),
    )
    .join("");
  return drawMask(`<path d="${d}" fill="#000" stroke="#000" stroke-width="${2 * grownMm}" stroke-linejoin="round"/>`);
}

/** Distance of each pixel that is set from what is not, counted in pixels of a square (two passes: Rosenfeld & Pfaltz 1966). */
function depthOf(mask: Uint8Array): Uint16Array {
  const depth = new Uint16Array(mask.length);
  for (let p = 0; p < mask.length; p++)
    if (mask[p] === 1)
      depth[p] =
        1 + Math.min(depth[p - 1] ?? 0, depth[p - GRID] ?? 0, depth[p - GRID - 1] ?? 0, depth[p - GRID + 1] ?? 0);
  for (let p = mask.length - 1; p >= 0; p--)
    if (mask[p] === 1)
      depth[p] = Math.min(
        depth[p] ?? 0,
        1 + Math.min(depth[p + 1] ?? 0, depth[p + GRID] ?? 0, depth[p + GRID + 1] ?? 0, depth[p + GRID - 1] ?? 0),
      );
  return depth;
}

/** Of spots that hang together and are wider than HOLE_MM somewhere the largest, mm2. */
function largestHole(bare: Uint8Array): number {
  const depth = depthOf(bare);
  const isSeen = new Uint8Array(bare.length);
  let largest = 0;
  for (let first = 0; first < bare.length; first++) {
    if (bare[first] !== 1 || isSeen[first] === 1) continue;
    const open = [first];
    isSeen[first] = 1;
    let widest = 0;
    for (let k = 0; k < open.length; k++) {
      const p = open[k] ?? 0;
      widest = Math.max(widest, depth[p] ?? 0);
      for (const next of [p - 1, p + 1, p - GRID, p + GRID])
        if (bare[next] === 1 && isSeen[next] === 0) {
          isSeen[next] = 1;
          open.push(next);
        }
    }
    if ((2 * widest) / PX_PER_MM > HOLE_MM) largest = Math.max(largest, open.length / PX_PER_MM ** 2);
  }
  return largest;
}

interface Sewn {
  readonly plan: StitchPlan;
  readonly areas: readonly MeasuredArea[];
  readonly map: PlanarMap;
}

function traceIcon(svg: string) {
  const raster = renderIcon(svg, SIDE);
  const recipe = makeRecipe({ colours: { count: null } });
  const findings = findColours(raster);
  const reduction = reduceColours(findings, recipe.colours, [255, 255, 255]);
  const map = tracePicture(findings, reduction, assignSpots(findings, reduction, []), recipe.shapes);
  return { map, spots: reduction.spots };
}

type Traced = ReturnType<typeof traceIcon>;

function sew({ map, spots }: Traced, widthMm: number): Sewn {
  const areas = measureAreas(listAreas({ map, spots, widthMm }), map);
  const design = { map, spots, widthMm, frame: wholeFrame(map.width, map.height) };
  const { areas: chosen, colours } = chooseAreas(areas, design, stitchSettingsSchema.parse({}));
  return { plan: planStitches(chosen, colours, widthMm, widthMm), areas, map };
}

/** Rings and discs in so many rows and columns. */
function drawDiscs(count: number): string {
  const side = 100 / count;
  const discs = Array.from({ length: count * count }, (_, i) => {
    const [x, y] = [((i % count) + 0.5) * side, (Math.floor(i / count) + 0.5) * side];
    return `<circle cx="${x}" cy="${y}" r="${side * 0.44}" fill="#25425e"/><circle cx="${x}" cy="${y}" r="${side * 0.14}" fill="#c8553d"/>`;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100">${discs.join("")}</svg>`;
}

/** Eight times the stitches: of the same areas sewn larger, and of eight times as many areas. */
export async function measureGrowth(): Promise<void> {
  const kinds: Record<string, { small: readonly [number, number]; large: readonly [number, number] }> = {
    "areas eight times as large": { small: [3, 108], large: [3, 365] },
    "eight times as many areas": { small: [3, 108], large: [8, 305] },
  };
  for (const [name, { small, large }] of Object.entries(kinds)) {
    const measured: { stitches: number; ms: number }[] = [];
    for (const [count, widthMm] of [small, large]) {
      const traced = traceIcon(drawDiscs(count));
      sew(traced, widthMm);
      measured.push({
        ms: await middleTime(() => sew(traced, widthMm)),
        stitches: sew(traced, widthMm).plan.command.length,
      });
    }
    const [few, many] = measured;
    if (!few || !many) continue;
    console.table({
      [`${name}: stitches`]: `${few.stitches} to ${many.stitches}`,
      [`${name}: time ratio`]: Number((many.ms / few.ms).toFixed(1)),
    });
  }
}

export async function measureStitches(icons: readonly Icon[], tell: (line: string) => void = () => {}): Promise<void> {
  const worst = { covered: 1, seen: 1, bare: 0, spill: 0, hole: 0, short: 0, long: 0, loose: 0, changes: 0 };
  const named: Record<string, string> = {};
  const note = (key: "covered" | "seen" | "bare" | "spill" | "hole", value: number, name: string) => {
    if (key === "covered" || key === "seen" ? value < worst[key] : value > worst[key]) {
      worst[key] = value;
      named[key] = name;
    }
  };
  let [stitches, jumps, trees] = [0, 0, 0];
  for (const { name, svg } of icons) {
    // What resvg draws is given back when rubbish is collected, between two turns of the event loop.
    global.gc?.();
    await new Promise(setImmediate);
    const { plan, areas, map } = sew(traceIcon(svg), WIDTH_MM);
    const rows = readList(writeStitchesCsv(plan, { job: name, hoop: "100 x 100", threads: [] }));
    stitches += rows.length;
    const room = drawFaces(map, areas, PULL_MM + THREAD_MM / 2);
    const top = drawSeen(rows);
    const all = drawFaces(map, areas, 0);
    let [designPx, barePx] = [0, 0];
    for (let p = 0; p < all.length; p++) {
      designPx += all[p] ?? 0;
      if (all[p] === 1 && top[p] === 0) barePx++;
    }
    note("bare", barePx / designPx, name);
    let spill = 0;
    const seen: string[] = [];
    plan.colours.forEach(({ spotId }, c) => {
      const own = areas.filter(
        (area) => area.spotId === spotId && (area.proposedAs === "fill" || area.proposedAs === "satin"),
      );
      const thread = drawThread(rows, c + 1);
      const all = areas.filter((area) => area.spotId === spotId);
      jumps += jumpedMm(rows, c + 1);
      trees += shortestTree(all);
      for (let p = 0; p < thread.length; p++) if (thread[p] === 1 && room[p] === 0) spill++;
      if (own.length === 0) return;
      const wanted = drawFaces(map, own, 0);
      let [wantedPx, bare, ownOnTop] = [0, 0, 0];
      const holes = new Uint8Array(wanted.length);
      for (let p = 0; p < wanted.length; p++)
        if (wanted[p] === 1) {
          wantedPx++;
          if (top[p] === c + 1) ownOnTop++;
          if (thread[p] === 0) {
            bare++;
            holes[p] = 1;
          }
        }
      const [covered, hole] = [1 - bare / wantedPx, largestHole(holes)];
      if (covered < 0.97 || hole > 1) seen.push(`${spotId} ${(covered * 100).toFixed(1)} % hole ${hole.toFixed(2)}`);
      note("covered", covered, name);
      note("seen", ownOnTop / wantedPx, name);
      note("hole", hole, name);
    });
    const area = areas.reduce((sum, { areaMm2 }) => sum + areaMm2, 0);
    const share = spill / PX_PER_MM ** 2 / area;
    note("spill", share, name);
    if (share > 0.03) seen.push(`spill ${(share * 100).toFixed(1)} %`);
    const faults = judge(rows);
    worst.short += faults.short;
    worst.long += faults.long;
    worst.loose += faults.loose;
    worst.changes = Math.max(
      worst.changes,
      rows.filter(({ command }) => command === "colour").length + 1 - plan.colours.length,
    );
    if (seen.length > 0) tell(`${name}: ${seen.join("; ")}`);
  }
  console.table({
    [`least share of a colour's fills and satin that is covered (${named.covered})`]: Number(worst.covered.toFixed(4)),
    [`least share of it that is seen in that colour when all is sewn (${named.seen})`]: Number(worst.seen.toFixed(4)),
    [`cloth that shows in the design when all is sewn, share of it (largest, ${named.bare})`]: Number(
      worst.bare.toFixed(4),
    ),
    [`thread beyond the pull, share of the areas (largest, ${named.spill})`]: Number(worst.spill.toFixed(4)),
    [`largest spot left bare that is wider than 0.8 mm, mm2 (${named.hole})`]: Number(worst.hole.toFixed(2)),
    "stitches under 0.5 mm": worst.short,
    "stitches over 12.1 mm": worst.long,
    "trims that no tie goes before": worst.loose,
    "changes of colour more than colours": worst.changes,
    "jumps together, times the shortest trees of the gaps between areas of one colour": Number(
      (jumps / trees).toFixed(2),
    ),
    [`stitches of ${icons.length} icons`]: stitches,
  });
}

/** How far the needle jumps in one thread, the way to its first stitch apart, mm. */
function jumpedMm(rows: readonly Row[], thread: number): number {
  const own = rows.filter((row) => row.thread === thread && row.command !== "colour");
  const first = own.findIndex(({ command }) => command === "stitch");
  return own.reduce((sum, { command, x, y }, i) => {
    const before = own[i - 1];
    return i > first && command === "jump" && before ? sum + Math.hypot(x - before.x, y - before.y) : sum;
  }, 0);
}

/** The shortest tree of gaps between areas (minimum spanning tree: Prim 1957), mm. */
function shortestTree(areas: readonly MeasuredArea[]): number {
  const gap = (a: MeasuredArea, b: MeasuredArea) => {
    let least = Number.POSITIVE_INFINITY;
    for (const one of a.rings)
      for (const other of b.rings)
        for (let i = 0; i < one.length; i += 2)
          for (let j = 0; j < other.length; j += 2)
            least = Math.min(
              least,
              Math.hypot((one[i] ?? 0) - (other[j] ?? 0), (one[i + 1] ?? 0) - (other[j + 1] ?? 0)),
            );
    return least;
  };
  const [first, ...rest] = areas;
  if (!first) return 0;
  const away = new Map(rest.map((area) => [area, gap(first, area)]));
  let whole = 0;
  while (away.size > 0) {
    const [next, mm] = [...away].reduce((best, one) => (one[1] < best[1] ? one : best));
    away.delete(next);
    whole += mm;
    for (const [other, before] of away) away.set(other, Math.min(before, gap(next, other)));
  }
  return whole;
}

/** Stitches outside the limits (a hundredth is what the list rounds to), and trims without ties. */
function judge(rows: readonly Row[]): { short: number; long: number; loose: number } {
  let [short, long, loose] = [0, 0, 0];
  const lengthAt = (i: number) => {
    const [a, b] = [rows[i - 1], rows[i]];
    return a && b ? Math.hypot(b.x - a.x, b.y - a.y) : 0;
  };
  rows.forEach(({ command }, i) => {
    if (command === "stitch" && rows[i - 1]?.command === "stitch") {
      if (lengthAt(i) < 0.49) short++;
      if (lengthAt(i) > 12.11) long++;
    }
    if (command === "trim" && [i - 1, i - 2, i - 3].some((k) => lengthAt(k) > 1.01)) loose++;
  });
  return { short, long, loose };
}
