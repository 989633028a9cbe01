// npm test: lint, types, unit, server and browser tests; the totals of all of them at the end.
import { spawn } from "node:child_process";
import { mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join, relative } from "node:path";
import { stripVTControlCharacters } from "node:util";
import { z } from "zod";
import { ROOT } from "./server-process.ts";

const RESULTS = join(ROOT, "test-results");

interface Totals {
  readonly passed: number;
  /** What failed: its name, and below it how its message begins. */
  readonly failed: readonly string[];
}

/** A failed test as it is told at the end: a property's seed and the case it fails on stand in its message's first lines. */
function failure(name: string, messages: readonly string[]): string {
  const said = messages.flatMap((message) => stripVTControlCharacters(message).split("\n")).slice(0, 8);
  return [name, ...said.map((line) => `  ${line.slice(0, 600)}`)].join("\n");
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
  return (await run(title, command, ...args)) ? { passed: 1, failed: [] } : { passed: 0, failed: [title] };
}

const vitestReport = z.object({
  numPassedTests: z.number(),
  testResults: z.array(
    z.object({
      name: z.string(),
      assertionResults: z.array(
        z.object({ status: z.string(), fullName: z.string(), failureMessages: z.array(z.string()) }),
      ),
    }),
  ),
});
const spec = z.object({
  title: z.string(),
  file: z.string(),
  ok: z.boolean(),
  tests: z.array(z.object({ results: z.array(z.object({ error: z.object({ message: z.string() }).optional() })) })),
});
const playwrightReport = z.object({ stats: z.object({ expected: z.number(), flaky: z.number() }), suites: suites() });

/** A runner's tests by file, and within another to any depth. */
function suites(): z.ZodType<Suite[]> {
  return z.array(
    z.object({
      specs: z.array(spec),
      suites: z.lazy(suites).optional(),
    }),
  );
}

interface Suite {
  readonly specs: readonly z.infer<typeof spec>[];
  readonly suites?: readonly Suite[] | undefined;
}

/** Reads a runner's own report; a runner that failed without a failed test (a crash, a missing report) is a failure itself. */
function count(title: string, isGood: boolean, read: () => Totals): Totals {
  try {
    const totals = read();
    return isGood || totals.failed.length > 0 ? totals : { ...totals, failed: [title] };
  } catch {
    return { passed: 0, failed: [title] };
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
  return count(title, isGood, () => {
    const { numPassedTests, testResults } = vitestReport.parse(JSON.parse(readFileSync(report, "utf8")));
    const failed = testResults.flatMap(({ name, assertionResults }) =>
      assertionResults
        .filter(({ status }) => status === "failed")
        .map(({ fullName, failureMessages }) => failure(`${relative(ROOT, name)}: ${fullName}`, failureMessages)),
    );
    return { passed: numPassedTests, failed };
  });
}

type SpecTest = z.infer<typeof spec>["tests"][number];
const messagesOf = ({ results }: SpecTest) => results.flatMap(({ error }) => error?.message ?? []);

async function browser(): Promise<Totals> {
  const title = "Browser tests";
  const report = join(RESULTS, "e2e.json");
  const isGood = await run(title, "playwright", "test", "-c", "web/playwright.config.ts");
  return count(title, isGood, () => {
    const { stats, suites } = playwrightReport.parse(JSON.parse(readFileSync(report, "utf8")));
    const failedIn = (suite: Suite): string[] => [
      ...suite.specs
        .filter(({ ok }) => !ok)
        .map(({ file, title, tests }) => failure(`${file}: ${title}`, tests.flatMap(messagesOf))),
      ...(suite.suites ?? []).flatMap(failedIn),
    ];
    return { passed: stats.expected + stats.flaky, failed: suites.flatMap(failedIn) };
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
const failed = all.flatMap((one) => one.failed);
const line = `${all.reduce((sum, { passed }) => sum + passed, 0)} passed, ${failed.length} failed`;
writeFileSync(join(RESULTS, "totals.txt"), `${line}\n`);
// Whoever sees only the end of what was printed sees which.
console.log(["", ...failed.map((name) => `failed: ${name}`), line].join("\n"));
process.exit(failed.length === 0 ? 0 : 1);
