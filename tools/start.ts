// npm start: build, database, server, demo once, all kept up; Ctrl+C ends all of it.
import { existsSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { buildServer, buildWeb } from "./build.ts";
import { findFreePort, reachableFolder, startMariaDb, tryPort } from "./database/mariadb.ts";
import { seedDemo } from "./demo/seed.ts";
import { ROOT, startServer } from "./server-process.ts";
import { claimFolder } from "./supervise/claim-folder.ts";
import { keepUp } from "./supervise/keep-up.ts";

/** Everything that lasts. Elsewhere for tests only. */
const DATA = process.env.DATA_FOLDER ?? join(ROOT, ".data");
/** Usual ports of the shop and of the clients' door. */
const PORTS = { PORT: 4310, CLIENT_PORT: 4410 } as const;

/** Ends what was started, in the order in which it may end. */
const toStop: (() => Promise<void>)[] = [];
let isStopping = false;
async function stop(code: number): Promise<void> {
  if (isStopping) return;
  isStopping = true;
  for (const end of toStop.reverse()) await end();
  process.exit(code);
}
process.on("SIGINT", () => stop(0));
process.on("SIGTERM", () => stop(0));

/** A port that was asked for has to be free; the usual one gives way to any. */
async function choosePort(name: keyof typeof PORTS): Promise<string> {
  const wanted = process.env[name];
  if (wanted === undefined || wanted === "0") return String(await findFreePort(wanted === "0" ? 0 : PORTS[name]));
  if ((await tryPort(Number(wanted))) === null)
    throw new Error(
      `${name} ${wanted} is taken by another program. Nothing was touched. End that, or choose another port.`,
    );
  return wanted;
}

async function start(): Promise<void> {
  const claim = await claimFolder(DATA);
  const ports = { PORT: await choosePort("PORT"), CLIENT_PORT: await choosePort("CLIENT_PORT") };
  console.log("Building the web application ...");
  await buildWeb();
  await buildServer();

  console.log("Starting MariaDB ...");
  const folder = reachableFolder(join(DATA, "mariadb"));
  const databasePort = await findFreePort();
  const database = await keepUp("The database", () => startMariaDb(folder, databasePort), console.log);
  toStop.push(() => database.stop());

  const environment = {
    ...ports,
    DATABASE_URL: database.current().url,
    WEB_ROOT: join(ROOT, "web", "dist"),
    CACHE_FOLDER: join(DATA, "cache"),
    DUMP_FOLDER: join(DATA, "dumps"),
    DISK_FOLDER: folder,
  };
  const server = await keepUp("The server", () => startServer(environment, { isHeard: true }), console.log);
  toStop.push(() => server.stop());

  const { url, clientUrl } = server.current();
  const seeded = join(DATA, "demo-seeded");
  if (!existsSync(seeded)) {
    console.log("Drawing the demo jobs ...");
    await seedDemo(url);
    writeFileSync(seeded, "");
  }
  claim.tell(url);
  console.log(`\nPlain Palette is at ${url}\nThe clients' door is at ${clientUrl}\nCtrl+C ends it.`);
}

try {
  await start();
} catch (error) {
  console.error(error instanceof Error ? error.message : error);
  await stop(1);
}
