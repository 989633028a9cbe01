import { type Job, jobSchema } from "@plain-palette/contract";
import { screens } from "@plain-palette/core/screens";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type Bench, createJob, drawPicture, listJobs, send, startBench } from "./bench.test.support.ts";

let bench: Bench;
beforeAll(async () => {
  bench = await startBench();
});
afterAll(() => bench.stop());

function save(job: Job, basedOn: number, trapMm: number) {
  const recipe = screens.withSettings(job.recipe, { trapMm });
  return send(bench.url(), "POST", `/jobs/${job.id}/recipes`, { basedOn, recipe });
}

describe("nothing that was acknowledged is lost", () => {
  it("when the server is killed in the middle of saving", async () => {
    const job = await createJob(bench.url(), await drawPicture());
    let acknowledged = 1;
    let isKilled = false;
    const saving = (async () => {
      while (!isKilled) {
        try {
          const { status } = await save(job, acknowledged, acknowledged / 100);
          if (status === 201) acknowledged++;
        } catch {
          // The connection broke: this save was not acknowledged.
        }
      }
    })();
    await expect.poll(() => acknowledged, { timeout: 60_000 }).toBeGreaterThan(5);
    const killed = bench.killServer();
    isKilled = true;
    await Promise.all([saving, killed]);
    const after = jobSchema.parse((await send(bench.url(), "GET", `/jobs/${job.id}`)).body);
    // One more may have been stored without its answer getting out.
    expect([acknowledged, acknowledged + 1]).toContain(after.head);
    const { body } = await send(bench.url(), "PUT", `/jobs/${job.id}/head`, { to: acknowledged, seen: after.head });
    expect(screens.settingsIn(jobSchema.parse(body).recipe).trapMm).toBeCloseTo((acknowledged - 1) / 100, 9);
  });

  it("when the server is killed in the middle of uploads", async () => {
    const acknowledged: string[] = [];
    let isKilled = false;
    const uploading = (async () => {
      for (let seed = 0; !isKilled; seed++) {
        try {
          acknowledged.push((await createJob(bench.url(), await drawPicture(seed, 200 + seed))).id);
        } catch {
          // Not acknowledged.
        }
      }
    })();
    while (acknowledged.length < 4) await new Promise((resolve) => setTimeout(resolve, 20));
    const killed = bench.killServer();
    isKilled = true;
    await Promise.all([uploading, killed]);
    expect(acknowledged.length).toBeGreaterThan(1);
    const list = await listJobs(bench.url());
    const kept = list.map((job) => job.id);
    for (const id of acknowledged) expect(kept).toContain(id);
    for (const job of list) {
      const file = await fetch(`${bench.url()}/api/artworks/${job.artwork.hash}/file`);
      expect((await file.arrayBuffer()).byteLength).toBe(job.artwork.bytes);
    }
  });

  it("when MariaDB is restarted under the running server", async () => {
    const job = await createJob(bench.url(), await drawPicture(9));
    await save(job, 1, 0.7);
    await bench.stopDatabase();
    const away = await save(job, 2, 0.8);
    expect(away.status).toBe(503);
    expect(away.body).toMatchObject({ title: expect.stringContaining("database is away") });
    await bench.startDatabase();
    const back = await save(job, 2, 0.9);
    expect(back.status).toBe(201);
    expect(jobSchema.parse(back.body)).toMatchObject({ head: 3, undo: 2 });
    expect(bench.server().child.exitCode).toBeNull();
  });
});
