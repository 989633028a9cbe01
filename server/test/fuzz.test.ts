// Mutated files of every kind against the upload route: always a clear 4xx or a job, never a 5xx, a hang or a dead thread.
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { createServer } from "node:http";
import type { AddressInfo } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { problemSchema } from "@plain-palette/contract";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type Bench, createJob, drawPicture, send, startBench } from "./bench.test.support.ts";
import { mutate } from "./mutate.test.support.ts";
import { soundFiles } from "./sound-files.test.support.ts";

let bench: Bench;
const folder = mkdtempSync(join(tmpdir(), "plain-palette-fuzz-"));
let sources: Record<string, Buffer> = {};

beforeAll(async () => {
  bench = await startBench();
  sources = await soundFiles();
});
afterAll(async () => {
  await bench.stop();
  rmSync(folder, { recursive: true });
});

/** Longest that one bad file may keep its sender waiting, ms: poppler's own limit. */
const PATIENCE_MS = 35_000;

describe("mutated files", () => {
  it.each(["png", "jpeg", "gif", "webp", "tiff", "avif", "bmp", "svg", "pdf"])(
    "50 of %s: each becomes a job or gets a 4xx with its cause",
    { timeout: 1_200_000 },
    async (kind) => {
      for (let seed = 1; seed <= 50; seed++) {
        const started = Date.now();
        const { status, body } = await send(
          bench.url(),
          "POST",
          "/jobs?name=x",
          mutate(sources[kind] ?? Buffer.alloc(0), seed),
        );
        if (status !== 201) {
          expect(status, `${kind} ${seed}: ${JSON.stringify(body)}`).toBeGreaterThanOrEqual(400);
          expect(status, `${kind} ${seed}: ${JSON.stringify(body)}`).toBeLessThan(500);
          expect(problemSchema.parse(body).detail, `${kind} ${seed}`).toBeTruthy();
        }
        expect(Date.now() - started, `${kind} ${seed}`).toBeLessThan(PATIENCE_MS);
      }
      // The threads are alive, and a sound file is still taken.
      expect((await createJob(bench.url(), await drawPicture(seedOf(kind)))).artwork.width).toBe(120);
    },
  );
});

const seedOf = (kind: string) => kind.charCodeAt(0);

describe("an SVG or PDF reaches nothing outside itself", () => {
  it("no file of the server's, and no address", async () => {
    let knocks = 0;
    const outside = createServer((_request, response) => {
      knocks++;
      response.end();
    });
    await new Promise<void>((resolve) => outside.listen(0, "127.0.0.1", resolve));
    const { port } = outside.address() as AddressInfo;
    const secret = join(folder, "secret.png");
    writeFileSync(secret, await drawPicture(5));
    const svg = (inside: string) =>
      Buffer.from(
        `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="60" height="60">${inside}</svg>`,
      );
    const attempts = [
      svg(`<image href="file://${secret}" width="60" height="60"/>`),
      svg(`<image xlink:href="${secret}" width="60" height="60"/>`),
      svg(`<image href="http://127.0.0.1:${port}/a.png" width="60" height="60"/>`),
      svg(`<style>@import url(http://127.0.0.1:${port}/a.css);</style>`),
      svg(`<style>rect{fill:url(http://127.0.0.1:${port}/a.svg#p)}</style><rect width="9" height="9"/>`),
      Buffer.from(
        `<?xml version="1.0"?><!DOCTYPE svg [<!ENTITY e SYSTEM "file://${secret}">]><svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><text>&e;</text></svg>`,
      ),
      svg(`<script>fetch("http://127.0.0.1:${port}/")</script>`),
    ];
    for (const attempt of attempts) expect((await send(bench.url(), "POST", "/jobs?name=x", attempt)).status).toBe(422);
    // A PDF that wants its page's picture from a file and from an address, opens one, and runs a script when opened.
    const pdf = Buffer.from(`%PDF-1.7
1 0 obj << /Type /Catalog /Pages 2 0 R /OpenAction << /S /JavaScript /JS (app.launchURL\\("http://127.0.0.1:${port}/js"\\)) >> /AA << /WC << /S /URI /URI (http://127.0.0.1:${port}/uri) >> >> >> endobj
2 0 obj << /Type /Pages /Kids [3 0 R] /Count 1 >> endobj
3 0 obj << /Type /Page /Parent 2 0 R /MediaBox [0 0 60 60] /Contents 4 0 R /Resources << /XObject << /I 5 0 R /J 6 0 R >> >> >> endobj
4 0 obj << /Length 46 >> stream
q 30 0 0 60 0 0 cm /I Do Q q 30 0 0 60 30 0 cm /J Do Q
endstream endobj
5 0 obj << /Type /XObject /Subtype /Image /Width 120 /Height 120 /ColorSpace /DeviceRGB /BitsPerComponent 8 /F (${secret}) /Length 0 >> stream
endstream endobj
6 0 obj << /Type /XObject /Subtype /Image /Width 120 /Height 120 /ColorSpace /DeviceRGB /BitsPerComponent 8 /F << /FS /URL /F (http://127.0.0.1:${port}/a.png) >> /Length 0 >> stream
endstream endobj
trailer << /Root 1 0 R >>
%%EOF`);
    const { status } = await send(bench.url(), "POST", "/jobs?name=x", pdf);
    expect([201, 422]).toContain(status);
    await new Promise((resolve) => setTimeout(resolve, 300));
    expect(knocks).toBe(0);
    outside.close();
  });
});
