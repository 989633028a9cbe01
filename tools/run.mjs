// @ts-check
// The way in on a machine with Node only: installs what is missing, then hands over to TypeScript.
// Plain JavaScript because nothing is installed yet when it runs.
import { spawn, spawnSync } from "node:child_process";
import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

const root = dirname(dirname(fileURLToPath(import.meta.url)));

/** Debian's packages behind the commands that each way in needs. */
const PROGRAMS = {
  start: { mariadbd: "mariadb-server", pdftocairo: "poppler-utils" },
  test: {
    mariadbd: "mariadb-server",
    chromium: "chromium",
    gs: "ghostscript",
    qpdf: "qpdf",
    pdftocairo: "poppler-utils",
    pnmtops: "netpbm",
    tiffcp: "libtiff-tools",
    tificc: "liblcms2-utils",
    xmllint: "libxml2-utils",
    cwebp: "webp",
    avifenc: "libavif-bin",
    "rsvg-convert": "librsvg2-bin",
    hp2xx: "hp2xx",
  },
};

/** @param {string} command @param {string[]} args @param {Record<string, string>} [more] */
function runOrEnd(command, args, more = {}) {
  const done = spawnSync(command, args, { cwd: root, stdio: "inherit", env: { ...process.env, ...more } });
  if (done.status !== 0) {
    console.error(`"${command} ${args.join(" ")}" failed; nothing was started.`);
    process.exit(1);
  }
}

/** @param {string} program */
function isInstalled(program) {
  const places = [...(process.env.PATH ?? "").split(":"), "/usr/sbin", "/usr/local/sbin"];
  return places.some((place) => existsSync(join(place, program)));
}

/** @param {Record<string, string>} programs */
function ensurePrograms(programs) {
  const packages = Object.entries(programs).flatMap(([program, name]) => (isInstalled(program) ? [] : [name]));
  if (packages.length === 0) return;
  const install = ["install", "-y", "--no-install-recommends", ...packages];
  if (process.getuid?.() !== 0) {
    console.error(`These Debian packages are missing. As root:\n  apt-get update && apt-get ${install.join(" ")}`);
    process.exit(1);
  }
  const quiet = { DEBIAN_FRONTEND: "noninteractive" };
  runOrEnd("apt-get", ["update", "-qq"], quiet);
  runOrEnd("apt-get", install, quiet);
}

/** npm ci unless node_modules was made from this very lock file. */
function ensureModules() {
  const lock = readFileSync(join(root, "package-lock.json"), "utf8");
  const stamp = join(root, "node_modules", ".installed-lock.json");
  if (existsSync(stamp) && readFileSync(stamp, "utf8") === lock) return;
  runOrEnd("npm", ["ci", "--no-audit", "--no-fund"]);
  mkdirSync(dirname(stamp), { recursive: true });
  writeFileSync(stamp, lock);
}

const way = process.argv[2] === "test" ? "test" : "start";
ensurePrograms(PROGRAMS[way]);
ensureModules();
// It ends when this process does, however that is.
const program = [process.execPath, "--import", "tsx", join("tools", `${way}.ts`), ...process.argv.slice(3)];
const child = spawn("setpriv", ["--pdeathsig=TERM", ...program], { cwd: root, stdio: "inherit" });
// Ctrl+C reaches the child by itself (same terminal); a plain kill is passed on.
process.on("SIGINT", () => {});
process.on("SIGTERM", () => child.kill("SIGTERM"));
child.on("exit", (code) => process.exit(code ?? 1));
