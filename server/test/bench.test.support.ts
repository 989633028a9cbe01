// A throw-away MariaDB and a real server process, for the server's tests.
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import {
  boardSchema,
  type Job,
  type JobCard,
  jobSchema,
  OWN_HEADER,
  type Run,
  runSchema,
  seenOf,
  type TicketChange,
} from "@plain-palette/contract";
import sharp from "sharp";
import { z } from "zod";
import { type MariaDb, startMariaDb } from "../../tools/database/mariadb.ts";
import { type ServerProcess, startServer } from "../../tools/server-process.ts";

export interface Bench {
  url(): string;
  server(): ServerProcess;
  /** Where the database is. */
  databaseUrl(): string;
  /** SIGKILL, then a new server on the same database. */
  killServer(): Promise<void>;
  /** The database ends; the server stays. */
  stopDatabase(): Promise<void>;
  /** The database comes back where it was. */
  startDatabase(): Promise<void>;
  stop(): Promise<void>;
}

/** `more`: what the server is told besides. */
export async function startBench(more: Record<string, string> = {}): Promise<Bench> {
  const folder = mkdtempSync(join(tmpdir(), "plain-palette-test-"));
  let database: MariaDb = await startMariaDb(folder);
  const port = Number(new URL(database.url).port);
  const environment = { DATABASE_URL: database.url, PORT: "0", ...more };
  let server = await startServer(environment);
  return {
    url: () => server.url,
    server: () => server,
    databaseUrl: () => database.url,
    async killServer() {
      await server.kill();
      server = await startServer(environment);
    },
    stopDatabase: () => database.stop(),
    async startDatabase() {
      database = await startMariaDb(folder, port);
    },
    async stop() {
      await server.stop();
      await database.stop();
      rmSync(folder, { recursive: true });
    },
  };
}

/** A sound picture; different `seed`s give different bytes. */
export function drawPicture(seed = 0, size = 120): Promise<Buffer> {
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 120 120" width="${size}" height="${size}"><rect width="120" height="120" fill="#fff"/><circle cx="${50 + (seed % 20)}" cy="60" r="40" fill="#d8412f"/><path d="M20 20L100 40L60 110Z" fill="#14304f"/></svg>`;
  return sharp(Buffer.from(svg)).png().toBuffer();
}

export async function send(
  url: string,
  method: string,
  path: string,
  body?: unknown,
): Promise<{ status: number; body: unknown; headers: Headers }> {
  const isRaw = body instanceof Uint8Array;
  const response = await fetch(`${url}/api${path}`, {
    method,
    body: body === undefined ? undefined : isRaw ? new Uint8Array(body) : JSON.stringify(body),
    headers: { "Content-Type": isRaw ? "application/octet-stream" : "application/json", [OWN_HEADER]: "test" },
  });
  const text = await response.text();
  return { status: response.status, body: text === "" ? null : JSON.parse(text), headers: response.headers };
}

export async function createJob(url: string, picture: Buffer, name = "logo.png"): Promise<Job> {
  const { status, body } = await send(url, "POST", `/jobs?name=${encodeURIComponent(name)}`, picture);
  if (status !== 201) throw new Error(`upload refused: ${JSON.stringify(body)}`);
  return jobSchema.parse(body);
}

/** The newest jobs on the board, as many as it lists at once. */
export async function listJobs(url: string): Promise<JobCard[]> {
  return boardSchema.parse((await send(url, "GET", "/board?most=500")).body).jobs;
}

/** Changes the ticket of a job as it stands now. */
export async function changeTicket(url: string, id: string, change: TicketChange) {
  const now = jobSchema.parse((await send(url, "GET", `/jobs/${id}`)).body);
  return send(url, "PATCH", `/jobs/${id}`, seenOf(now, change));
}

/** Polls a run until it is in one of the given states. */
export async function untilRun(
  url: string,
  id: string,
  states: readonly Run["state"][],
  patienceMs = 40_000,
): Promise<Run> {
  for (const end = Date.now() + patienceMs; ; ) {
    const run = runSchema.parse((await send(url, "GET", `/runs/${id}`)).body);
    if (states.includes(run.state)) return run;
    if (Date.now() > end) throw new Error(`the run is still ${run.state}: ${run.stage}`);
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
}

const reportSchema = z.looseObject({
  image: z.object({ width: z.number(), height: z.number() }),
  spots: z.array(z.looseObject({ hex: z.string() })),
  plates: z.array(z.unknown()),
  warnings: z.array(z.string()),
});

/** What these tests look at in a run's report. */
export async function readReport(url: string, run: Run): Promise<z.infer<typeof reportSchema>> {
  return reportSchema.parse(await (await fetch(`${url}/api/runs/${run.id}/files/report.json`)).json());
}
