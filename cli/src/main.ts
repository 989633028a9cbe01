// separate: the product's pipeline from the shell.
import { readArguments, USAGE, UsageError } from "./arguments.ts";
import { separateFile } from "./separate-file.ts";

async function main(): Promise<number> {
  const { files, out, recipe, shapes } = readArguments(process.argv.slice(2));
  let failures = 0;
  for (const file of files) {
    try {
      await separateFile(file, recipe, shapes, out, new Date());
    } catch (error) {
      failures++;
      // One line a file, whatever the message holds.
      process.stderr.write(`${file}: ${reasonOf(error).replace(/\s+/g, " ")}\n`);
    }
  }
  return failures > 0 ? 2 : 0;
}

function reasonOf(error: unknown): string {
  if (!(error instanceof Error)) return String(error);
  const { code } = error as NodeJS.ErrnoException;
  if (code === "ENOENT") return "there is no such file";
  if (code === "EISDIR") return "this is a folder, not a picture";
  if (code === "EACCES") return "the file may not be read";
  return error.message;
}

try {
  process.exitCode = await main();
} catch (error) {
  if (!(error instanceof UsageError)) throw error;
  process.stderr.write(`separate: ${error.message}\n${USAGE}\n`);
  process.exitCode = 2;
}
