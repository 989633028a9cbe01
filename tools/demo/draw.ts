// npm run demo-art: writes the demo pictures into a folder, to be looked at or sent through the shell.
import { mkdir, writeFile } from "node:fs/promises";
import { join } from "node:path";
import { DEMO_JOBS } from "./jobs.ts";

const folder = process.argv[2] ?? ".data/demo-art";
await mkdir(folder, { recursive: true });
for (const demo of DEMO_JOBS) await writeFile(join(folder, demo.fileName), await demo.draw());
console.log(`${DEMO_JOBS.length} pictures in ${folder}`);
