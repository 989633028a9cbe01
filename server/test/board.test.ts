// The job board over HTTP: what waits for whom, found, filtered, sorted, page by page.
import {
  type Board,
  boardSchema,
  type Job,
  type JobState,
  jobSchema,
  shopProofSchema,
  type TicketChange,
} from "@plain-palette/contract";
import type { Recipe } from "@plain-palette/core/recipe";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type Bench, changeTicket, createJob, drawPicture, send, startBench } from "./bench.test.support.ts";

let bench: Bench;
const jobs = new Map<string, Job>();
beforeAll(async () => {
  bench = await startBench();
  const orders = [
    ["Aprons", "Hearth & Rye", "2027-05-01", "screens"],
    ["Bibs", "Saltmarsh Rowing Club", null, "transfer"],
    ["Caps", "", "2027-03-01", "stitches"],
    ["Decals", "Hearth & Rye", "2027-04-01", "stones"],
  ] as const;
  for (const [k, [title, client, dueDay, process]] of orders.entries()) {
    const job = await createJob(bench.url(), await drawPicture(k));
    await patch(job, { title, client, dueDay });
    jobs.set(title, await save(job, (recipe) => ({ ...recipe, process })));
  }
});
afterAll(() => bench.stop());

const board = async (query = ""): Promise<Board> =>
  boardSchema.parse((await send(bench.url(), "GET", `/board?${query}`)).body);
const titles = async (query: string) => (await board(query)).jobs.map(({ title }) => title);
const patch = ({ id }: Job, change: TicketChange) => changeTicket(bench.url(), id, change);
async function save({ id }: Job, change: (recipe: Recipe) => Recipe): Promise<Job> {
  const now = jobSchema.parse((await send(bench.url(), "GET", `/jobs/${id}`)).body);
  const body = { basedOn: now.head, recipe: change(now.recipe) };
  return jobSchema.parse((await send(bench.url(), "POST", `/jobs/${id}/recipes`, body)).body);
}
const named = (title: string): Job => {
  const job = jobs.get(title);
  if (!job) throw new Error(`there is no ${title}`);
  return job;
};
const countOf = async (state: JobState) => (await board()).counts.find((one) => one.state === state)?.jobs;

describe("the board", () => {
  it("finds by words, whatever their case, in number, title, client and file", async () => {
    expect(await titles("words=hearth")).toEqual(["Decals", "Aprons"]);
    expect(await titles("words=HEARTH dec")).toEqual(["Decals"]);
    expect(await titles(`words=${named("Caps").number} caps`)).toEqual(["Caps"]);
    expect(await titles("words=%25")).toEqual([]);
  });
  it("is sorted by due day, the undated last; by client, the nameless last; the newest first", async () => {
    expect(await titles("sort=due")).toEqual(["Caps", "Decals", "Aprons", "Bibs"]);
    expect(await titles("sort=client")).toEqual(["Decals", "Aprons", "Bibs", "Caps"]);
    expect(await titles("")).toEqual(["Decals", "Caps", "Bibs", "Aprons"]);
    await patch(named("Bibs"), { title: "Bibs" });
    expect((await titles("sort=changed"))[0]).toBe("Bibs");
  });
  it("shows one process alone, a part at a time, and what is put away apart", async () => {
    expect(await titles("process=stitches")).toEqual(["Caps"]);
    expect(await titles("most=2&from=1")).toEqual(["Caps", "Bibs"]);
    await patch(named("Bibs"), { isPutAway: true });
    expect([await titles("isPutAway=yes"), (await board()).putAway]).toEqual([["Bibs"], 1]);
    expect(await titles("process=transfer")).toEqual([]);
    await patch(named("Bibs"), { isPutAway: false });
  });
  it("counts what waits for what, whichever of it is looked at", async () => {
    expect(await countOf("new")).toBe(4);
    await patch(named("Aprons"), { step: "shapes" });
    const job = named("Caps");
    const { body } = await send(bench.url(), "POST", `/jobs/${job.id}/proofs`, { recipeVersion: job.head });
    const proof = shopProofSchema.parse(body);
    expect(await titles("state=waits")).toEqual(["Caps"]);
    const { counts } = await board("state=waits");
    expect(counts.filter(({ jobs: many }) => many > 0)).toEqual([
      { state: "new", jobs: 2 },
      { state: "making", jobs: 1 },
      { state: "waits", jobs: 1 },
    ]);
    // A link that is taken back is waited for no more.
    await send(bench.url(), "POST", `/jobs/${job.id}/proofs/${proof.id}/withdrawal`);
    expect(await countOf("waits")).toBe(0);
  });
  it("refuses what it does not know, and a day or an address that is none", async () => {
    expect((await send(bench.url(), "GET", "/board?sort=price")).status).toBe(400);
    expect((await patch(named("Caps"), { dueDay: "next week" })).status).toBe(400);
    expect((await patch(named("Caps"), { clientMail: "somebody" })).status).toBe(400);
    expect((await patch(named("Caps"), { dueDay: null, clientMail: "" })).status).toBe(200);
  });
});
