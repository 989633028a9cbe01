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
/** Inside the checkout: packages of others are found from there. */
const SERVER = join(ROOT, "test-results", "pretend-server");

/** For the shell: Node loads the process before the program. */
const LOAD_FIRST = pathToFileURL(join(ROOT, "web", "e2e", "pretend", "load-first.mjs"));
export const WITH_PRETEND = { NODE_OPTIONS: `--import ${LOAD_FIRST.href}` };

/** For page, server and their workers, which are built: their first lines load it. */
const FIRST_LINES: Readonly<Record<string, string>> = {
  "/web/src/main.tsx": WEB_PART,
  "/compute/compute-worker.ts": CORE_PART,
  "/server/src/main.ts": CORE_PART,
  "/server/src/compute/child.ts": CORE_PART,
};
const loadFirst = (): Plugin => ({
  name: "pretend-process",
  transform(code, address) {
    const [id = address] = address.split("?");
    const [, part] = Object.entries(FIRST_LINES).find(([end]) => id.endsWith(end)) ?? [];
    if (part) return `import ${JSON.stringify(part)};\n${code}`;
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
  await build({
    root: join(ROOT, "server"),
    logLevel: "warn",
    plugins: [loadFirst()],
    build: { outDir: SERVER, emptyOutDir: true },
  });
  const database = await startMariaDb(databaseFolder);
  const server = await startServer(
    { DATABASE_URL: database.url, WEB_ROOT: webRoot, PORT: "0" },
    { program: join(SERVER, "main.js") },
  );
  return {
    url: server.url,
    async close() {
      await server.stop();
      await database.stop();
      for (const one of [folder, databaseFolder]) rmSync(one, { recursive: true });
    },
  };
}
