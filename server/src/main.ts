// The server process: connects, listens, works off runs, and ends cleanly when told to.
import type { AddressInfo } from "node:net";
import { startCompute } from "./compute/index.ts";
import { readConfig } from "./config.ts";
import { connectDatabase } from "./database/index.ts";
import { makeApp } from "./http/index.ts";
import { makeJobStore } from "./jobs/index.ts";
import { makeMotifStore } from "./motifs/index.ts";
import { makePlacementStore } from "./placements/index.ts";
import { makeRunStore, startRunner } from "./runs/index.ts";
import { makeShelfStore } from "./shelf/index.ts";
import { makeTypefaceStore } from "./typefaces/index.ts";

const config = readConfig(process.env);
const database = await connectDatabase(config.DATABASE_URL);
const compute = startCompute(config.THREADS);
const jobs = makeJobStore(database);
const placements = makePlacementStore(database);
const shelf = makeShelfStore(database);
const typefaces = makeTypefaceStore(database);
const motifs = makeMotifStore(database);
const runs = makeRunStore(database);
const runner = startRunner(database, { jobs, runs, typefaces, motifs }, compute);
const server = makeApp({ jobs, runs, placements, shelf, typefaces, motifs, compute, webRoot: config.WEB_ROOT }).listen(
  config.PORT,
  config.HOST,
  (error) => {
    if (error) throw error;
    const { port } = server.address() as AddressInfo;
    console.log(`listening on http://${config.HOST}:${port}`);
  },
);

let isStopping = false;
for (const signal of ["SIGINT", "SIGTERM"] as const)
  process.on(signal, async () => {
    if (isStopping) return;
    isStopping = true;
    server.close();
    server.closeAllConnections();
    await runner.stop();
    await compute.close();
    await database.destroy();
    process.exit(0);
  });
