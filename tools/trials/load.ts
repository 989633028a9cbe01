// Twenty people on fifty jobs: edits are soon acknowledged, none is refused and none is lost.
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { isOver, OWN_HEADER, type Run, runSchema } from "@plain-palette/contract";
import { buildServer } from "../build.ts";
import { startMariaDb } from "../database/mariadb.ts";
import { startServer } from "../server-process.ts";
import { audit, makeDiary, makeJobs, quantile, work } from "./people.ts";
import { startSupervised } from "./supervised.ts";

const PEOPLE = 20;
const JOBS = 50;
/** Between two edits of one person, ms in the middle. */
const PAUSE_MS = 1000;

/** Prints and returns the figures. */
export async function trialOfLoad(seconds: number) {
  const shop = await startSupervised();
  try {
    const figures = await workFor(seconds, [shop.url], shop.databaseUrl());
    console.log(figures);
    return figures;
  } finally {
    await shop.stop();
  }
}

/** The same with two servers on one database, half of the people at each, who order files, too. */
export async function trialOfPair(seconds: number) {
  const folder = mkdtempSync(join(tmpdir(), "plain-palette-pair-"));
  await buildServer();
  const database = await startMariaDb(folder);
  const start = () => startServer({ DATABASE_URL: database.url, PORT: "0", CLIENT_PORT: "0" });
  // Both at once, on an empty database: one of them makes the tables.
  const servers = await Promise.all([start(), start()]);
  const urls = servers.map(({ url }) => url);
  try {
    const figures = { ...(await workFor(seconds, urls, database.url)), ...(await makeFilesOn(urls)) };
    console.log(figures);
    return figures;
  } finally {
    await Promise.all(servers.map((server) => server.stop()));
    await database.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Lets people work, by turns at the servers. */
async function workFor(seconds: number, urls: readonly string[], databaseUrl: string) {
  const jobs = await makeJobs(urls[0] ?? "", JOBS);
  const diary = makeDiary();
  const end = Date.now() + seconds * 1000;
  const isOver = () => Date.now() > end;
  await Promise.all(
    Array.from({ length: PEOPLE }, (_, i) =>
      work(urls[i % urls.length] ?? "", jobs, diary, { isOver, pauseMs: PAUSE_MS, by: `person ${i}` }),
    ),
  );
  for (const error of diary.errors.slice(0, 5)) console.log(error);
  return {
    seconds,
    edits: diary.tookMs.length,
    medianMs: quantile(diary.tookMs, 0.5),
    p95Ms: quantile(diary.tookMs, 0.95),
    p99Ms: quantile(diary.tookMs, 0.99),
    mostMs: quantile(diary.tookMs, 1),
    conflicts: diary.conflicts,
    errors: diary.errors.length + diary.away,
    ...(await audit(databaseUrl, diary)),
  };
}

/** Files of as many jobs, ordered at every server by turns and asked for at another. */
const RUNS = 12;

async function makeFilesOn(urls: readonly string[]) {
  const jobs = await makeJobs(urls[0] ?? "", RUNS);
  const started = performance.now();
  const made = await Promise.all(
    jobs.map(async ({ id }, i) => {
      const ordered = await order(urls[i % urls.length] ?? "", id, `person ${i}`);
      return untilOver(urls[(i + 1) % urls.length] ?? "", ordered.id);
    }),
  );
  return {
    runs: made.filter(({ state, files }) => state === "done" && files.length > 0).length,
    runsNotDone: made.filter(({ state }) => state !== "done").length,
    runsTookMs: Math.round(performance.now() - started),
  };
}

async function order(url: string, job: string, by: string): Promise<Run> {
  const response = await fetch(`${url}/api/jobs/${job}/runs`, {
    method: "POST",
    headers: { "Content-Type": "application/json", [OWN_HEADER]: by },
    body: JSON.stringify({ recipeVersion: 1 }),
  });
  return runSchema.parse(await response.json());
}

async function untilOver(url: string, id: string): Promise<Run> {
  for (;;) {
    const run = runSchema.parse(await (await fetch(`${url}/api/runs/${id}`)).json());
    if (isOver(run.state)) return run;
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
}
