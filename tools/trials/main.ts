// npm run trial -- kills|uploads|load|pair|doors|disk [COUNT]: how the shop stands, in figures. Loopback only, and bounded.
import { trialOfDisk } from "./disk.ts";
import { trialOfDoors } from "./doors.ts";
import { trialOfKills } from "./kills.ts";
import { trialOfLoad, trialOfPair } from "./load.ts";
import { trialOfUploads } from "./uploads.ts";

/** Each with what it counts when nothing is said: kills, files, seconds, and the share of all combinations. */
const TRIALS: Readonly<Record<string, { run(count: number): Promise<unknown>; usual: number }>> = {
  kills: { run: trialOfKills, usual: 1000 },
  uploads: { run: (count) => trialOfUploads(count), usual: 100_000 },
  load: { run: trialOfLoad, usual: 600 },
  pair: { run: trialOfPair, usual: 120 },
  disk: { run: trialOfDisk, usual: 20 },
  doors: { run: trialOfDoors, usual: 0.2 },
};

const [, , name = "", count] = process.argv;
const trial = TRIALS[name];
if (trial) await trial.run(count === undefined ? trial.usual : Number(count));
else {
  console.error(`npm run trial -- ${Object.keys(TRIALS).join("|")} [COUNT]`);
  process.exitCode = 1;
}
