import { OWN_HEADER, problemSchema } from "@plain-palette/contract";
import sharp from "sharp";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { pngOf } from "./attack.test.support.ts";
import { type Bench, createJob, drawPicture, send, startBench } from "./bench.test.support.ts";

let bench: Bench;
beforeAll(async () => {
  bench = await startBench();
});
afterAll(() => bench.stop());

const svg = (inside: string) =>
  Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="40" height="40">${inside}<rect width="20" height="20" fill="#c00"/></svg>`,
  );

describe("bad input gets a clear 4xx and the server goes on", () => {
  it.each<[string, () => Buffer | Promise<Buffer>, number, RegExp]>([
    ["an empty file", () => Buffer.alloc(0), 422, /empty/],
    ["text named .png", () => Buffer.from("not a picture"), 415, /text, not a picture/],
    ["random bytes", () => Buffer.from(Array.from({ length: 300 }, (_, i) => (i * 89 + 7) % 256)), 415, /no picture/],
    ["a PDF of one line", () => Buffer.from("%PDF-1.7\n"), 422, /PDF is damaged/],
    ["a truncated PNG", async () => (await drawPicture()).subarray(0, 700), 422, /damaged or ends too early/],
    [
      "a truncated JPEG",
      async () =>
        (
          await sharp(await drawPicture())
            .jpeg()
            .toBuffer()
        ).subarray(0, 1200),
      422,
      /damaged or ends too early/,
    ],
    ["a PNG header and nothing else", () => Buffer.from("89504e470d0a1a0a", "hex"), 422, /damaged/],
    ["a decompression bomb", () => pngOf(60_000, 60_000, 9), 413, /60000 x 60000 pixels/],
    ["an SVG with a script", () => svg("<script>fetch('/')</script>"), 422, /contains a script/],
    ["an SVG with an event handler", () => svg('<circle r="3" onload="x()"/>'), 422, /contains a script/],
    [
      "an SVG with a picture elsewhere",
      () => svg('<image xlink:href="http://127.0.0.1:1/x.png"/>'),
      422,
      /outside itself/,
    ],
    ["an SVG with a file of this machine", () => svg('<image href="file:///etc/passwd"/>'), 422, /outside itself/],
    [
      "an SVG with an entity",
      () =>
        Buffer.from(
          '<!DOCTYPE svg [<!ENTITY x SYSTEM "file:///etc/passwd">]><svg xmlns="http://www.w3.org/2000/svg"><text>&x;</text></svg>',
        ),
      422,
      /entities/,
    ],
    [
      "an SVG with a foreign style",
      () => svg("<style>@import url(http://127.0.0.1:1/a.css);</style>"),
      422,
      /outside itself/,
    ],
  ])("%s", async (_name, make, status, cause) => {
    const answer = await send(bench.url(), "POST", "/jobs?name=x.png", await make());
    expect(answer.status).toBe(status);
    const problem = problemSchema.parse(answer.body);
    expect(problem.detail).toMatch(cause);
    expect(problem.kept).toBeTruthy();
    expect((await send(bench.url(), "GET", "/health")).status).toBe(200);
  });

  it("a file of more than 64 MB", async () => {
    const answer = await send(bench.url(), "POST", "/jobs?name=x.png", Buffer.alloc(65 * 1024 * 1024));
    expect(answer.status).toBe(413);
    expect(problemSchema.parse(answer.body).title).toContain("64 MB");
  });

  it("takes what is odd but sound: one pixel, nothing visible", async () => {
    const one = await sharp({ create: { width: 1, height: 1, channels: 3, background: "#c81e28" } })
      .png()
      .toBuffer();
    const clear = await sharp({
      create: { width: 9, height: 9, channels: 4, background: { r: 0, g: 0, b: 0, alpha: 0 } },
    })
      .png()
      .toBuffer();
    for (const picture of [one, clear]) expect((await createJob(bench.url(), picture)).head).toBe(1);
    expect((await send(bench.url(), "POST", "/jobs?name=x.png", Buffer.from("{"))).status).toBe(415);
  });

  it("JSON that is none, and a wrong hash", async () => {
    const job = await createJob(bench.url(), await drawPicture());
    const broken = await fetch(`${bench.url()}/api/jobs/${job.id}/recipes`, {
      method: "POST",
      body: "{",
      headers: { "Content-Type": "application/json", [OWN_HEADER]: "test" },
    });
    expect(broken.status).toBe(400);
    expect((await send(bench.url(), "GET", "/artworks/..%2f..%2fetc/file")).status).toBe(400);
  });
});
