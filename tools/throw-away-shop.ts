// A shop as it is served, on a database of its own, and a browser before it: for pictures and measurements.
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { type Browser, chromium } from "@playwright/test";
import { CHROMIUM } from "./browser.ts";
import { buildServer, buildWeb } from "./build.ts";
import { startMariaDb } from "./database/mariadb.ts";
import { ROOT, type ServerProcess, startServer } from "./server-process.ts";

export interface ThrowAwayShop {
  readonly server: ServerProcess;
  readonly browser: Browser;
  /** Ends it, and nothing is left. */
  close(): Promise<void>;
}

export async function openThrowAwayShop(): Promise<ThrowAwayShop> {
  const folder = mkdtempSync(join(tmpdir(), "plain-palette-shop-"));
  await buildWeb();
  await buildServer();
  const database = await startMariaDb(folder);
  const server = await startServer({ DATABASE_URL: database.url, WEB_ROOT: join(ROOT, "web", "dist"), PORT: "0" });
  const browser = await chromium.launch(CHROMIUM);
  return {
    server,
    browser,
    async close() {
      await browser.close();
      await server.stop();
      await database.stop();
      rmSync(folder, { recursive: true });
    },
  };
}
