import { createHash, randomUUID } from "node:crypto";
import {
  type Job,
  jobSchema,
  MOST_RECIPE_BYTES,
  OWN_HEADER,
  problemSchema,
  RECIPE_TOO_LARGE,
  seenOf,
  type TicketChange,
} from "@plain-palette/contract";
import { screens } from "@plain-palette/core/screens";
import { createConnection } from "mysql2/promise";
import sharp from "sharp";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type Bench, changeTicket, createJob, drawPicture, listJobs, send, startBench } from "./bench.test.support.ts";

let bench: Bench;
beforeAll(async () => {
  bench = await startBench();
});
afterAll(() => bench.stop());

const save = async (job: Job, basedOn: number, trapMm: number) =>
  send(bench.url(), "POST", `/jobs/${job.id}/recipes`, {
    basedOn,
    recipe: screens.withSettings(job.recipe, { trapMm }),
  });
const move = (job: Job, to: number | null, seen: number) =>
  send(bench.url(), "PUT", `/jobs/${job.id}/head`, { to, seen });

describe("a picture becomes a job", () => {
  it("with the facts of the file, listed on the board, the file kept byte for byte", async () => {
    const picture = await drawPicture();
    const job = await createJob(bench.url(), picture, "crew_shirt-FINAL.png");
    expect(job).toMatchObject({ title: "crew shirt FINAL", step: "artwork", head: 1, undo: null, redo: null });
    expect(job.artwork).toMatchObject({ kind: "png", width: 120, height: 120, bytes: picture.length });
    expect(job.artwork.hash).toBe(createHash("sha256").update(picture).digest("hex"));
    const list = await listJobs(bench.url());
    expect(list.map((card) => card.id)).toContain(job.id);
    const file = await fetch(`${bench.url()}/api/artworks/${job.artwork.hash}/file`);
    expect(Buffer.from(await file.arrayBuffer()).equals(picture)).toBe(true);
    expect(file.headers.get("content-disposition")).toContain("attachment");
    const thumbnail = await fetch(`${bench.url()}/api/artworks/${job.artwork.hash}/thumbnail`);
    expect((await sharp(Buffer.from(await thumbnail.arrayBuffer())).metadata()).width).toBe(120);
  });

  it("whose pixels reach the browser exactly, straight alpha included", async () => {
    const picture = await sharp({
      create: { width: 31, height: 17, channels: 4, background: { r: 200, g: 90, b: 10, alpha: 0.3 } },
    })
      .png()
      .toBuffer();
    const { artwork } = await createJob(bench.url(), picture);
    const response = await fetch(`${bench.url()}/api/artworks/${artwork.hash}/pixels`);
    const pixels = Buffer.from(await response.arrayBuffer());
    const independent = await sharp(picture).raw().toBuffer();
    expect(pixels.equals(independent)).toBe(true);
  });

  it("two jobs of one picture share the artwork", async () => {
    const picture = await drawPicture(3);
    const [one, other] = await Promise.all([createJob(bench.url(), picture), createJob(bench.url(), picture)]);
    expect(one.id).not.toBe(other.id);
    expect(one.artwork.hash).toBe(other.artwork.hash);
  });
});

