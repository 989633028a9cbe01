import { defineConfig } from "vitest/config";

/** Limits for a machine four times slower and busier than a quiet one: they end what hangs, and judge nothing's speed. */
const node = (name: string, folder: string, timeout = 240_000) => ({
  test: { name, include: [`${folder}/**/*.test.ts`], testTimeout: timeout, hookTimeout: 300_000 },
});

export default defineConfig({
  test: {
    // By itself it leaves a core to the screen of whoever watches; where there are two, that is half.
    maxWorkers: "100%",
    projects: [
      node("core", "core/src"),
      node("cli", "cli/src"),
      node("web", "web/src"),
      // One after the other: the kill tests restart what the others talk to.
      {
        ...node("server", "server/test"),
        test: { ...node("server", "server/test").test, fileParallelism: false, globalSetup: "server/test/built.ts" },
      },
    ],
  },
});
