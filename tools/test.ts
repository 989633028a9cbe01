// npm test: lint, types, unit, server and browser tests; the totals of all of them at the end.
import { spawn } from "node:child_process";
import { mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { z } from "zod";
import { ROOT } from "./server-process.ts";

const RESULTS = join(ROOT, "test-results");

interface Totals {
  readonly passed: number;
  readonly failed: number;
}

/** Only one speaks while two run: what the other says follows when both have ended. */
let speaking: Promise<boolean> | null = null;

async function run(title: string, command: string, ...args: string[]): Promise<boolean> {
  const before = speaking;
  const child = spawn(join(ROOT, "node_modules", ".bin", command), args, {
    cwd: ROOT,
    stdio: ["ignore", before ? "pipe" : "inherit", before ? "pipe" : "inherit"],
  });
  const said: Buffer[] = [];
  child.stdout?.on("data", (chunk: Buffer) => said.push(chunk));
  child.stderr?.on("data", (chunk: Buffer) => said.push(chunk));
  const ended = new Promise<boolean>((resolve) => {
    child.once("error", () => resolve(false));
    child.once("close", (status) => resolve(status === 0));
  });
  if (before) {
    await Promise.all([ended, before]);
    console.log(`\n== ${title}\n${Buffer.concat(said)}`);
  } else {
    console.log(`\n== ${title}`);
    speaking = ended;
    await ended;
    speaking = null;
  }
  return ended;
}

/** A check that counts as one test. */
async function check(title: string, command: string, ...args: string[]): Promise<Totals> {
  return (await run(title, command, ...args)) ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 };
}

const vitestReport = z.object({ numPassedTests: z.number(), numFailedTests: z.number(), success: z.boolean() });
const playwrightReport = z.object({
  stats: z.object({ expected: z.number(), unexpected: z.number(), flaky: z.number() }),
});

/** Reads a runner's own report; a runner that failed without a failed test (a crash, a missing report) counts as one failure. */
function count(isGood: boolean, read: () => Totals): Totals {
  try {
    const totals = read();
    return isGood || totals.failed > 0 ? totals : { ...totals, failed: 1 };
  } catch {
    return { passed: 0, failed: 1 };
  }
}

async function vitest(title: string, file: string, ...projects: string[]): Promise<Totals> {
  const report = join(RESULTS, file);
  const names = projects.flatMap((name) => ["--project", name]);
  const isGood = await run(
    title,
    "vitest",
    "run",
    ...names,
    "--reporter=default",
    "--reporter=json",
    `--outputFile.json=${report}`,
  );
  return count(isGood, () => {
    const { numPassedTests, numFailedTests } = vitestReport.parse(JSON.parse(readFileSync(report, "utf8")));
    return { passed: numPassedTests, failed: numFailedTests };
  });
}

async function browser(): Promise<Totals> {
  const report = join(RESULTS, "e2e.json");
  const isGood = await run("Browser tests", "playwright", "test", "-c", "web/playwright.config.ts");
  return count(isGood, () => {
    const { stats } = playwrightReport.parse(JSON.parse(readFileSync(report, "utf8")));
    return { passed: stats.expected + stats.flaky, failed: stats.unexpected };
  });
}

rmSync(RESULTS, { recursive: true, force: true });
mkdirSync(RESULTS, { recursive: true });
// Two at a time: what two cores hold. The browser tests are two at a time of themselves.
const all = [
  await check("Lint and format", "biome", "check", "--error-on-warnings", "."),
  // Core's declarations are what the others are checked against.
  await check("Types: core without a platform", "tsc", "-b", "core"),
  ...(await Promise.all([
    check("Types: tests and bench", "tsc", "--noEmit", "-p", "tsconfig.tests.json"),
    check("Types: web", "tsc", "--noEmit", "-p", "web/tsconfig.json"),
  ])),
  await check("Types: contract, server, cli, tools", "tsc", "--noEmit", "-p", "tsconfig.json"),
  ...(await Promise.all([
    vitest("Unit tests and the shell", "unit.json", "core", "cli", "web"),
    vitest("Server tests", "server.json", "server"),
  ])),
  await browser(),
];
const totals = all.reduce((sum, one) => ({ passed: sum.passed + one.passed, failed: sum.failed + one.failed }), {
  passed: 0,
  failed: 0,
});
const line = `${totals.passed} passed, ${totals.failed} failed`;
writeFileSync(join(RESULTS, "totals.txt"), `${line}\n`);
console.log(`\n${line}`);
process.exit(totals.failed === 0 ? 0 : 1);
