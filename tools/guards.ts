// npm run guards -- [--tests FILE,...] PATH...: which test guards which constant. Each named number in these files or folders of
// core is doubled, alone, in a copy of what is committed; the first test of its part of core that fails guards it. Where none
// does it is halved. `--tests` asks only these. Prints rows of the table in docs/constants.md. Slow: a constant that nothing
// guards takes twice as long as the tests.
import { execFileSync } from "node:child_process";
import { mkdtempSync, readdirSync, readFileSync, rmSync, statSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { parseArgs } from "node:util";
import { createVitest, type Vitest } from "vitest/node";
import { ROOT } from "./server-process.ts";

const CONSTANT = /^(?:export )?const ([A-Z][A-Z0-9_]+) = (-?[0-9][0-9._]*);/gm;

const { values, positionals } = parseArgs({ options: { tests: { type: "string" } }, allowPositionals: true });
const copy = mkdtempSync(join(tmpdir(), "plain-palette-guards-"));
try {
  execFileSync("git", ["-C", ROOT, "worktree", "add", "--detach", copy, "HEAD"], { stdio: "ignore" });
  symlinkSync(join(ROOT, "node_modules"), join(copy, "node_modules"));
  for (const path of positionals) await guardPath(path);
} finally {
  execFileSync("git", ["-C", ROOT, "worktree", "remove", "--force", copy]);
  rmSync(copy, { recursive: true, force: true });
}

/** One vitest for all of them: what does not change is read once. */
async function guardPath(path: string): Promise<void> {
  const tests = values.tests?.split(",") ?? [path.split("/").slice(0, 3).join("/")];
  const vitest = await createVitest(
    "test",
    // On a busy machine a test takes its time, and that guards nothing.
    { root: copy, project: ["core"], watch: true, bail: 1, testTimeout: 0, maxWorkers: 1, reporters: [{}] },
  );
  try {
    await vitest.standalone();
    for (const file of sourcesIn(path)) await guardFile(vitest, tests, file);
  } finally {
    await vitest.close();
  }
}

function sourcesIn(path: string): string[] {
  if (!statSync(join(copy, path)).isDirectory()) return [path];
  return readdirSync(join(copy, path), { recursive: true, encoding: "utf8" })
    .filter((name) => name.endsWith(".ts") && !name.includes(".test."))
    .map((name) => join(path, name))
    .sort();
}

async function guardFile(vitest: Vitest, tests: readonly string[], file: string): Promise<void> {
  const path = join(copy, file);
  const source = readFileSync(path, "utf8");
  for (const [line, name, written = ""] of source.matchAll(CONSTANT)) {
    const value = Number(written.replaceAll("_", ""));
    const failureAt = (other: number) => {
      writeFileSync(path, source.replace(line, line.replace(written, String(other))));
      vitest.invalidateFile(path);
      return firstFailure(vitest, tests);
    };
    const doubled = await failureAt(value * 2);
    const guard = doubled ?? (await failureAt(value / 2));
    writeFileSync(path, source);
    vitest.invalidateFile(path);
    const how = doubled === null ? "halved" : "doubled";
    console.log(
      `| \`${file.replace("core/src/", "")}\` | ${name} = ${written} | ${guard ? `${how}: ${guard}` : "-"} |`,
    );
  }
}

/** The first of these tests that fails, or null. */
async function firstFailure(vitest: Vitest, tests: readonly string[]): Promise<string | null> {
  const { testModules } = await vitest.runTestSpecifications(await vitest.getRelevantTestSpecifications([...tests]));
  for (const module of testModules) {
    for (const test of module.children.allTests("failed")) return test.fullName;
    // A number that a file cannot even be read with is guarded by all that read it.
    if (module.errors().length > 0) return module.relativeModuleId;
  }
  return null;
}
