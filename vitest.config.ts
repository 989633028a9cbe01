import { defineConfig } from "vitest/config";

const node = (name: string, folder: string, timeout = 30_000) => ({
  test: { name, include: [`${folder}/**/*.test.ts`], testTimeout: timeout, hookTimeout: 120_000 },
});

export default defineConfig({
  test: {
    projects: [
      node("core", "core/src"),
      node("cli", "cli/src", 60_000),
      node("web", "web/src"),
      // One after the other: the kill tests restart what the others talk to.
      {
        ...node("server", "server/test", 60_000),
        test: { ...node("server", "server/test", 60_000).test, fileParallelism: false },
      },
    ],
  },
});
