// npm test: lint, types, unit, server and browser tests; the totals of all of them at the end.
import { spawnSync } from "node:child_process";
import { mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { z } from "zod";
import { ROOT } from "./server-process.ts";

const RESULTS = join(ROOT, "test-results");

interface Totals {
  readonly passed: number;
  readonly failed: number;
}

function run(title: string, command: string, ...args: string[]): boolean {
  console.log(`\n== ${title}`);
  const done = spawnSync(join(ROOT, "node_modules", ".bin", command), args, { cwd: ROOT, stdio: "inherit" });
  return done.status === 0;
}

/** A check that counts as one test. */
function check(title: string, command: string, ...args: string[]): Totals {
  return run(title, command, ...args) ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 };
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

function vitest(title: string, file: string, ...projects: string[]): Totals {
  const report = join(RESULTS, file);
  const names = projects.flatMap((name) => ["--project", name]);
  const isGood = run(
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

function browser(): Totals {
  const report = join(RESULTS, "e2e.json");
  const isGood = run("Browser tests", "playwright", "test", "-c", "web/playwright.config.ts");
  return count(isGood, () => {
    const { stats } = playwrightReport.parse(JSON.parse(readFileSync(report, "utf8")));
    return { passed: stats.expected + stats.flaky, failed: stats.unexpected };
  });
}

rmSync(RESULTS, { recursive: true, force: true });
mkdirSync(RESULTS, { recursive: true });
const all: Totals[] = [
  check("Lint and format", "biome", "check", "--error-on-warnings", "."),
  check("Types: server, cli, tools", "tsc", "--noEmit", "-p", "tsconfig.json"),
  check("Types: core without a platform", "tsc", "--noEmit", "-p", "core/tsconfig.json"),
  check("Types: web", "tsc", "--noEmit", "-p", "web/tsconfig.json"),
  vitest("Unit tests and the shell", "unit.json", "core", "cli", "web"),
  vitest("Server tests", "server.json", "server"),
  browser(),
];
const totals = all.reduce((sum, one) => ({ passed: sum.passed + one.passed, failed: sum.failed + one.failed }), {
  passed: 0,
  failed: 0,
});
const line = `${totals.passed} passed, ${totals.failed} failed`;
writeFileSync(join(RESULTS, "totals.txt"), `${line}\n`);
console.log(`\n${line}`);
process.exit(totals.failed === 0 ? 0 : 1);
