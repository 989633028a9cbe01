// The client's yes over HTTP: frozen proofs, secret links, what is said on them, and that a link reaches nothing else.
import { execFileSync } from "node:child_process";
import {
  type ClientProof,
  clientProofSchema,
  type Job,
  jobSchema,
  mailListSchema,
  OWN_HEADER,
  problemSchema,
  type ShopProof,
  shopProofListSchema,
  shopProofSchema,
} from "@plain-palette/contract";
import type { Recipe } from "@plain-palette/core/recipe";
import { createConnection } from "mysql2/promise";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { shopRoutes } from "../../tools/trials/routes.ts";
import { type Bench, changeTicket, createJob, drawPicture, listJobs, send, startBench } from "./bench.test.support.ts";

let bench: Bench;
beforeAll(async () => {
  bench = await startBench();
});
afterAll(() => bench.stop());

let seed = 0;
async function newJob(): Promise<Job> {
  const job = await createJob(bench.url(), await drawPicture(seed++));
  const patch = {
    title: "Crew shirts",
    client: "Tern Island Ferry",
    clientMail: "mate@ferry.example",
    dueDay: "2027-03-04",
  };
  return jobSchema.parse((await changeTicket(bench.url(), job.id, patch)).body);
}
async function sendProof({ id, head }: Job): Promise<ShopProof> {
  const { status, body } = await send(bench.url(), "POST", `/jobs/${id}/proofs`, { recipeVersion: head });
  expect([status, body]).toEqual([201, expect.anything()]);
  return shopProofSchema.parse(body);
}
async function save(job: Job, change: (recipe: Recipe) => Recipe): Promise<Job> {
  const now = jobSchema.parse((await send(bench.url(), "GET", `/jobs/${job.id}`)).body);
  const body = { basedOn: now.head, recipe: change(now.recipe) };
  return jobSchema.parse((await send(bench.url(), "POST", `/jobs/${job.id}/recipes`, body)).body);
}
const tokenOf = ({ link }: ShopProof) => link.split("/").at(-1) ?? "";
const door = () => bench.server().clientUrl;
const ask = (method: string, path: string, body?: unknown) => send(door(), method, path, body);
const open = async (proof: ShopProof): Promise<ClientProof> =>
  clientProofSchema.parse((await ask("GET", `/proof/${tokenOf(proof)}`)).body);
const stateOf = async ({ id }: Job) => (await listJobs(bench.url())).find((one) => one.id === id)?.state;

describe("a proof that is sent", () => {
  it("is frozen: edits afterwards change nothing of it, nor of its PDF, which says colours, size and version", async () => {
    const job = await newJob();
    const proof = await sendProof(job);
    const before = await open(proof);
    const pdfOf = async () =>
      Buffer.from(await (await fetch(`${door()}/api/proof/${tokenOf(proof)}/pdf`)).arrayBuffer());
    const pdf = await pdfOf();
    const [spot] = before.proof.spots;
    await save(job, (recipe) => ({
      ...recipe,
      artwork: { ...recipe.artwork, width: { value: 99, unit: "mm" }, garment: "#00ff00" },
      colours: { ...recipe.colours, decided: { [spot?.id ?? ""]: { hex: "#123456", name: "Other" } }, pieces: 7 },
    }));
    await changeTicket(bench.url(), job.id, { title: "Renamed", client: "Somebody" });
    expect(await open(proof)).toEqual(before);
    expect((await pdfOf()).equals(pdf)).toBe(true);
    const text = execFileSync("pdftotext", ["-layout", "-", "-"], { input: pdf }).toString();
    for (const { name } of before.proof.spots) expect(text).toContain(name);
    expect(text).toContain("10.5 in × 10.5 in");
    expect(text).toMatch(/Proof No\. \d+, version 1/);
    expect(text).toContain("Crew shirts");
    expect(execFileSync("pdfinfo", ["-"], { input: pdf }).toString()).toMatch(/Pages:\s+2/);
  });
  it("is written to the client with a link that opens it", async () => {
    const proof = await sendProof(await newJob());
    const [mail] = mailListSchema.parse((await send(bench.url(), "GET", "/mails")).body);
    expect(mail).toMatchObject({ kind: "ready", to: "mate@ferry.example", link: proof.link, state: "kept" });
    expect(mail?.text).toContain(proof.link);
    // 256 bits in base64url (RFC 4648).
    expect(tokenOf(proof)).toMatch(/^[\w-]{43}$/);
  });
});

