import { execFileSync } from "node:child_process";
import { type Job, jobSchema, placementListSchema, problemSchema, shopPlacementSchema } from "@plain-palette/contract";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type Bench, createJob, drawPicture, readReport, send, startBench, untilRun } from "./bench.test.support.ts";

let bench: Bench;
beforeAll(async () => {
  bench = await startBench();
});
afterAll(() => bench.stop());

const PICK = { id: "a", kind: "pick", seeds: [{ x: 3, y: 3 }], hex: "#ffffff" };
const CROP = { id: "b", kind: "crop", x: 10, y: 10, width: 100, height: 90 };

const SIMPLIFY = { id: "c", kind: "simplify", tolerancePx: 0.5, scope: { kind: "shape", at: { x: 20, y: 30 } } };

async function withActions(job: Job): Promise<Job> {
  const recipe = {
    ...job.recipe,
    artwork: { ...job.recipe.artwork, actions: [PICK, CROP] },
    shapes: { ...job.recipe.shapes, entries: [SIMPLIFY] },
  };
  const saved = await send(bench.url(), "POST", `/jobs/${job.id}/recipes`, { basedOn: job.head, recipe });
  return jobSchema.parse(saved.body);
}

const replace = (job: Job, picture: Buffer, basedOn = job.head) =>
  send(bench.url(), "POST", `/jobs/${job.id}/artwork?name=better.png&basedOn=${basedOn}`, picture);

describe("a better version of the client's file", () => {
  it("takes the place of the old one with the recipe grown to it; undo brings the old one back, byte for byte", async () => {
    const first = await createJob(bench.url(), await drawPicture(2));
    const job = await withActions(first);
    const { status, body } = await replace(job, await drawPicture(2, 360));
    expect(status).toBe(201);
    const replaced = jobSchema.parse(body);
    expect(replaced.artwork).toMatchObject({ width: 360, fileName: "better.png" });
    expect(replaced.recipe.artwork.actions).toMatchObject([
      { kind: "pick", seeds: [{ x: 9, y: 9 }] },
      { kind: "crop", x: 30, y: 30, width: 300, height: 270 },
    ]);
    expect(replaced.recipe.shapes.entries).toMatchObject([{ tolerancePx: 0.5, scope: { at: { x: 60, y: 90 } } }]);
    const undone = jobSchema.parse(
      (await send(bench.url(), "PUT", `/jobs/${job.id}/head`, { to: replaced.undo, seen: replaced.head })).body,
    );
    expect(undone.artwork.hash).toBe(first.artwork.hash);
    expect(undone.recipe).toEqual(job.recipe);
    const file = await fetch(`${bench.url()}/api/artworks/${undone.artwork.hash}/file`);
    expect(Buffer.from(await file.arrayBuffer()).equals(await drawPicture(2))).toBe(true);
  });

  it("a bad file changes nothing; a change in between is kept beside it", async () => {
    const job = await createJob(bench.url(), await drawPicture(3));
    expect((await replace(job, Buffer.from("no picture"))).status).toBe(415);
    expect(jobSchema.parse((await send(bench.url(), "GET", `/jobs/${job.id}`)).body).head).toBe(job.head);
    await withActions(job);
    const stale = await replace(job, await drawPicture(4));
    expect(stale.status).toBe(409);
    expect(problemSchema.parse(stale.body)).toMatchObject({ stored: 3, head: 2 });
  });

  it("films are made of the file and the actions of their version", async () => {
    const job = await withActions(await createJob(bench.url(), await drawPicture(5)));
    const { body } = await send(bench.url(), "POST", `/jobs/${job.id}/runs`, { recipeVersion: job.head });
    const run = await untilRun(bench.url(), (body as { id: string }).id, ["done"]);
    const report = await readReport(bench.url(), run);
    // The crop's size, and no white: it was picked away.
    expect(report.image).toEqual({ width: 100, height: 90 });
    expect(report.spots.map((spot) => spot.hex)).not.toContain("#ffffff");
  });
});

describe("pages", () => {
  it("each page of a file has its pixels, with their size before them", async () => {
    const ps = `%!PS\n<< /PageSize [120 60] >> setpagedevice 0 0 60 60 rectfill showpage << /PageSize [60 120] >> setpagedevice 0 0 60 60 rectfill showpage`;
    const pdf = execFileSync("gs", ["-q", "-dNOPAUSE", "-dBATCH", "-sDEVICE=pdfwrite", "-o", "-", "-"], { input: ps });
    const job = await createJob(bench.url(), pdf, "two pages.pdf");
    expect(job.artwork).toMatchObject({ kind: "pdf", pages: 2, content: "shapes" });
    const pixels = (query: string) => fetch(`${bench.url()}/api/artworks/${job.artwork.hash}/pixels?${query}`);
    expect((await pixels("page=1&width=200")).headers.get("picture-size")).toBe("200x100");
    const second = await pixels("page=2&width=200");
    expect(second.headers.get("picture-size")).toBe("200x400");
    const data = new Uint8Array(await second.arrayBuffer());
    expect(data.length).toBe(200 * 400 * 4);
    expect([data[(300 * 200 + 100) * 4 + 3], data[(100 * 200 + 100) * 4 + 3]]).toEqual([255, 0]);
    expect((await pixels("page=3")).status).toBe(422);
    expect((await pixels("width=19999")).status).toBe(422);
  });
});

describe("the shop's placements", () => {
  const list = async () => placementListSchema.parse((await send(bench.url(), "GET", "/placements")).body);

  it("begin with the trade's sizes and are the shop's to change", async () => {
    const first = await list();
    expect(first[0]).toMatchObject({ name: "Full front, adult", widthMm: 266.7 });
    const own = { name: "Apron bib", widthMm: 180, areaWidthMm: 220, areaHeightMm: 200 };
    const added = shopPlacementSchema.parse((await send(bench.url(), "POST", "/placements", own)).body);
    const changed = await send(bench.url(), "PUT", `/placements/${added.id}`, { ...own, widthMm: 190, version: 1 });
    expect(changed.body).toMatchObject({ widthMm: 190, version: 2 });
    const stale = await send(bench.url(), "PUT", `/placements/${added.id}`, { ...own, widthMm: 150, version: 1 });
    expect(stale.status).toBe(409);
    expect((await list()).at(-1)).toMatchObject({ name: "Apron bib", widthMm: 190 });
    expect((await send(bench.url(), "DELETE", `/placements/${added.id}?version=2`)).status).toBe(200);
    expect(await list()).toEqual(first);
  });

  it("refuse nonsense", async () => {
    const nonsense = { name: "", widthMm: -3, areaWidthMm: 10, areaHeightMm: 10 };
    expect((await send(bench.url(), "POST", "/placements", nonsense)).status).toBe(400);
  });
});
