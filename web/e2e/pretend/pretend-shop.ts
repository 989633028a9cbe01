// The application with one process more than it has: the pretend process is loaded beside the program, not written into it.
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { build, type Plugin } from "vite";
import { startMariaDb } from "../../../tools/database/mariadb.ts";
import { ROOT, startServer } from "../../../tools/server-process.ts";

const CORE_PART = join(ROOT, "core", "src", "testing", "stencils.test.support.ts");
const WEB_PART = join(ROOT, "web", "e2e", "pretend", "stencils-screen.tsx");

/** For server, threads and shell: Node loads the process before the program. */
const LOAD_FIRST = pathToFileURL(join(ROOT, "web", "e2e", "pretend", "load-first.mjs"));
export const WITH_PRETEND = { NODE_OPTIONS: `--import ${LOAD_FIRST.href}` };

/** For the page and its worker: their first lines load it. */
const loadFirst = (): Plugin => ({
  name: "pretend-process",
  transform(code, address) {
    const [id = address] = address.split("?");
    if (id.endsWith("/web/src/main.tsx")) return `import ${JSON.stringify(WEB_PART)};\n${code}`;
    if (id.endsWith("/compute/compute-worker.ts")) return `import ${JSON.stringify(CORE_PART)};\n${code}`;
    // Core is loaded for what it gives; this part of it is for what it does.
    if (id === CORE_PART) return { code, moduleSideEffects: true };
    return null;
  },
});

export interface PretendShop {
  readonly url: string;
  close(): Promise<void>;
}

export async function openPretendShop(): Promise<PretendShop> {
  const folder = mkdtempSync(join(tmpdir(), "plain-palette-pretend-"));
  const databaseFolder = mkdtempSync(join(tmpdir(), "plain-palette-pretend-db-"));
  const webRoot = join(folder, "web");
  await build({
    root: join(ROOT, "web"),
    logLevel: "warn",
    plugins: [loadFirst()],
    worker: { format: "es", plugins: () => [loadFirst()] },
    build: { outDir: webRoot, emptyOutDir: true },
  });
  const database = await startMariaDb(databaseFolder);
  const server = await startServer({ ...WITH_PRETEND, DATABASE_URL: database.url, WEB_ROOT: webRoot, PORT: "0" });
  return {
    url: server.url,
    async close() {
      await server.stop();
      await database.stop();
      for (const one of [folder, databaseFolder]) rmSync(one, { recursive: true });
    },
  };
}
