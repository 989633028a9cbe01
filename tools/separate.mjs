// @ts-check
// npm run separate: the shell, built first if its source is newer. Plain JavaScript: nothing that reads TypeScript is in the way.
import { execFileSync } from "node:child_process";
import { readdirSync, statSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath, pathToFileURL } from "node:url";
import { setFlagsFromString } from "node:v8";

// Half of a short run is compiling (measured: a tenth less of all with these): every function is made machine code at once,
// and when it is made again, better, less of what it calls is made part of it.
setFlagsFromString("--always-sparkplug");
setFlagsFromString("--max-inlined-bytecode-size-cumulative=300");

const root = dirname(dirname(fileURLToPath(import.meta.url)));
const built = join(root, "cli", "dist", "main.js");

/** @param {string} path */
function changedAt(path) {
  return statSync(path, { throwIfNoEntry: false })?.mtimeMs ?? 0;
}

/** When anything in a folder changed last. @param {string} folder @returns {number} */
function newestIn(folder) {
  const times = readdirSync(folder, { withFileTypes: true }).map((entry) => {
    const path = join(folder, entry.name);
    return entry.isDirectory() ? newestIn(path) : changedAt(path);
  });
  return Math.max(changedAt(folder), ...times);
}

const sources = ["core/src", "cli/src", "server/src"].map((folder) => newestIn(join(root, folder)));
const settings = ["package-lock.json", "cli/vite.config.ts"].map((file) => changedAt(join(root, file)));
if (changedAt(built) < Math.max(...sources, ...settings)) {
  const vite = join(root, "node_modules", ".bin", "vite");
  execFileSync(vite, ["build", "cli", "--logLevel", "warn"], { cwd: root, stdio: ["ignore", "ignore", "inherit"] });
}
await import(pathToFileURL(built).href);
