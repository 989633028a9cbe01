// The server process: connects, listens, works off runs, and ends cleanly when told to.
import type { Server } from "node:http";
import type { AddressInfo } from "node:net";
import { openPixelCache, startCompute } from "./compute/index.ts";
import { readConfig } from "./config.ts";
import { connectDatabase, isDatabaseAway } from "./database/index.ts";
import { watchDisk } from "./doors/index.ts";
import { makeApp } from "./http/index.ts";
import { makeJobStore } from "./jobs/index.ts";
import { makeMotifStore } from "./motifs/index.ts";
import { makePlacementStore } from "./placements/index.ts";
import { makeClientApp, makeMailStore, makeProofStore } from "./proofs/index.ts";
import { makeRoomStore } from "./room/index.ts";
import { makeRunQueue, makeRunStore, startRunner } from "./runs/index.ts";
import { makeShelfStore } from "./shelf/index.ts";
import { makeTypefaceStore } from "./typefaces/index.ts";

/** How often what is not needed any more is let go of, ms. */
const TIDY_MS = 3_600_000;

const config = readConfig(process.env);
const database = await connectDatabase(config.DATABASE_URL, config.DUMP_FOLDER);
const cache = openPixelCache(config.CACHE_FOLDER, config.CACHE_MB * 2 ** 20);
const compute = startCompute({
  processes: config.PROCESSES,
  readingS: config.READING_S,
  makingS: config.MAKING_S,
  cache,
});
const jobs = makeJobStore(database);
const placements = makePlacementStore(database);
const shelf = makeShelfStore(database);
const typefaces = makeTypefaceStore(database);
const motifs = makeMotifStore(database);
const runs = makeRunStore(database);
const runner = startRunner(
  database,
  { jobs, queue: makeRunQueue(database), typefaces, motifs },
  { compute, most: config.PROCESSES },
);
const clientHost = config.CLIENT_HOST ?? config.HOST;
const clientPort = config.CLIENT_PORT ?? (config.PORT === 0 ? 0 : config.PORT + 1);
let clientUrl = config.CLIENT_URL ?? "";
const proofs = makeProofStore(database, (token) => `${clientUrl}/proof/${token}`);
const { SMTP_URL: url, SMTP_FROM: from = "proofs@localhost" } = config;
const mails = makeMailStore(database, url ? { url, from } : null);
const webRoot = config.WEB_ROOT;
const disk = watchDisk(config.DISK_FOLDER, config.LEAST_FREE_MB);
const clientDoor = makeClientApp(proofs, disk, config.CLIENT_URL ? [config.CLIENT_URL] : [], webRoot).listen(
  clientPort,
  clientHost,
  (error) => {
    if (error) throw error;
    const { port } = clientDoor.address() as AddressInfo;
    clientUrl ||= `http://${clientHost}:${port}`;
    console.log(`clients' door on http://${clientHost}:${port}`);
    open();
  },
);

const addresses = config.SHOP_URL ? [config.SHOP_URL] : [];
const stores = { jobs, runs, placements, shelf, typefaces, motifs, proofs, mails };
const room = makeRoomStore(database, { cache, dumps: config.DUMP_FOLDER, disk });
const tidying = setInterval(() => {
  room.tidy().catch((error) => {
    if (!isDatabaseAway(error)) console.error("tidying:", error);
  });
}, TIDY_MS);
const app = makeApp({ ...stores, room, compute, database, disk, addresses, webRoot });
let server: Server | undefined;
/** Once links can be written. */
function open(): void {
  const opened = app.listen(config.PORT, config.HOST, (error) => {
    if (error) throw error;
    const { port } = opened.address() as AddressInfo;
    console.log(`listening on http://${config.HOST}:${port}`);
  });
  server = opened;
}

let isStopping = false;
for (const signal of ["SIGINT", "SIGTERM"] as const)
  process.on(signal, async () => {
    if (isStopping) return;
    isStopping = true;
    clearInterval(tidying);
    for (const door of [server, clientDoor]) {
      door?.close();
      door?.closeAllConnections();
    }
    await runner.stop();
    await compute.close();
    await database.destroy();
    process.exit(0);
  });
