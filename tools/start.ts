// npm start: build, database, server, demo once; Ctrl+C ends all of it.
import { existsSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { build } from "vite";
import { findFreePort, startMariaDb } from "./database/mariadb.ts";
import { seedDemo } from "./demo/seed.ts";
import { ROOT, type ServerProcess, startServer } from "./server-process.ts";

/** Everything that lasts. Elsewhere for tests only. */
const DATA = process.env.DATA_FOLDER ?? join(ROOT, ".data");

console.log("Building the web application ...");
await build({ root: join(ROOT, "web"), logLevel: "warn" });
console.log("Starting MariaDB ...");
const database = await startMariaDb(join(DATA, "mariadb"));
let server: ServerProcess | undefined;

let isStopping = false;
async function stop(code: number): Promise<void> {
  if (isStopping) return;
  isStopping = true;
  await server?.stop();
  await database.stop();
  process.exit(code);
}
process.on("SIGINT", () => stop(0));
process.on("SIGTERM", () => stop(0));

try {
  server = await startServer({
    DATABASE_URL: database.url,
    WEB_ROOT: join(ROOT, "web", "dist"),
    PORT: process.env.PORT ?? String(await findFreePort(4310)),
    CLIENT_PORT: process.env.CLIENT_PORT ?? String(await findFreePort(4410)),
  });
  server.child.stdout?.pipe(process.stdout);
  server.child.stderr?.pipe(process.stderr);
  server.child.once("exit", () => stop(1));
  const seeded = join(DATA, "demo-seeded");
  if (!existsSync(seeded)) {
    console.log("Drawing the demo jobs ...");
    await seedDemo(server.url);
    writeFileSync(seeded, "");
  }
  console.log(`\nPlain Palette is at ${server.url}\nThe clients' door is at ${server.clientUrl}\nCtrl+C ends it.`);
} catch (error) {
  console.error(error instanceof Error ? error.message : error);
  await stop(1);
}
