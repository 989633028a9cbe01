// Motifs over HTTP: kept, found, filed, versions, jobs that place them, files out and in, and drawn art from elsewhere.
import { execFileSync } from "node:child_process";
import {
  type KeptMotif,
  keptMotifSchema,
  type ListedMotif,
  motifDetailSchema,
  motifImportSchema,
  motifPageSchema,
  problemSchema,
  runSchema,
} from "@plain-palette/contract";
import { type Motif, motifAreas, motifSchema } from "@plain-palette/core/motif";
import { makeRecipe, makeShapeEntry } from "@plain-palette/core/recipe";
import { Resvg } from "@resvg/resvg-js";
import { unzipSync } from "fflate";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import yauzl from "yauzl";
import { type Bench, createJob, drawPicture, readReport, send, startBench, untilRun } from "./bench.test.support.ts";
import { mutate } from "./mutate.test.support.ts";

let bench: Bench;
beforeAll(async () => {
  bench = await startBench();
});
afterAll(() => bench.stop());

/** A square of so many millimetres in one colour, with a second one inside. */
function squareMotif(mm: number, hex = "#d8412f", inner = "#14304f"): Motif {
  const square = (from: number, to: number, way: 1 | -1) => {
    const corners = [
      [from, from],
      [from, to],
      [to, to],
      [to, from],
    ] as const;
    const path: number[] = [from, from];
    for (let k = 1; k <= 4; k++) {
      const [x, y] = corners[(way * k + 4) % 4] ?? [0, 0];
      path.push(...path.slice(-2), x, y, x, y);
    }
    return path;
  };
  const spot = (name: string, colour: string, paths: number[][]) => ({
    name,
    hex: colour,
    stock: null,
    shapes: [paths],
  });
  return motifSchema.parse({
    ...{ format: 1, widthMm: mm, heightMm: mm },
    spots: [
      spot("Red", hex, [square(0, mm, 1), square(mm / 4, mm / 2, -1)]),
      spot("Navy", inner, [square(mm / 4, mm / 2, 1)]),
    ],
  });
}

async function keep(motif: Motif, name: string, more: { folder?: string; words?: string } = {}): Promise<KeptMotif> {
  const facts = { name, folder: more.folder ?? "", words: more.words ?? "", from: "" };
  const { status, body } = await send(bench.url(), "POST", "/motifs", { facts, motif });
  expect(status).toBe(201);
  return keptMotifSchema.parse(body);
}
const find = async (query = "") => motifPageSchema.parse((await send(bench.url(), "GET", `/motifs?${query}`)).body);
const detail = async ({ id }: ListedMotif) =>
  motifDetailSchema.parse((await send(bench.url(), "GET", `/motifs/${id}`)).body);
const takeIn = (bytes: Uint8Array, name: string) =>
  send(bench.url(), "POST", `/motifs/files?name=${encodeURIComponent(name)}`, Buffer.from(bytes));
const bytesOf = async (path: string) => Buffer.from(await (await fetch(`${bench.url()}/api${path}`)).arrayBuffer());

describe("motifs that are kept", () => {
  it("are there once, by their content, and found by word, folder, colour and how much is in them", async () => {
    const tern = await keep(squareMotif(20), "Tern", { folder: "Birds", words: "sea wing" });
    expect(tern.isNew).toBe(true);
    expect(await keep(squareMotif(20), "Another name")).toMatchObject({ isNew: false, motif: { id: tern.motif.id } });
    await keep(squareMotif(21, "#2c6fbb"), "Wave", { folder: "Water" });
    const names = async (query: string) => (await find(query)).motifs.map(({ name }) => name);
    expect(await names("words=WING ter")).toEqual(["Tern"]);
    expect(await names("words=navy")).toEqual(["Tern", "Wave"]);
    expect(await names("folder=Water")).toEqual(["Wave"]);
    // A red that is no other: CIEDE2000 of the two is under 3 (Sharma et al. 2005), of the blue far more.
    expect(await names("hex=%23d64230")).toEqual(["Tern"]);
    expect(await names("mostSpots=1")).toEqual([]);
    expect(await names("words=%25")).toEqual([]);
    expect((await find()).folders).toEqual([
      { name: "Birds", motifs: 1 },
      { name: "Water", motifs: 1 },
    ]);
  });
  it("are named and filed anew, put away and found there; who has not seen a change overwrites nothing", async () => {
    const { motif } = await keep(squareMotif(22), "Anchor");
    const path = `/motifs/${motif.id}`;
    const { body } = await send(bench.url(), "PATCH", path, { version: 1, folder: "Ships", isPutAway: true });
    expect(body).toMatchObject({ name: "Anchor", folder: "Ships", isPutAway: true, version: 2 });
    const late = await send(bench.url(), "PATCH", path, { version: 1, name: "Buoy" });
    expect([late.status, problemSchema.parse(late.body).kept]).toEqual([409, expect.stringContaining("kept")]);
    expect((await find("putAway=yes")).motifs.map(({ name }) => name)).toEqual(["Anchor"]);
    expect((await find("words=anchor")).total).toBe(0);
  });
});