describe("recipes", () => {
  it("are kept, every version; undo and redo walk them", async () => {
    const job = await createJob(bench.url(), await drawPicture(1));
    const second = jobSchema.parse((await save(job, 1, 0.4)).body);
    expect(second).toMatchObject({ head: 2, undo: 1, redo: null });
    await save(job, 2, 0.5);
    const undone = jobSchema.parse((await move(job, 2, 3)).body);
    expect(undone).toMatchObject({ head: 2, undo: 1, redo: 3 });
    expect(screens.settingsIn(undone.recipe).trapMm).toBe(0.4);
    const redone = jobSchema.parse((await move(job, 3, 2)).body);
    expect(screens.settingsIn(redone.recipe).trapMm).toBe(0.5);
    // A change after undo starts a branch; the old one is kept and redo follows the new one.
    await move(job, 2, 3);
    const branched = jobSchema.parse((await save(job, 2, 0.6)).body);
    expect(branched).toMatchObject({ head: 4, undo: 2, redo: null });
    expect(screens.settingsIn(jobSchema.parse((await move(job, 3, 4)).body).recipe).trapMm).toBe(0.5);
  });

  it("of two people at once are both kept, and the second is told", async () => {
    const job = await createJob(bench.url(), await drawPicture(2));
    const outcomes = await Promise.all([save(job, 1, 0.4), save(job, 1, 0.5)]);
    expect(outcomes.map((outcome) => outcome.status).sort()).toEqual([201, 409]);
    const refused = outcomes.find((outcome) => outcome.status === 409);
    const problem = problemSchema.parse(refused?.body);
    expect(refused?.headers.get("content-type")).toContain("application/problem+json");
    expect(problem).toMatchObject({ head: 2, stored: 3 });
    const theirs = jobSchema.parse((await send(bench.url(), "GET", `/jobs/${job.id}`)).body);
    const ours = jobSchema.parse((await move(job, 3, 2)).body);
    expect([screens.settingsIn(theirs.recipe).trapMm, screens.settingsIn(ours.recipe).trapMm].sort()).toEqual([
      0.4, 0.5,
    ]);
    expect((await move(job, 2, 2)).status).toBe(409);
  });

  it("of an earlier form, from a page that was open since before, are kept in today's", async () => {
    const job = await createJob(bench.url(), await drawPicture(7));
    const { process: _, processes: __, ...common } = job.recipe;
    const { films, ...plates } = screens.settingsIn(job.recipe);
    const recipe = { ...common, format: 1, separations: { ...plates, order: ["d8412f"], trapMm: 0.9 }, output: films };
    const saved = await send(bench.url(), "POST", `/jobs/${job.id}/recipes`, { basedOn: 1, recipe });
    const kept = jobSchema.parse(saved.body).recipe;
    expect(screens.settingsIn(kept)).toEqual({ ...screens.settingsIn(job.recipe), trapMm: 0.9 });
    expect(kept.colours.order).toEqual(["d8412f"]);
  });

  it("that do not fit the schema are refused with the fault", async () => {
    const job = await createJob(bench.url(), await drawPicture(4));
    const { status, body } = await save(job, 1, -3);
    expect(status).toBe(400);
    expect(problemSchema.parse(body).detail).toContain("processes.screens.trapMm");
  });
});

describe("the server's manners", () => {
  it("answers what is not there with a problem document", async () => {
    for (const path of ["/jobs/6f2b1c1e-0000-4000-8000-000000000000", "/nothing", `/artworks/${"0".repeat(64)}/file`]) {
      const { status, body, headers } = await send(bench.url(), "GET", path);
      expect(status).toBe(404);
      expect(headers.get("content-type")).toContain("application/problem+json");
      expect(problemSchema.parse(body).title).toContain("is not here");
    }
  });
  it("refuses versions that are not there, and writes from pages of other sites", async () => {
    const job = await createJob(bench.url(), await drawPicture(5));
    expect((await move(job, 99, 1)).status).toBe(404);
    expect((await send(bench.url(), "POST", `/jobs/${job.id}/runs`, { recipeVersion: 99 })).status).toBe(404);
    const foreign = await fetch(`${bench.url()}/api/jobs?name=x.png`, {
      method: "POST",
      body: new Uint8Array(await drawPicture()),
      headers: { "Sec-Fetch-Site": "cross-site" },
    });
    expect(foreign.status).toBe(403);
  });
  it("takes the largest file there is room for, and gives it back whole", async () => {
    const bytes = Buffer.alloc(4400 * 4400 * 3);
    for (let i = 0; i < bytes.length; i += 4) bytes.writeUInt32LE(Math.imul(i, 2654435761) >>> 0, i);
    const tiff = await sharp(bytes, { raw: { width: 4400, height: 4400, channels: 3 } })
      .tiff({ compression: "none" })
      .toBuffer();
    expect(tiff.length).toBeGreaterThan(58e6);
    const job = await createJob(bench.url(), tiff, "large.tif");
    const back = await fetch(`${bench.url()}/api/artworks/${job.artwork.hash}/file`);
    expect(Buffer.from(await back.arrayBuffer()).equals(tiff)).toBe(true);
  });
  it("is bound to loopback and sends a content security policy without inline or foreign code", async () => {
    expect(bench.url()).toContain("http://127.0.0.1:");
    const { headers } = await send(bench.url(), "GET", "/health");
    const policy = headers.get("content-security-policy") ?? "";
    expect(policy).toContain("default-src 'self'");
    // Compiled code sets lettering; script made from text never runs.
    expect(policy).toContain("script-src 'self' 'wasm-unsafe-eval'");
    expect(policy.replace("'wasm-unsafe-eval'", "")).not.toContain("unsafe");
    expect(headers.get("x-powered-by")).toBeNull();
  });
});

