// @ts-check
// npm run separate: the shell and its threads, built first if its source is newer. Plain JavaScript: nothing that reads TypeScript is in the way.
import { execFileSync } from "node:child_process";
import { readdirSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from "node:fs";
import { createRequire } from "node:module";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { setFlagsFromString } from "node:v8";
import { Script } from "node:vm";
import { isMainThread } from "node:worker_threads";

// Half of a short run is compiling (measured: a tenth less of all with these): every function is made machine code at once,
// and when it is made again, better, less of what it calls is made part of it.
setFlagsFromString("--always-sparkplug");
setFlagsFromString("--max-inlined-bytecode-size-cumulative=300");

const root = dirname(dirname(fileURLToPath(import.meta.url)));
const dist = join(root, "cli", "dist");
const built = join(dist, "main.cjs");

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
run();

/** Runs it from what the engine made of it the last time (measured: another tenth less of all). */
function run() {
  // Of another build it is never taken: of two files of one length the engine could not tell.
  const compiled = join(dist, `main.${changedAt(built)}.compiled`);
  const source = readFileSync(built, "utf8");
  const cachedData = readKept(compiled);
  const script = new Script(`(function (exports, require, module, __filename, __dirname, bringIn) {${source}\n})`, {
    filename: built,
    ...(cachedData && { cachedData }),
  });
  // Its threads run but a part of it.
  if (isMainThread && (!cachedData || script.cachedDataRejected))
    process.once("exit", () => keep(compiled, script.createCachedData()));
  const module = { exports: {} };
  const bringIn = (/** @type {string} */ name) => import(name);
  script.runInThisContext()(module.exports, createRequire(built), module, built, dist, bringIn);
}

/** @param {string} path */
function readKept(path) {
  try {
    return readFileSync(path);
  } catch {
    return undefined;
  }
}

/** In place of what was kept of earlier builds. @param {string} path @param {Buffer} bytes */
function keep(path, bytes) {
  const draft = `${path}.${process.pid}`;
  try {
    writeFileSync(draft, bytes);
    for (const name of readdirSync(dist)) if (name.endsWith(".compiled")) rmSync(join(dist, name), { force: true });
    renameSync(draft, path);
  } catch {
    // The folder is another's, or full: then it is compiled each time.
    rmSync(draft, { force: true });
  }
}