describe("a link", () => {
  it("that was withdrawn, has ended or was guessed is answered alike", async () => {
    const job = await newJob();
    const [ended, withdrawn] = [await sendProof(await newJob()), await sendProof(job)];
    await send(bench.url(), "POST", `/jobs/${job.id}/proofs/${withdrawn.id}/withdrawal`);
    const database = await createConnection(bench.databaseUrl());
    await database.query("UPDATE proofs SET ends_at = NOW() - INTERVAL 1 DAY WHERE id = ?", [ended.id]);
    await database.end();
    const answers = [];
    for (const token of [
      tokenOf(withdrawn),
      tokenOf(ended),
      "A".repeat(43),
      "x",
      "%00",
      "' OR 1=1 --",
      "y".repeat(5000),
    ])
      for (const [method, path, body] of [
        ["GET", "", undefined],
        ["GET", "/pdf", undefined],
        ["POST", "/notes", { text: "hello", name: "A" }],
        ["POST", "/yes", { name: "A", day: "2026-11-27" }],
      ] as const) {
        const { status, body: said } = await ask(method, `/proof/${encodeURIComponent(token)}${path}`, body);
        answers.push(JSON.stringify([status, said]));
      }
    expect(new Set(answers).size).toBe(1);
    expect(problemSchema.parse(JSON.parse(answers[0] ?? "")[1]).status).toBe(404);
  });
  it("reaches no route of the shop, whatever the way", async () => {
    const job = await newJob();
    const proof = await sendProof(job);
    const token = tokenOf(proof);
    const ids = { id: job.id, hash: job.artwork.hash, proof: proof.id, number: "0", name: "report.json", version: "1" };
    const routes = shopRoutes().map((path) =>
      path.replace(/:(\w+)/g, (_, key: string) => (ids as Record<string, string>)[key] ?? job.id),
    );
    expect(routes.length).toBeGreaterThanOrEqual(40);
    for (const path of routes)
      for (const method of ["GET", "POST", "PUT", "PATCH", "DELETE"])
        for (const query of ["", `?token=${token}`]) {
          const answer = await fetch(`${door()}/api${path}${query}`, {
            method,
            headers: {
              ...{ "Content-Type": "application/json", [OWN_HEADER]: "test" },
              ...{ Authorization: `Bearer ${token}`, Referer: proof.link },
            },
            ...(method === "GET" ? {} : { body: "{}" }),
          });
          expect([method, path, answer.status]).toEqual([method, path, 404]);
        }
    expect((await fetch(`${door()}/`)).status).toBe(404);
    expect((await fetch(`${door()}/jobs/${job.id}/shapes`)).status).toBe(404);
    expect((await fetch(`${door()}/api/proof/${token}/../../jobs`)).status).toBe(404);
  });
});

