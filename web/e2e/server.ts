// The real application on a throw-away MariaDB, for the browser tests.
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { build } from "vite";
import { startMariaDb } from "../../tools/database/mariadb.ts";
import { seedDemo } from "../../tools/demo/seed.ts";
import { ROOT, startServer } from "../../tools/server-process.ts";

const folder = mkdtempSync(join(tmpdir(), "plain-palette-e2e-"));
await build({ root: join(ROOT, "web"), logLevel: "warn" });
const database = await startMariaDb(folder);
const server = await startServer({
  DATABASE_URL: database.url,
  WEB_ROOT: join(ROOT, "web", "dist"),
  PORT: process.env.E2E_PORT ?? "0",
});
await seedDemo(server.url);
process.on("SIGTERM", async () => {
  await server.stop();
  await database.stop();
  rmSync(folder, { recursive: true });
  process.exit(0);
});