describe("a motif in jobs", () => {
  it("knows those that place it, also after a new version of it, which is taken over by nobody by itself", async () => {
    const motif = squareMotif(30);
    const kept = (await keep(motif, "Lighthouse")).motif;
    const job = await createJob(bench.url(), await drawPicture(3));
    const entry = makeShapeEntry({
      ...{ id: "edit-1", kind: "motif", places: [{ at: { x: 60, y: 60 }, widthPx: 40 }] },
      motif: { hash: kept.hash, name: kept.name, widthMm: 30, heightMm: 30 },
      spots: ["d8412f", "14304f"],
    });
    const recipe = makeRecipe({ shapes: { entries: [entry] } });
    await send(bench.url(), "POST", `/jobs/${job.id}/recipes`, { basedOn: 1, recipe });
    expect((await detail(kept)).usedBy).toMatchObject([{ jobId: job.id, edition: 1 }]);
    const next = await send(bench.url(), "POST", `/motifs/${kept.id}/editions`, { motif: squareMotif(31), version: 1 });
    expect(next.body).toMatchObject({ edition: 2, jobs: 1, usedBy: [{ jobId: job.id, edition: 1 }] });
    const { body } = await send(bench.url(), "GET", `/jobs/${job.id}`);
    expect(body).toMatchObject({ recipe: { shapes: { entries: [{ motif: { hash: kept.hash } }] } } });
    // The films are made with the content that the job names.
    const started = runSchema.parse(
      (await send(bench.url(), "POST", `/jobs/${job.id}/runs`, { recipeVersion: 2 })).body,
    );
    const run = await untilRun(bench.url(), started.id, ["done"]);
    expect((await readReport(bench.url(), run)).warnings.join()).not.toContain("Lighthouse");
    await send(bench.url(), "PUT", `/jobs/${job.id}/head`, { to: 1, seen: 2 });
    expect((await detail(kept)).usedBy).toEqual([]);
  });
});

/** Names in a ZIP, as another reader of ZIPs finds them, each file's checksum looked at. */
async function listedIn(bytes: Buffer): Promise<string[]> {
  const zip = await yauzl.fromBufferPromise(bytes);
  const names: string[] = [];
  for await (const entry of zip.eachEntry()) {
    for await (const piece of await zip.openReadStreamPromise(entry)) void piece;
    names.push(entry.fileName);
  }
  return names;
}

describe("a job whose file gets better", () => {
  it("has its motifs where they were, as many times as large in its pixels", async () => {
    const kept = (await keep(squareMotif(33), "Pennant")).motif;
    const job = await createJob(bench.url(), await drawPicture(5));
    const entry = makeShapeEntry({
      ...{ id: "edit-1", kind: "motif", places: [{ at: { x: 30, y: 60 }, widthPx: 40, angleDeg: 20 }] },
      motif: { hash: kept.hash, name: kept.name, widthMm: 33, heightMm: 33 },
      ...{ spots: ["d8412f", null], row: { kind: "grid", columns: 2, rows: 1, stepX: 50, stepY: 0 } },
    });
    const recipe = makeRecipe({ shapes: { entries: [entry] } });
    await send(bench.url(), "POST", `/jobs/${job.id}/recipes`, { basedOn: 1, recipe });
    const better = await drawPicture(5, 360);
    const { body } = await send(bench.url(), "POST", `/jobs/${job.id}/artwork?basedOn=2&name=better.png`, better);
    expect(body).toMatchObject({
      recipe: {
        shapes: {
          entries: [
            { places: [{ at: { x: 90, y: 180 }, widthPx: 120, angleDeg: 20 }], row: { stepX: 150, columns: 2 } },
          ],
        },
      },
    });
    expect((await detail(kept)).usedBy).toMatchObject([{ jobId: job.id }]);
    // A copy of the job places it, too; one that is put away is a job still.
    await send(bench.url(), "POST", `/jobs/${job.id}/copy`);
    expect((await detail(kept)).usedBy).toHaveLength(2);
  });
});

