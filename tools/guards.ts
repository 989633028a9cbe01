// npm run guards -- [--tests FILE,...] PATH...: which test guards which constant. Each named number in these files or folders of
// core is doubled, alone, in a copy of what is committed; the first test of its part of core that fails guards it. Where none
// does it is halved. `--tests` asks only these. Prints rows of the table in docs/constants.md. Slow: a constant that nothing
// guards takes twice as long as the tests.
import { execFileSync, spawnSync } from "node:child_process";
import { mkdtempSync, readdirSync, readFileSync, rmSync, statSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { parseArgs } from "node:util";
import { ROOT } from "./server-process.ts";

const CONSTANT = /^(?:export )?const ([A-Z][A-Z0-9_]+) = (-?[0-9][0-9._]*);/gm;

const { values, positionals } = parseArgs({ options: { tests: { type: "string" } }, allowPositionals: true });
const copy = mkdtempSync(join(tmpdir(), "plain-palette-guards-"));
try {
  execFileSync("git", ["-C", ROOT, "worktree", "add", "--detach", copy, "HEAD"], { stdio: "ignore" });
  symlinkSync(join(ROOT, "node_modules"), join(copy, "node_modules"));
  for (const path of positionals) for (const file of sourcesIn(path)) guardFile(file);
} finally {
  execFileSync("git", ["-C", ROOT, "worktree", "remove", "--force", copy]);
  rmSync(copy, { recursive: true, force: true });
}

function sourcesIn(path: string): string[] {
  if (!statSync(join(copy, path)).isDirectory()) return [path];
  return readdirSync(join(copy, path), { recursive: true, encoding: "utf8" })
    .filter((name) => name.endsWith(".ts") && !name.includes(".test."))
    .map((name) => join(path, name))
    .sort();
}

function guardFile(file: string): void {
  const path = join(copy, file);
  const source = readFileSync(path, "utf8");
  for (const [line, name, written = ""] of source.matchAll(CONSTANT)) {
    const value = Number(written.replaceAll("_", ""));
    const failureAt = (other: number) => {
      writeFileSync(path, source.replace(line, line.replace(written, String(other))));
      return firstFailure(file.split("/").slice(0, 3).join("/"));
    };
    const doubled = failureAt(value * 2);
    const guard = doubled === null ? failureAt(value / 2) : doubled;
    writeFileSync(path, source);
    const how = doubled === null ? "halved" : "doubled";
    console.log(
      `| \`${file.replace("core/src/", "")}\` | ${name} = ${written} | ${guard ? `${how}: ${guard}` : "-"} |`,
    );
  }
}

/** The first test of a part of core that fails, or null. */
function firstFailure(part: string): string | null {
  const vitest = join(ROOT, "node_modules", "vitest", "vitest.mjs");
  const tests = values.tests?.split(",") ?? [part];
  const { stdout } = spawnSync(
    process.execPath,
    // On a busy machine a test takes its time, and that guards nothing.
    [vitest, "run", "--project", "core", "--bail", "1", "--reporter", "json", "--testTimeout", "0", ...tests],
    { cwd: copy, encoding: "utf8", maxBuffer: 1 << 28 },
  );
  const report = JSON.parse(stdout.slice(stdout.indexOf("{"))) as {
    testResults: { assertionResults: { fullName: string; status: string }[] }[];
  };
  const failed = report.testResults.flatMap((file) => file.assertionResults).find(({ status }) => status === "failed");
  return failed?.fullName ?? null;
}
