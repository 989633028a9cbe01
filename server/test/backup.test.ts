// All that the shop has, as one file and back: of one moment while people work, refused when it is not as it was written.
import { execFile, execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { jobSchema } from "@plain-palette/contract";
import { screens } from "@plain-palette/core/screens";
import { afterAll, beforeAll, expect, it } from "vitest";
import { startMariaDb } from "../../tools/database/mariadb.ts";
import { ROOT, startServer } from "../../tools/server-process.ts";
import { type Bench, createJob, drawPicture, listJobs, send, startBench } from "./bench.test.support.ts";
import { mutate } from "./mutate.test.support.ts";

const folder = mkdtempSync(join(tmpdir(), "plain-palette-backup-"));
let bench: Bench;
beforeAll(async () => {
  bench = await startBench();
});
afterAll(async () => {
  await bench.stop();
  rmSync(folder, { recursive: true });
});

/** By the commands themselves; what they say, on whichever channel. */
function run(way: "backup" | "restore", file: string, databaseUrl: string): { isGood: boolean; said: string } {
  const options = {
    cwd: ROOT,
    env: { ...process.env, DATABASE_URL: databaseUrl },
    encoding: "utf8",
    stdio: "pipe",
  } as const;
  try {
    return { isGood: true, said: execFileSync("npx", ["tsx", "tools/backup.ts", way, file], options) };
  } catch (error) {
    return { isGood: false, said: error instanceof Error && "stderr" in error ? `${error.stderr}` : `${error}` };
  }
}

it("a backup of a shop at work is of one moment, and a shop that is made from it has everything to the byte", async () => {
  const pictures = await Promise.all([1, 2, 3].map((seed) => drawPicture(seed, 400)));
  const jobs = [];
  for (const picture of pictures) jobs.push(await createJob(bench.url(), picture));
  const [first] = jobs;
  if (!first) throw new Error("no job");
  let head = 1;
  let isOver = false;
  const working = (async () => {
    while (!isOver) {
      const recipe = screens.withSettings(first.recipe, { trapMm: head / 100 });
      const { status } = await send(bench.url(), "POST", `/jobs/${first.id}/recipes`, { basedOn: head, recipe });
      if (status === 201) head++;
      await new Promise((resolve) => setTimeout(resolve, 5));
    }
  })();
  const file = join(folder, "shop.sql.gz");
  const before = head;
  // Not in this process: it has to go on working meanwhile.
  await new Promise<void>((resolve, reject) => {
    const env = { ...process.env, DATABASE_URL: bench.databaseUrl() };
    execFile("npx", ["tsx", "tools/backup.ts", "backup", file], { cwd: ROOT, env }, (error) =>
      error ? reject(error) : resolve(),
    );
  });
  isOver = true;
  await working;
  expect(head).toBeGreaterThan(before + 5);

  const other = mkdtempSync(join(tmpdir(), "plain-palette-restored-"));
  const database = await startMariaDb(other);
  expect(run("restore", file, database.url)).toMatchObject({ isGood: true });
  expect(run("restore", file, database.url)).toMatchObject({
    isGood: false,
    said: expect.stringContaining("something in this database already"),
  });
  const shop = await startServer({ DATABASE_URL: database.url, PORT: "0" });
  const list = await listJobs(shop.url);
  expect(list.map(({ id }) => id).sort()).toEqual(jobs.map(({ id }) => id).sort());
  for (const [i, job] of jobs.entries()) {
    const kept = await fetch(`${shop.url}/api/artworks/${job.artwork.hash}/file`);
    expect(Buffer.from(await kept.arrayBuffer()).equals(pictures[i] ?? Buffer.alloc(0))).toBe(true);
  }
  const restored = jobSchema.parse((await send(shop.url, "GET", `/jobs/${first.id}`)).body);
  expect(restored.head).toBeGreaterThanOrEqual(before);
  expect(restored.head).toBeLessThanOrEqual(head);
  // The version in force is the one that the head names: all of one moment.
  expect(screens.settingsIn(restored.recipe).trapMm).toBeCloseTo((restored.head - 1) / 100, 9);
  await shop.stop();
  await database.stop();
  rmSync(other, { recursive: true });
});

it("one that is not as it was written is refused, and nothing of it is taken", async () => {
  const file = join(folder, "whole.sql.gz");
  expect(run("backup", file, bench.databaseUrl()).isGood).toBe(true);
  expect(run("backup", file, bench.databaseUrl())).toMatchObject({
    isGood: false,
    said: expect.stringContaining("is there already"),
  });
  const other = mkdtempSync(join(tmpdir(), "plain-palette-refused-"));
  const database = await startMariaDb(other);
  const whole = readFileSync(file);
  for (const [i, bytes] of [
    whole.subarray(0, whole.length - 9),
    mutate(whole, 3),
    Buffer.from("-- nothing"),
    Buffer.alloc(0),
  ].entries()) {
    const bad = join(folder, `bad-${i}.sql.gz`);
    writeFileSync(bad, bytes);
    expect(run("restore", bad, database.url)).toMatchObject({
      isGood: false,
      said: expect.stringContaining("not as it was written"),
    });
  }
  expect(run("restore", join(folder, "none"), database.url).said).toContain("There is no file");
  expect(run("restore", file, database.url).isGood).toBe(true);
  await database.stop();
  rmSync(other, { recursive: true });
});