describe("motifs as files", () => {
  it("go out as an archive and come in byte for byte, once", async () => {
    const archive = await bytesOf("/motifs/archive");
    const contents = async () =>
      (await find("most=200")).motifs.map(({ hash, name, folder, words }) => [hash, name, folder, words]);
    const before = await contents();
    const fresh = await startBench();
    try {
      const { status, body } = await send(fresh.url(), "POST", "/motifs/files?name=motifs.zip", archive);
      expect([status, motifImportSchema.parse(body).kept.every(({ isNew }) => isNew)]).toEqual([201, true]);
      const there = motifPageSchema.parse((await send(fresh.url(), "GET", "/motifs?most=200")).body);
      expect(there.motifs.map(({ hash, name, folder, words }) => [hash, name, folder, words])).toEqual(before);
      const again = Buffer.from(await (await fetch(`${fresh.url()}/api/motifs/archive`)).arrayBuffer());
      expect(again.equals(archive)).toBe(true);
      const twice = await send(fresh.url(), "POST", "/motifs/files?name=motifs.zip", archive);
      expect(motifImportSchema.parse(twice.body).kept.some(({ isNew }) => isNew)).toBe(false);
    } finally {
      await fresh.stop();
    }
    // Read by an independent reader of ZIPs, each is an SVG.
    const names = await listedIn(archive);
    expect(names).toEqual(Object.keys(unzipSync(archive)));
  });
  it("refuses 500 damaged archives with the reason, and takes nothing over", async () => {
    const archive = await bytesOf("/motifs/archive");
    const before = (await find()).total;
    for (let seed = 0; seed < 500; seed++) {
      const damaged = mutate(archive, seed);
      if (damaged.equals(archive)) continue;
      const { status, body } = await takeIn(damaged, "motifs.zip");
      expect([seed, status < 500 && status >= 400, (problemSchema.parse(body).detail ?? "").length > 20]).toEqual([
        seed,
        true,
        true,
      ]);
    }
    expect((await find()).total).toBe(before);
  }, 120_000);
  it("brings a single one back with its facts, and its picture shows nothing but it", async () => {
    const { motif } = await keep(squareMotif(24), "Oar & blade", { folder: "Club", words: "row" });
    const file = await bytesOf(`/motifs/${motif.id}/file`);
    const { body } = await takeIn(file, "anything.svg");
    expect(motifImportSchema.parse(body).kept).toMatchObject([{ isNew: false, motif: { name: "Oar & blade" } }]);
    const picture = new Resvg((await bytesOf(`/motifs/contents/${motif.hash}/picture`)).toString()).render();
    expect(picture.width).toBe(Math.round((24 / 25.4) * 96));
  });
});

/** Pixels of two pictures that differ by more than an edge's anti-aliasing, as a share. */
function differing(one: string, other: string, width: number): number {
  const draw = (svg: string) =>
    new Resvg(svg, { fitTo: { mode: "width", value: width }, background: "#ffffff" }).render().pixels;
  const [a, b] = [draw(one), draw(other)];
  let count = 0;
  for (let i = 0; i < a.length; i += 4)
    if (Math.max(...[0, 1, 2].map((c) => Math.abs((a[i + c] ?? 0) - (b[i + c] ?? 0)))) > 96) count++;
  return count / (a.length / 4);
}