describe("what is said on a proof", () => {
  it("is kept with its version: pins, questions, answers, a change, and yes with name and day", async () => {
    const job = await newJob();
    const proof = await sendProof(job);
    expect(await stateOf(job)).toBe("waits");
    const path = `/proof/${tokenOf(proof)}`;
    const question = { text: "Is the <b>pale</b> blue meant?", at: { x: 12.5, y: 30 }, name: "Mate" };
    const asked = clientProofSchema.parse((await ask("POST", `${path}/notes`, question)).body);
    expect(asked.notes).toMatchObject([{ by: "client", kind: "note", at: { x: 12.5, y: 30 }, text: question.text }]);
    expect(await stateOf(job)).toBe("answered");
    const answer = { text: "Yes, as on your boat.", replyTo: asked.notes[0]?.id };
    await send(bench.url(), "POST", `/jobs/${job.id}/proofs/${proof.id}/notes`, answer);
    expect(await stateOf(job)).toBe("waits");
    expect((await open(proof)).notes).toMatchObject([{}, { by: "shop", replyTo: asked.notes[0]?.id }]);
    const stranger = await sendProof(await newJob());
    const foreign = await ask("POST", `/proof/${tokenOf(stranger)}/notes`, {
      text: "a",
      name: "b",
      replyTo: asked.notes[0]?.id,
    });
    expect(foreign.status).toBe(404);
    const said = clientProofSchema.parse(
      (await ask("POST", `${path}/yes`, { name: "M. Ate", day: "2027-03-03" })).body,
    );
    expect(said.yes).toMatchObject({ name: "M. Ate", day: "2027-03-03" });
    expect((await ask("POST", `${path}/yes`, { name: "Again", day: "2027-03-04" })).status).toBe(409);
    const [kept] = shopProofListSchema.parse((await send(bench.url(), "GET", `/jobs/${job.id}/proofs`)).body);
    expect(kept).toMatchObject({ yes: { name: "M. Ate" }, isCurrent: true, notes: [{}, {}] });
  });
  it("is refused where it is empty, too long or no place", async () => {
    const path = `/proof/${tokenOf(await sendProof(await newJob()))}/notes`;
    for (const note of [
      { text: " ", name: "A" },
      { text: "a".repeat(2001), name: "A" },
      { text: "a", name: "" },
      { text: "a", name: "A", at: { x: 1e9, y: 0 } },
      { text: "a".repeat(20_000), name: "A" },
    ])
      expect((await ask("POST", path, note)).status).toBeGreaterThanOrEqual(400);
  });
  it("goes to the newest version only", async () => {
    const job = await newJob();
    const first = await sendProof(job);
    const second = await sendProof(job);
    expect([first.number, second.number]).toEqual([1, 2]);
    expect((await open(first)).isReplaced).toBe(true);
    const late = await ask("POST", `/proof/${tokenOf(first)}/yes`, { name: "A", day: "2027-01-01" });
    expect([late.status, problemSchema.parse(late.body).title]).toEqual([409, expect.stringContaining("newer")]);
  });
});

describe("a job from before proofs were kept", () => {
  it("is said yes to as any other", async () => {
    const job = await newJob();
    const database = await createConnection(bench.databaseUrl());
    await database.query("UPDATE jobs SET seen_key = '' WHERE id = ?", [job.id]);
    await database.end();
    const proof = await sendProof(job);
    await ask("POST", `/proof/${tokenOf(proof)}/yes`, { name: "A", day: "2027-03-03" });
    expect(await stateOf(job)).toBe("yes");
  });
});

describe("after the yes", () => {
  it("a trap changes nothing, a colour does, and going back is yes again", async () => {
    const job = await newJob();
    const proof = await sendProof(job);
    await ask("POST", `/proof/${tokenOf(proof)}/yes`, { name: "A", day: "2027-03-03" });
    expect(await stateOf(job)).toBe("yes");
    await save(job, (recipe) => ({
      ...recipe,
      processes: { ...recipe.processes, screens: { ...(recipe.processes.screens as object), trapMm: 0.5 } },
    }));
    expect(await stateOf(job)).toBe("yes");
    const [spot] = (await open(proof)).proof.spots;
    const changed = await save(job, (recipe) => ({
      ...recipe,
      colours: { ...recipe.colours, decided: { [spot?.id ?? ""]: { hex: "#123456" } } },
    }));
    expect([changed.state, changed.yesDay]).toEqual(["changed", "2027-03-03"]);
    await send(bench.url(), "PUT", `/jobs/${job.id}/head`, { to: changed.undo, seen: changed.head });
    expect(await stateOf(job)).toBe("yes");
  });
});