describe("a job as a whole", () => {
  it("is copied with its recipe and its file, and the copy goes its own way", async () => {
    const job = await createJob(bench.url(), await drawPicture(3), "crest.png");
    await save(job, 1, 0.45);
    const copy = jobSchema.parse((await send(bench.url(), "POST", `/jobs/${job.id}/copy`)).body);
    expect(copy).toMatchObject({ title: "crest (copy)", head: 1, undo: null, artwork: { hash: job.artwork.hash } });
    expect(screens.settingsIn(copy.recipe).trapMm).toBe(0.45);
    await save(copy, 1, 0.2);
    const original = jobSchema.parse((await send(bench.url(), "GET", `/jobs/${job.id}`)).body);
    expect(screens.settingsIn(original.recipe).trapMm).toBe(0.45);
  });

  it("is put away and taken out again; nothing of it is gone", async () => {
    const job = await createJob(bench.url(), await drawPicture(4), "apron.png");
    const away = await changeTicket(bench.url(), job.id, { isPutAway: true });
    expect(away.body).toMatchObject({ isPutAway: true, head: 1 });
    expect((await changeTicket(bench.url(), job.id, { isPutAway: false })).body).toMatchObject({
      isPutAway: false,
    });
  });

  it("keeps how its newest version looks; an older picture does not take its place, nor does what is no picture", async () => {
    const job = await createJob(bench.url(), await drawPicture(5), "kite.png");
    await save(job, 1, 0.4);
    const put = (version: number, body: Buffer) =>
      fetch(`${bench.url()}/api/jobs/${job.id}/picture?version=${version}`, {
        method: "PUT",
        body: new Uint8Array(body),
        headers: { "Content-Type": "image/webp", [OWN_HEADER]: "test" },
      });
    const webp = (red: number) =>
      sharp({ create: { width: 9, height: 9, channels: 3, background: { r: red, g: 0, b: 0 } } })
        .webp({ lossless: true })
        .toBuffer();
    expect((await put(2, await webp(200))).status).toBe(204);
    expect((await put(1, await webp(10))).status).toBe(204);
    expect((await put(2, Buffer.from("<svg/>"))).status).toBe(415);
    expect((await put(9, await webp(10))).status).toBe(404);
    const kept = await fetch(`${bench.url()}/api/jobs/${job.id}/picture`);
    const { channels } = await sharp(Buffer.from(await kept.arrayBuffer())).stats();
    expect(channels[0].max).toBe(200);
    const list = await listJobs(bench.url());
    expect(list.find(({ id }) => id === job.id)?.picture).toBe(2);
  });
});

describe("the ticket", () => {
  it("of two who change the same, the second is told; of two who change different things, both are heard", async () => {
    const job = await createJob(bench.url(), await drawPicture(11));
    const patch = (change: TicketChange) => send(bench.url(), "PATCH", `/jobs/${job.id}`, seenOf(job, change));
    expect((await patch({ title: "Sweaters" })).status).toBe(200);
    const late = await patch({ title: "Jumpers", client: "Quay Choir" });
    expect(late.status).toBe(409);
    expect(problemSchema.parse(late.body)).toMatchObject({
      title: "Somebody else changed the title meanwhile",
      detail: 'It is "Sweaters" now.',
    });
    expect((await patch({ client: "Quay Choir" })).body).toMatchObject({ title: "Sweaters", client: "Quay Choir" });
    // How far it is, is as far as anybody brought it, whatever each has seen.
    expect((await patch({ step: "shapes" })).body).toMatchObject({ step: "shapes" });
    expect((await patch({ step: "colours" })).body).toMatchObject({ step: "shapes" });
    expect((await patch({ step: "output" })).body).toMatchObject({ step: "output" });
    // The same twice is said once.
    expect((await patch({ client: "Quay Choir" })).status).toBe(200);
    expect((await send(bench.url(), "PATCH", `/jobs/${job.id}`, { step: "output" })).status).toBe(400);
  });
});

describe("somebody else a moment later", () => {
  it("does not change the answer to a save: it is what was saved", async () => {
    const job = await createJob(bench.url(), await drawPicture(17));
    const [holding, other] = [await createConnection(bench.databaseUrl()), await createConnection(bench.databaseUrl())];
    try {
      // Whoever looks for a job after the save waits for the pictures; meanwhile its head is moved back.
      await holding.query("LOCK TABLES job_pictures WRITE");
      const saving = save(job, 1, 0.44);
      const isSaved = async () => {
        const [rows] = await other.query("SELECT 1 FROM recipes WHERE job_id = ? AND version = 2", [job.id]);
        return (rows as unknown[]).length === 1;
      };
      const end = Date.now() + 1500;
      while (!(await isSaved()) && Date.now() < end) await new Promise((resolve) => setTimeout(resolve, 20));
      const moving = other.query("UPDATE jobs SET head = 1 WHERE id = ?", [job.id]);
      await Promise.race([moving, new Promise((resolve) => setTimeout(resolve, 300))]);
      await holding.query("UNLOCK TABLES");
      const { head, recipe } = jobSchema.parse((await saving).body);
      expect([head, screens.settingsIn(recipe).trapMm]).toEqual([2, 0.44]);
      await moving;
    } finally {
      await Promise.all([holding.end(), other.end()]);
    }
  });
});

