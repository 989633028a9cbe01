// npm run guards -- FOLDER...: which test guards which constant. Each named number in these folders of core is doubled and
// then halved, alone, in a copy of what is committed; the first test beside it that fails guards it. Prints rows of the table in
// docs/constants.md. Slow: a constant takes as long as its folder's tests.
import { execFileSync, spawnSync } from "node:child_process";
import { mkdtempSync, readdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { ROOT } from "./server-process.ts";

const CONSTANT = /^(?:export )?const ([A-Z][A-Z0-9_]+) = (-?[0-9][0-9._]*);/gm;

const copy = mkdtempSync(join(tmpdir(), "plain-palette-guards-"));
try {
  execFileSync("git", ["-C", ROOT, "worktree", "add", "--detach", copy, "HEAD"], { stdio: "ignore" });
  symlinkSync(join(ROOT, "node_modules"), join(copy, "node_modules"));
  for (const folder of process.argv.slice(2)) for (const file of sourcesIn(folder)) guardFile(folder, file);
} finally {
  execFileSync("git", ["-C", ROOT, "worktree", "remove", "--force", copy]);
  rmSync(copy, { recursive: true, force: true });
}

function sourcesIn(folder: string): string[] {
  return readdirSync(join(copy, folder), { recursive: true, encoding: "utf8" })
    .filter((name) => name.endsWith(".ts") && !name.includes(".test."))
    .map((name) => join(folder, name))
    .sort();
}

function guardFile(folder: string, file: string): void {
  const path = join(copy, file);
  const source = readFileSync(path, "utf8");
  for (const [line, name, written = ""] of source.matchAll(CONSTANT)) {
    const value = Number(written.replaceAll("_", ""));
    const guard = [value * 2, value / 2].map((other) => {
      writeFileSync(path, source.replace(line, line.replace(written, String(other))));
      return firstFailure(folder);
    });
    writeFileSync(path, source);
    console.log(`| \`${file.replace("core/src/", "")}\` | ${name} = ${written} | ${guard[0]} | ${guard[1]} |`);
  }
}

/** The first test that fails, or a dash. */
function firstFailure(folder: string): string {
  const { stdout } = spawnSync(
    process.execPath,
    [
      join(ROOT, "node_modules", "vitest", "vitest.mjs"),
      "run",
      "--project",
      "core",
      "--bail",
      "1",
      // A busy machine guards nothing.
      "--testTimeout",
      "0",
      "--reporter",
      "json",
      folder,
    ],
    { cwd: copy, encoding: "utf8", maxBuffer: 1 << 28 },
  );
  const report = JSON.parse(stdout.slice(stdout.indexOf("{"))) as {
    testResults: { assertionResults: { fullName: string; status: string }[] }[];
  };
  const failed = report.testResults.flatMap((file) => file.assertionResults).find(({ status }) => status === "failed");
  return failed?.fullName ?? "-";
}
