// Who is answered at all, and what is answered to what makes no sense: every refusal is a 4xx with its reason.
import { request } from "node:http";
import { tmpdir } from "node:os";
import { gzipSync } from "node:zlib";
import { OWN_HEADER, problemSchema } from "@plain-palette/contract";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { startServer } from "../../tools/server-process.ts";
import { type Bench, changeTicket, createJob, drawPicture, send, startBench } from "./bench.test.support.ts";

let bench: Bench;
beforeAll(async () => {
  bench = await startBench({ SHOP_URL: "https://shop.example.org", PROCESSES: "1" });
});
afterAll(() => bench.stop());

interface Sent {
  readonly method?: string;
  readonly headers?: Readonly<Record<string, string>>;
  readonly body?: Buffer | string;
}

/** By node:http, which sends any Host, path and header as it is told. */
function ask(
  path: string,
  { method = "GET", headers = {}, body }: Sent = {},
): Promise<{ status: number; body: string }> {
  const { hostname, port } = new URL(bench.url());
  return new Promise((resolve, reject) => {
    const asked = request({ hostname, port, path, method, headers }, (answer) => {
      let text = "";
      answer.on("data", (piece) => {
        text += piece;
      });
      answer.on("end", () => resolve({ status: answer.statusCode ?? 0, body: text }));
    });
    asked.on("error", reject);
    asked.end(body);
  });
}
const port = () => new URL(bench.url()).port;
const json = { "Content-Type": "application/json" };
const own = { [OWN_HEADER]: "test" };
const patch = { method: "PATCH", body: '{"currency":"kr"}' } as const;

describe("only our own names are answered", () => {
  it.each([
    ["localhost", 200],
    ["127.0.0.1", 200],
    ["[::1]", 200],
    ["shop.example.org", 200],
    ["SHOP.example.org", 200],
    ["tides.example.org", 421],
    ["127.0.0.1.tides.example.org", 421],
    ["shop.example.org.tides.example.org", 421],
    ["a b", 421],
  ])("Host %s: %i", async (host, status) => {
    for (const path of ["/api/board", "/api/health"])
      expect((await ask(path, { headers: { Host: `${host}:${port()}` } })).status).toBe(status);
  });
});

describe("only our own pages and programs may change anything", () => {
  const cases: [string, Record<string, string>, number][] = [
    ["a program that says who it is", { ...own }, 200],
    ["our own page", { Origin: "OWN" }, 200],
    ["our own page behind a proxy", { Origin: "https://shop.example.org", Host: "shop.example.org" }, 200],
    ["nobody", {}, 403],
    ["a page of another port", { Origin: "http://127.0.0.1:1", ...own }, 403],
    ["a page of another name of this machine", { Origin: "http://localhost:OWN_PORT", ...own }, 403],
    ["a page in a frame that has no origin", { Origin: "null", ...own }, 403],
    ["a page of the shop's name, unencrypted", { Origin: "http://shop.example.org", ...own }, 403],
    ["a form", { Origin: "OWN", "Content-Type": "application/x-www-form-urlencoded" }, 415],
    ["a form in parts", { Origin: "OWN", "Content-Type": "multipart/form-data; boundary=x" }, 415],
    ["plain text", { ...own, "Content-Type": "text/plain;charset=utf-8" }, 415],
  ];
  it.each(cases)("%s", async (_who, sent, status) => {
    const headers = Object.fromEntries(
      Object.entries({ ...json, ...sent }).map(([name, value]) => [
        name,
        value === "OWN" ? `http://127.0.0.1:${port()}` : value.replace("OWN_PORT", port()),
      ]),
    );
    const answer = await ask("/api/settings", { ...patch, headers });
    expect(answer.status).toBe(status);
    if (status !== 200) expect(problemSchema.parse(JSON.parse(answer.body)).title).toBeTruthy();
  });
});

