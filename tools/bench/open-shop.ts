// A shop as it is served, with a demo job or a picture in it, and a browser before it.
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { type Job, jobSchema, OWN_HEADER } from "@plain-palette/contract";
import { type Browser, chromium } from "@playwright/test";
import sharp from "sharp";
import { CHROMIUM } from "../browser.ts";
import { buildServer, buildWeb } from "../build.ts";
import { startMariaDb } from "../database/mariadb.ts";
import { ROOT, startServer } from "../server-process.ts";

export interface BenchShop {
  readonly url: string;
  readonly browser: Browser;
  /** A job of a drawing, sent as a PNG of its own size. */
  addJob(name: string, svg: string): Promise<Job>;
}

/** Closed again when `work` has ended, however it ends. */
export async function inShop(work: (shop: BenchShop) => Promise<void>): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), "plain-palette-bench-"));
  await buildWeb();
  await buildServer();
  const database = await startMariaDb(folder);
  const server = await startServer({ DATABASE_URL: database.url, WEB_ROOT: join(ROOT, "web", "dist"), PORT: "0" });
  const browser = await chromium.launch(CHROMIUM);
  const addJob = async (name: string, svg: string) => {
    const created = await fetch(`${server.url}/api/jobs?name=${name}`, {
      method: "POST",
      body: new Uint8Array(await sharp(Buffer.from(svg)).png().toBuffer()),
      headers: { "Content-Type": "application/octet-stream", [OWN_HEADER]: "bench" },
    });
    return jobSchema.parse(await created.json());
  };
  try {
    await work({ url: server.url, browser, addJob });
  } finally {
    await browser.close();
    await server.stop();
    await database.stop();
    rmSync(folder, { recursive: true });
  }
}