describe("what is sent again", () => {
  const recipeWith = (job: Job, trapMm: number) => screens.withSettings(job.recipe, { trapMm });

  it("as the same save is one version, and says what it said the first time", async () => {
    const job = await createJob(bench.url(), await drawPicture(14));
    const saves = `/jobs/${job.id}/recipes`;
    const mine = { saveId: randomUUID(), basedOn: 1, recipe: recipeWith(job, 0.41) };
    const answers = await Promise.all([1, 2, 3].map(() => send(bench.url(), "POST", saves, mine)));
    expect(answers.map(({ status, body }) => [status, jobSchema.parse(body).head])).toEqual([
      [201, 2],
      [201, 2],
      [201, 2],
    ]);
    await save(job, 2, 0.5);
    const late = await send(bench.url(), "POST", saves, mine);
    expect([late.status, problemSchema.parse(late.body)]).toMatchObject([409, { stored: 2, head: 3 }]);
    // Stored beside the head, and once, too.
    const stale = { saveId: randomUUID(), basedOn: 2, recipe: recipeWith(job, 0.6) };
    for (let i = 0; i < 2; i++)
      expect((await send(bench.url(), "POST", saves, stale)).body).toMatchObject({ stored: 4, head: 3 });
    expect((await save(job, 3, 0.7)).body).toMatchObject({ head: 5 });
  });

  it("as the same picture is one job, also while the first is still being read", async () => {
    const id = randomUUID();
    const picture = await drawPicture(15);
    const upload = () => send(bench.url(), "POST", `/jobs?name=once.png&id=${id}`, picture);
    const both = await Promise.all([upload(), upload()]);
    const again = await upload();
    expect([...both, again].map(({ status, body }) => [status, jobSchema.parse(body).id])).toEqual(
      Array(3).fill([201, id]),
    );
    expect((await listJobs(bench.url())).filter((job) => job.title === "once").length).toBe(1);
    expect((await send(bench.url(), "POST", "/jobs?id=mine", picture)).status).toBe(400);
  });

  it("as the same better version of a file is one version", async () => {
    const job = await createJob(bench.url(), await drawPicture(16));
    const better = await drawPicture(16, 240);
    const path = `/jobs/${job.id}/artwork?name=b.png&basedOn=1&saveId=${randomUUID()}`;
    for (let i = 0; i < 2; i++)
      expect((await send(bench.url(), "POST", path, better)).body).toMatchObject({ head: 2, artwork: { width: 240 } });
  });
});

describe("a recipe", () => {
  it("that is too large is refused in its own words, and the version before stays in force", async () => {
    const job = await createJob(bench.url(), await drawPicture(12));
    const recipe = { ...job.recipe, proof: { ...job.recipe.proof, message: "x".repeat(MOST_RECIPE_BYTES) } };
    const refused = await send(bench.url(), "POST", `/jobs/${job.id}/recipes`, { basedOn: 1, recipe });
    expect([refused.status, problemSchema.parse(refused.body).title]).toEqual([413, RECIPE_TOO_LARGE.title]);
    expect(jobSchema.parse((await send(bench.url(), "GET", `/jobs/${job.id}`)).body).head).toBe(1);
  });

  it("with a thousand strokes is stored packed: a version takes a third of what it has in letters, or less", async () => {
    const job = await createJob(bench.url(), await drawPicture(13));
    // As a hand draws, with the decimals of a pointer on a zoomed table.
    const pointsOf = (seed: number) => Array.from({ length: 160 }, (_, i) => 60 + 40 * Math.sin(seed + i / 9));
    const actions = Array.from({ length: 1000 }, (_, i) => ({
      ...{ id: `s${i}`, kind: "stroke", mode: "erase", radiusPx: 2, points: pointsOf(i) },
    }));
    const recipe = { ...job.recipe, artwork: { ...job.recipe.artwork, actions } };
    const sizeOf = async () => {
      const connection = await createConnection(bench.databaseUrl());
      const sql =
        "SELECT SUM(data_length) AS bytes FROM information_schema.tables WHERE table_schema = DATABASE() AND table_name = 'recipes'";
      await connection.query("ANALYZE TABLE recipes");
      const [rows] = await connection.query(sql).finally(() => connection.end());
      return Number((rows as { bytes: unknown }[])[0]?.bytes);
    };
    const before = await sizeOf();
    const letters = JSON.stringify(recipe).length;
    for (let version = 1; version <= 8; version++) {
      const saved = await send(bench.url(), "POST", `/jobs/${job.id}/recipes`, { basedOn: version, recipe });
      expect([saved.status, JSON.stringify(saved.body).slice(0, 300)]).toEqual([201, expect.any(String)]);
    }
    expect(letters).toBeGreaterThan(1_500_000);
    expect((await sizeOf()) - before).toBeLessThan((8 * letters) / 3);
  });
});
