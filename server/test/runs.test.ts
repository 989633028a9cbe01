import { OWN_HEADER, type Run, runSchema } from "@plain-palette/contract";
import { unzipSync } from "fflate";
import { createConnection } from "mysql2/promise";
import { PDFDocument } from "pdf-lib";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type Bench, createJob, drawPicture, readReport, send, startBench, untilRun } from "./bench.test.support.ts";

let bench: Bench;
beforeAll(async () => {
  bench = await startBench();
});
afterAll(() => bench.stop());

async function start(jobId: string, recipeVersion = 1): Promise<Run> {
  return runSchema.parse((await send(bench.url(), "POST", `/jobs/${jobId}/runs`, { recipeVersion })).body);
}

describe("a run", () => {
  it("makes the films of a recipe, telling its progress as server-sent events", async () => {
    const job = await createJob(bench.url(), await drawPicture());
    const run = await start(job.id);
    const events = await fetch(`${bench.url()}/api/runs/${run.id}/events`);
    expect(events.headers.get("content-type")).toContain("text/event-stream");
    const told = (await events.text())
      .trim()
      .split("\n\n")
      .map((event) => runSchema.parse(JSON.parse(event.replace(/^data: /, ""))));
    expect(told.at(-1)?.state).toBe("done");
    expect(told.at(-1)?.files.map((file) => file.name)).toEqual([
      "films.pdf",
      "recipe.json",
      "report.json",
      "separations.pdf",
      "separations.svg",
      "shapes.svg",
    ]);
    const films = await fetch(`${bench.url()}/api/runs/${run.id}/files/films.pdf`);
    expect(films.headers.get("content-disposition")).toContain("films.pdf");
    const pdf = await PDFDocument.load(await films.arrayBuffer());
    const report = await readReport(bench.url(), run);
    expect(pdf.getPageCount()).toBe(report.plates.length);
    // White is the garment's own colour.
    expect(pdf.getPageCount()).toBe(2);
    const archive = await fetch(
      `${bench.url()}/api/runs/${run.id}/archive?as=${encodeURIComponent("7 Crew shirts.zip")}`,
    );
    expect(archive.headers.get("content-disposition")).toContain("7 Crew shirts.zip");
    const files = unzipSync(new Uint8Array(await archive.arrayBuffer()));
    expect(Object.keys(files).sort()).toEqual(told.at(-1)?.files.map((file) => file.name));
    expect(JSON.parse(new TextDecoder().decode(files["report.json"]))).toEqual(report);
  });

  it("is stopped, whether it waits or works", async () => {
    const job = await createJob(bench.url(), await drawPicture(5, 5000));
    const [working, waiting] = [await start(job.id), await start(job.id)];
    await untilRun(bench.url(), working.id, ["running"]);
    await send(bench.url(), "POST", `/runs/${waiting.id}/stop`);
    await send(bench.url(), "POST", `/runs/${working.id}/stop`);
    for (const { id } of [working, waiting]) {
      const run = await untilRun(bench.url(), id, ["stopped", "done"]);
      expect(run).toMatchObject({ state: "stopped", files: [] });
    }
    // The thread that was ended is replaced.
    const small = await createJob(bench.url(), await drawPicture(6));
    expect((await untilRun(bench.url(), (await start(small.id)).id, ["done", "failed"])).state).toBe("done");
  });

  it("left by a server that was killed is taken up again and finished", async () => {
    const job = await createJob(bench.url(), await drawPicture(7, 4000));
    const run = await start(job.id);
    await untilRun(bench.url(), run.id, ["running"]);
    await bench.killServer();
    expect((await untilRun(bench.url(), run.id, ["done", "failed"])).state).toBe("done");
  });
});

