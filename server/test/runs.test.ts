import { type Run, runSchema } from "@plain-palette/contract";
import { unzipSync } from "fflate";
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