const svgOf = (body: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="80mm" height="60mm" viewBox="0 0 160 120">${body}</svg>`;
/** A frame, so that drawn art fills its page and pictures can be laid on each other. */
const FRAME = '<rect x="0" y="0" width="160" height="120" fill="#f5f1e6"/>';

const DRAWN = {
  "shapes over each other, with a hole":
    '<circle cx="60" cy="60" r="40" fill="#d8412f"/><path fill-rule="evenodd" d="M40 20H140V100H40ZM70 40V80H110V40Z" fill="#14304f"/>',
  "strokes with every join and cap":
    '<g fill="none" stroke="#14304f" stroke-width="9"><path d="M15 30L45 12L60 40" /><path d="M75 30L105 12L120 40" stroke-linejoin="round" stroke-linecap="round"/><path d="M20 90L50 70L65 100" stroke-linejoin="bevel" stroke-linecap="square"/><path d="M90 70H140V105H90Z"/></g>',
  "a dashed ring and a sharp corner":
    '<circle cx="60" cy="60" r="40" fill="none" stroke="#d8412f" stroke-width="6" stroke-dasharray="14 7" stroke-dashoffset="5"/><path d="M110 100L118 30L126 100" fill="none" stroke="#14304f" stroke-width="4" stroke-miterlimit="30"/>',
  "turned and flipped groups, quadratics and arcs":
    '<g transform="translate(80 60) rotate(30) scale(-1 .6)"><path d="M-50 0Q0 -80 50 0T40 40Z" fill="#2c6fbb" stroke="#101014" stroke-width="5"/><path d="M-30 10A20 12 30 1 1 10 20Z" fill="#f2b134"/></g>',
  "what a clip leaves":
    '<defs><clipPath id="c"><circle cx="80" cy="60" r="30"/></clipPath></defs><g clip-path="url(#c)"><rect x="40" y="20" width="50" height="90" fill="#d8412f"/><rect x="90" y="20" width="50" height="90" fill="#14304f"/></g>',
} as const;

describe("drawn art from elsewhere", () => {
  it.each(Object.entries(DRAWN))("becomes a motif at its true size: %s", async (name, body) => {
    const svg = svgOf(FRAME + body);
    const { status, body: answer } = await takeIn(Buffer.from(svg), `${name}.svg`);
    expect([status, answer]).toEqual([201, expect.anything()]);
    const [kept] = motifImportSchema.parse(answer).kept;
    expect(kept?.motif).toMatchObject({ name, widthMm: expect.closeTo(80, 3), heightMm: expect.closeTo(60, 3) });
    const picture = (await bytesOf(`/motifs/contents/${kept?.motif.hash}/picture`)).toString();
    expect(differing(svg, picture, 800)).toBeLessThan(0.0006);
    // None lies over another: together they are the page.
    const motif = motifSchema.parse(JSON.parse((await bytesOf(`/motifs/contents/${kept?.motif.hash}`)).toString()));
    expect(motifAreas(motif).reduce((sum, area) => sum + area, 0)).toBeCloseTo(80 * 60, 1);
  });
  it("comes from a PDF as poppler draws it", async () => {
    const svg = svgOf(FRAME + DRAWN["shapes over each other, with a hole"]);
    const pdf = execFileSync("rsvg-convert", ["-f", "pdf"], { input: svg });
    const { body } = await takeIn(pdf, "badge.pdf");
    const [kept] = motifImportSchema.parse(body).kept;
    expect(kept?.motif.widthMm).toBeCloseTo(80, 0);
    const picture = (await bytesOf(`/motifs/contents/${kept?.motif.hash}/picture`)).toString();
    expect(differing(svg, picture, 800)).toBeLessThan(0.001);
  });
  it.each([
    ["half-transparent", '<rect width="50" height="50" fill="#d8412f" opacity=".5"/>', "half-transparent"],
    [
      "shaded",
      '<defs><linearGradient id="g"><stop stop-color="#fff"/><stop offset="1"/></linearGradient></defs><rect width="50" height="50" fill="url(#g)"/>',
      "shades",
    ],
    ["words", '<text x="10" y="50">Ferry</text>', "outlines"],
    ["script", "<script>alert(1)</script>", "script"],
    ["outside", '<image href="http://example.org/a.png" width="5" height="5"/>', "outside"],
    ["nothing", "<g/>", "no shapes"],
  ])("is refused by name where it is no flat shape: %s", async (name, body, reason) => {
    const answer = await takeIn(Buffer.from(svgOf(body)), `${name}.svg`);
    expect([answer.status, problemSchema.parse(answer.body).detail]).toEqual([
      expect.any(Number),
      expect.stringContaining(reason),
    ]);
    expect(answer.status).toBeLessThan(500);
  });
  it("says that pixels are no motif", async () => {
    const { status, body } = await takeIn(await drawPicture(), "photo.png");
    expect([status, problemSchema.parse(body).detail]).toEqual([415, expect.stringContaining("make a job of it")]);
  });
});