describe("who waits for runs", () => {
  const order = (jobId: string, by: string) =>
    fetch(`${bench.url()}/api/jobs/${jobId}/runs`, {
      method: "POST",
      body: JSON.stringify({ recipeVersion: 1 }),
      headers: { "Content-Type": "application/json", [OWN_HEADER]: by },
    }).then(async (response) => runSchema.parse(await response.json()));
  const ask = async (sql: string, values: readonly unknown[]) => {
    const connection = await createConnection(bench.databaseUrl());
    return (await connection.query(sql, [...values]).finally(() => connection.end()))[0];
  };

  it("one who orders many does not keep another waiting for all of them", async () => {
    const job = await createJob(bench.url(), await drawPicture(8, 3000));
    const many = [];
    for (let i = 0; i < 8; i++) many.push(await order(job.id, "many"));
    const one = await order(job.id, "one");
    expect((await untilRun(bench.url(), one.id, ["done"], 120_000)).state).toBe("done");
    const states = await Promise.all(many.map(async ({ id }) => (await send(bench.url(), "GET", `/runs/${id}`)).body));
    expect(states.map((run) => runSchema.parse(run).state)).toContain("queued");
    for (const { id } of many) await send(bench.url(), "POST", `/runs/${id}/stop`);
    for (const { id } of many) await untilRun(bench.url(), id, ["stopped", "done"]);
  });

  it("one that ended three servers is not begun again, and says so; what was merely let go of is", async () => {
    const job = await createJob(bench.url(), await drawPicture(9));
    const run = await order(job.id, "unlucky");
    await untilRun(bench.url(), run.id, ["done"]);
    // As three servers that were killed in the middle would have left it.
    const left =
      "UPDATE runs SET state = 'running', attempts = ?, heartbeat_at = UTC_TIMESTAMP(3) - INTERVAL 1 MINUTE WHERE id = ?";
    await ask("DELETE FROM run_files WHERE run_id = ?", [run.id]);
    await ask(left, [2, run.id]);
    await untilRun(bench.url(), run.id, ["done"]);
    await ask("DELETE FROM run_files WHERE run_id = ?", [run.id]);
    await ask(left, [3, run.id]);
    const failed = await untilRun(bench.url(), run.id, ["failed"]);
    expect(failed.error).toMatch(/begun 3 times/);
  });

  it("sixty windows that watch ask the database as often as one", async () => {
    const job = await createJob(bench.url(), await drawPicture(10));
    const run = await order(job.id, "watched");
    await untilRun(bench.url(), run.id, ["done"]);
    await ask(
      "UPDATE runs SET state = 'running', attempts = 0, heartbeat_at = UTC_TIMESTAMP(3) + INTERVAL 1 HOUR WHERE id = ?",
      [run.id],
    );
    const questions = async () => {
      const rows = (await ask("SHOW GLOBAL STATUS LIKE 'Com_select'", [])) as { Value: string }[];
      return Number(rows[0]?.Value);
    };
    const countFor = async (windows: number) => {
      const abort = new AbortController();
      const open = await Promise.all(
        Array.from({ length: windows }, () =>
          fetch(`${bench.url()}/api/runs/${run.id}/events`, { signal: abort.signal }),
        ),
      );
      const before = await questions();
      await new Promise((resolve) => setTimeout(resolve, 2000));
      const after = await questions();
      abort.abort();
      expect(open.every(({ status }) => status === 200)).toBe(true);
      return after - before;
    };
    const one = await countFor(1);
    // Each asking for itself, they would ask some 240 times a second.
    expect(await countFor(60)).toBeLessThanOrEqual(2 * one + 20);
    await send(bench.url(), "POST", `/runs/${run.id}/stop`);
    await ask("UPDATE runs SET state = 'stopped' WHERE id = ?", [run.id]);
  });
});

describe("a run that takes too long", () => {
  it("is ended with words that say what to do, and the next one is made", async () => {
    const hasty = await startBench({ MAKING_S: "3" });
    try {
      const order = async (job: string) =>
        runSchema.parse((await send(hasty.url(), "POST", `/jobs/${job}/runs`, { recipeVersion: 1 })).body);
      const large = await createJob(hasty.url(), await drawPicture(8, 7000));
      const run = await untilRun(hasty.url(), (await order(large.id)).id, ["done", "failed"]);
      expect(run).toMatchObject({ state: "failed", error: expect.stringMatching(/more time or memory.*try again/) });
      const small = await createJob(hasty.url(), await drawPicture(9, 40));
      // Even the smallest may take longer on a busy machine: tried until one is in time.
      await expect
        .poll(async () => (await untilRun(hasty.url(), (await order(small.id)).id, ["done", "failed"])).state, {
          timeout: 100_000,
        })
        .toBe("done");
    } finally {
      await hasty.stop();
    }
  });
});
