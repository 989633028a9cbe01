// The real application on throw-away MariaDBs, for the browser tests.
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { buildServer, buildWeb } from "../../tools/build.ts";
import { startMariaDb } from "../../tools/database/mariadb.ts";
import { seedDemo } from "../../tools/demo/seed.ts";
import { ROOT, startServer } from "../../tools/server-process.ts";
import { allShops, doorPort, shopPort } from "./shops.ts";

/** @returns What closes it, leaving nothing behind. */
async function openShop(index: number): Promise<() => Promise<void>> {
  const folder = mkdtempSync(join(tmpdir(), "plain-palette-e2e-"));
  const database = await startMariaDb(folder);
  const server = await startServer({
    DATABASE_URL: database.url,
    WEB_ROOT: join(ROOT, "web", "dist"),
    PORT: String(shopPort(index)),
    CLIENT_PORT: String(doorPort(index)),
  });
  await seedDemo(server.url);
  return async () => {
    await server.stop();
    await database.stop();
    rmSync(folder, { recursive: true });
  };
}

await buildWeb();
await buildServer();
const closers = await Promise.all(allShops().map(openShop));
process.on("SIGTERM", async () => {
  await Promise.all(closers.map((close) => close()));
  process.exit(0);
});
