// The server process: connects, listens, works off runs, and ends cleanly when told to.
import type { AddressInfo } from "node:net";
import { startCompute } from "./compute/index.ts";
import { readConfig } from "./config.ts";
import { connectDatabase } from "./database/index.ts";
import { makeApp } from "./http/app.ts";
import { makeJobStore } from "./jobs/job-store.ts";
import { makePlacementStore } from "./placements/placement-store.ts";
import { makeRunStore } from "./runs/run-store.ts";
import { startRunner } from "./runs/runner.ts";
import { makeShelfStore } from "./shelf/shelf-store.ts";

const config = readConfig(process.env);
const database = await connectDatabase(config.DATABASE_URL);
const compute = startCompute(config.THREADS);
const jobs = makeJobStore(database);
const placements = makePlacementStore(database);
const shelf = makeShelfStore(database);
const runs = makeRunStore(database);
const runner = startRunner(database, jobs, runs, compute);
const server = makeApp({ jobs, runs, placements, shelf, compute, webRoot: config.WEB_ROOT }).listen(
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
