import { join } from "node:path";
import { defineConfig } from "@playwright/test";
import { CHROMIUM } from "../tools/browser.ts";
import { ROOT } from "../tools/server-process.ts";

// Chosen once, in the runner; its workers inherit it.
process.env.E2E_PORT ??= String(20_000 + Math.floor(Math.random() * 20_000));
const url = `http://127.0.0.1:${process.env.E2E_PORT}`;

export default defineConfig({
  testDir: "e2e",
  globalSetup: "./e2e/wait-for-demo.ts",
  outputDir: join(ROOT, "test-results"),
  // For a machine four times slower and busier than a quiet one: limits end what hangs, and judge nothing's speed.
  timeout: 360_000,
  expect: { timeout: 80_000 },
  workers: 1,
  reporter: [["list"], ["json", { outputFile: join(ROOT, "test-results", "e2e.json") }]],
  use: { baseURL: url, viewport: { width: 1280, height: 800 }, launchOptions: CHROMIUM, acceptDownloads: true },
  webServer: {
    command: "node --import tsx web/e2e/server.ts",
    cwd: ROOT,
    url: `${url}/api/health`,
    timeout: 480_000,
    gracefulShutdown: { signal: "SIGTERM", timeout: 20_000 },
  },
});
