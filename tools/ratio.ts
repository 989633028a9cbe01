// npm run ratio: how much of the code is tests (wanted: a quarter to a third). Counts lines that are not blank.
import { execFileSync } from "node:child_process";
import { readFileSync } from "node:fs";

const files = execFileSync("git", ["ls-files", "*.ts", "*.tsx", "*.mjs", "*.js", "*.css"], { encoding: "utf8" })
  .trim()
  .split("\n");
let all = 0;
let tests = 0;
for (const file of files) {
  const lines = readFileSync(file, "utf8")
    .split("\n")
    .filter((line) => line.trim() !== "").length;
  all += lines;
  if (/\.test\.|\/e2e\/|\.spec\./.test(file)) tests += lines;
}
console.log(`${tests} of ${all} lines are tests: ${Math.round((100 * tests) / all)} %`);
