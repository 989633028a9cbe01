// Scripted people who work on jobs over HTTP and remember what was acknowledged; and whether all of it is there afterwards.
import { type Job, jobSchema, OWN_HEADER, problemSchema } from "@plain-palette/contract";
import { screens } from "@plain-palette/core/screens";
import { createConnection } from "mysql2/promise";

/** A version that the server said it has, and what was in it. */
interface Acknowledged {
  readonly job: string;
  readonly version: number;
  readonly trapMm: number;
}

export interface Diary {
  readonly acknowledged: Acknowledged[];
  /** How long each acknowledged edit took, ms. */
  readonly tookMs: number[];
  /** Answers that were neither yes, nor a conflict, nor "away for a moment". */
  readonly errors: string[];
  /** How often nobody answered, or said that it is away, or that its disk is full. */
  away: number;
  conflicts: number;
}

export const makeDiary = (): Diary => ({ acknowledged: [], tookMs: [], errors: [], away: 0, conflicts: 0 });

async function ask(url: string, method: string, path: string, body?: unknown, by = "trial") {
  const response = await fetch(`${url}/api${path}`, {
    method,
    headers: { "Content-Type": "application/json", [OWN_HEADER]: by },
    signal: AbortSignal.timeout(30_000),
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });
  return { status: response.status, body: await response.json() };
}

export async function makeJobs(url: string, count: number): Promise<Job[]> {
  const jobs: Job[] = [];
  for (let i = 0; i < count; i++) {
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="90" height="90"><circle cx="${30 + i}" cy="45" r="25" fill="#d8412f"/></svg>`;
    const response = await fetch(`${url}/api/jobs?name=trial-${i}.svg`, {
      method: "POST",
      headers: { "Content-Type": "application/octet-stream", [OWN_HEADER]: "trial" },
      body: svg,
    });
    if (response.status !== 201) throw new Error(`a job is refused: ${await response.text()}`);
    jobs.push(jobSchema.parse(await response.json()));
  }
  return jobs;
}

/** Away for a moment, and a full disk. */
const NOT_NOW: ReadonlySet<number> = new Set([503, 507]);

let edits = 0;

/** One person: opens a job, changes it, rests; until told to stop. `pauseMs` is the middle of the rests. */
export async function work(
  url: string,
  jobs: readonly Job[],
  diary: Diary,
  { isOver, pauseMs, by }: { isOver(): boolean; pauseMs: number; by: string },
): Promise<void> {
  while (!isOver()) {
    const { id } = jobs[Math.floor(Math.random() * jobs.length)] ?? { id: "" };
    try {
      const opened = await ask(url, "GET", `/jobs/${id}`, undefined, by);
      if (opened.status === 200) await edit(url, jobSchema.parse(opened.body), diary, by);
      else if (NOT_NOW.has(opened.status)) diary.away++;
      else diary.errors.push(`GET ${opened.status} ${JSON.stringify(opened.body).slice(0, 200)}`);
    } catch {
      diary.away++;
    }
    await new Promise((resolve) => setTimeout(resolve, pauseMs * (0.5 + Math.random())));
  }
}

async function edit(url: string, job: Job, diary: Diary, by: string): Promise<void> {
  // Each edit is told from every other by its number.
  const trapMm = (++edits % 100_000) / 100_000;
  const started = performance.now();
  const recipe = screens.withSettings(job.recipe, { trapMm });
  const saved = await ask(url, "POST", `/jobs/${job.id}/recipes`, { basedOn: job.head, recipe }, by);
  if (saved.status === 201) {
    diary.tookMs.push(performance.now() - started);
    diary.acknowledged.push({ job: job.id, version: jobSchema.parse(saved.body).head, trapMm });
  } else if (saved.status === 409) {
    diary.conflicts++;
    // Kept beside the head, as the answer says.
    diary.acknowledged.push({ job: job.id, version: problemSchema.parse(saved.body).stored ?? 0, trapMm });
  } else if (NOT_NOW.has(saved.status)) diary.away++;
  else diary.errors.push(`POST ${saved.status} ${JSON.stringify(saved.body).slice(0, 200)}`);
}

export interface Audit {
  readonly lost: number;
  readonly brokenChains: number;
  readonly versions: number;
}

/** Looks up everything that was acknowledged, in the database itself, and whether each job's versions are a whole tree. */
export async function audit(databaseUrl: string, diary: Diary): Promise<Audit> {
  const connection = await createConnection(databaseUrl);
  try {
    const [rows] = await connection.query(
      "SELECT job_id, version, parent, JSON_VALUE(body, '$.processes.screens.trapMm') AS trap FROM recipes",
    );
    const [heads] = await connection.query("SELECT id, head FROM jobs");
    const versions = rows as { job_id: string; version: number; parent: number | null; trap: string | null }[];
    const kept = new Map(versions.map((row) => [`${row.job_id} ${row.version}`, row]));
    const lost = diary.acknowledged.filter(({ job, version, trapMm }) => {
      const row = kept.get(`${job} ${version}`);
      return !row || Math.abs(Number(row.trap) - trapMm) > 1e-9;
    });
    const orphans = versions.filter(({ job_id, parent }) => parent !== null && !kept.has(`${job_id} ${parent}`));
    const headless = (heads as { id: string; head: number }[]).filter(({ id, head }) => !kept.has(`${id} ${head}`));
    return { lost: lost.length, brokenChains: orphans.length + headless.length, versions: versions.length };
  } finally {
    await connection.end();
  }
}

/** The value below which a share of all lies, rounded. */
export function quantile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return Math.round(sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? 0);
}