describe("what makes no sense gets a 4xx and its reason", () => {
  it.each<[string, string, Sent, number]>([
    ["a damaged percent sign in a path", "/api/jobs/%E0%A4%A", {}, 400],
    ["a damaged percent sign in a file's name", "/api/runs/a/files/%", {}, 400],
    ["an id with other letters", "/api/jobs/%C3%A5%C3%A4%C3%B6", {}, 404],
    ["an id of a proof with other letters", "/api/jobs/%F0%9F%AA%81/proofs/%E2%82%AC", {}, 404],
    ["a stock of other letters", "/api/shelf/%C3%B6?version=1", { method: "DELETE", headers: own }, 404],
    ["a motif of other letters", "/api/motifs/%C3%B6", {}, 404],
    [
      "an unknown way of packing",
      "/api/settings",
      { ...patch, headers: { ...own, ...json, "Content-Encoding": "snappy" } },
      415,
    ],
    [
      "an unknown way of writing",
      "/api/settings",
      { ...patch, headers: { ...own, "Content-Type": "application/json; charset=x-tide" } },
      415,
    ],
    [
      "damaged gzip",
      "/api/settings",
      {
        method: "PATCH",
        body: gzipSync("{}").subarray(0, 12),
        headers: { ...own, ...json, "Content-Encoding": "gzip" },
      },
      400,
    ],
    [
      "gzip of a text that is none",
      "/api/settings",
      { method: "PATCH", body: "not packed", headers: { ...own, ...json, "Content-Encoding": "gzip" } },
      400,
    ],
    ["a route that is not there", "/api/tides", {}, 404],
  ])("%s", async (_what, path, sent, status) => {
    const answer = await ask(path, sent);
    expect([answer.status, problemSchema.parse(JSON.parse(answer.body)).title]).toEqual([status, expect.any(String)]);
  });

  it("an SVG of 1 x 100,000,000", async () => {
    const svg = '<svg xmlns="http://www.w3.org/2000/svg" width="1" height="100000000"/>';
    expect((await send(bench.url(), "POST", "/jobs?name=x", Buffer.from(svg))).status).toBeLessThan(500);
  });

  it("the same code added to the shelf six times at once: one is added, five are told so", async () => {
    const stock = {
      kind: "ink",
      code: "Q-1",
      name: "Quay",
      colour: { space: "srgb", hex: "#123456" },
      detail: "",
      film: null,
      stones: null,
    };
    const answers = await Promise.all(Array.from({ length: 6 }, () => send(bench.url(), "POST", "/shelf", stock)));
    expect(answers.map(({ status }) => status).sort()).toEqual([201, 409, 409, 409, 409, 409]);
  });

  it("the same shelf taken in six times at once, half of it in another order: all are taken, whoever has to wait", async () => {
    const lines = Array.from(
      { length: 200 },
      (_, i) => `ink,R-${i},Name ${i},#${(i * 70_000).toString(16).padStart(6, "0")},`,
    );
    const file = (order: readonly string[]) => Buffer.from(["kind,code,name,hex,detail", ...order].join("\n"));
    const answers = await Promise.all(
      Array.from({ length: 6 }, (_, i) =>
        send(bench.url(), "POST", "/shelf/file", file(i % 2 === 0 ? lines : [...lines].reverse())),
      ),
    );
    expect(answers.map(({ status }) => status)).toEqual([200, 200, 200, 200, 200, 200]);
  });

  it("and a job is as it was after all of it", async () => {
    expect((await createJob(bench.url(), await drawPicture())).head).toBe(1);
    expect(bench.server().child.exitCode).toBeNull();
  });
});

describe("a disk that is nearly full", () => {
  it("is said in words, refuses what is new, shows what there is, and takes again when there is room", async () => {
    const job = await createJob(bench.url(), await drawPicture(9));
    const environment = { DATABASE_URL: bench.databaseUrl(), PORT: "0", DISK_FOLDER: tmpdir() };
    const full = await startServer({ ...environment, LEAST_FREE_MB: "1000000000" });
    try {
      const { status, body } = await changeTicket(full.url, job.id, { title: "Renamed" });
      expect(status).toBe(507);
      expect(problemSchema.parse(body)).toMatchObject({
        title: "The shop's disk is full",
        detail: expect.stringMatching(/^\d+ MB are left/),
        kept: expect.any(String),
        cure: expect.stringContaining("Make room"),
      });
      expect((await send(full.url, "POST", "/jobs?name=x", await drawPicture(10))).status).toBe(507);
      expect((await send(full.url, "GET", `/jobs/${job.id}`)).body).toMatchObject({ title: job.title });
      expect((await send(full.clientUrl, "POST", "/proof/x/notes", {})).status).toBe(507);
    } finally {
      await full.stop();
    }
    const roomy = await startServer(environment);
    expect((await changeTicket(roomy.url, job.id, { title: "Renamed" })).status).toBe(200);
    await roomy.stop();
  });
});

it("health tells of the database, the readers and the disk, and says no when the database is away", async () => {
  const well = await send(bench.url(), "GET", "/health");
  expect([well.status, well.body]).toEqual([
    200,
    expect.objectContaining({
      ok: true,
      database: true,
      reading: expect.objectContaining({ processes: expect.any(Number) }),
    }),
  ]);
  await bench.stopDatabase();
  const ill = await send(bench.url(), "GET", "/health");
  expect([ill.status, ill.body]).toEqual([503, expect.objectContaining({ ok: false, database: false })]);
  await bench.startDatabase();
  expect((await send(bench.url(), "GET", "/health")).status).toBe(200);
});
