import { join } from "node:path";
import { defineConfig } from "@playwright/test";
import { CHROMIUM } from "../tools/browser.ts";
import { ROOT } from "../tools/server-process.ts";
import { SHOPS, shopUrl } from "./e2e/shops.ts";

export default defineConfig({
  testDir: "e2e",
  globalSetup: "./e2e/wait-for-demo.ts",
  outputDir: join(ROOT, "test-results"),
  // For a machine four times slower and busier than a quiet one: limits end what hangs, and judge nothing's speed.
  timeout: 360_000,
  expect: { timeout: 80_000 },
  workers: SHOPS,
  reporter: [["list"], ["json", { outputFile: join(ROOT, "test-results", "e2e.json") }]],
  use: {
    baseURL: shopUrl(Number(process.env.TEST_PARALLEL_INDEX ?? 0)),
    viewport: { width: 1280, height: 800 },
    launchOptions: CHROMIUM,
    acceptDownloads: true,
  },
  webServer: {
    command: "node --import tsx web/e2e/server.ts",
    cwd: ROOT,
    url: `${shopUrl(0)}/api/health`,
    timeout: 480_000,
    gracefulShutdown: { signal: "SIGTERM", timeout: 20_000 },
  },
});
