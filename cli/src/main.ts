// separate: the product's pipeline from the shell.
import { basename, extname, join } from "node:path";
import { isMainThread } from "node:worker_threads";
import { readArguments, USAGE, UsageError } from "./arguments.ts";
import { help, openHelpers } from "./helpers.ts";
import { makeOutputFolder, OutputError } from "./output-folder.ts";
import { separateFile } from "./separate-file.ts";

async function main(): Promise<number> {
  const { files, out, ...wanted } = readArguments(process.argv.slice(2));
  await makeOutputFolder(out);
  const helpers = openHelpers();
  const taken = new Set<string>();
  let failures = 0;
  for (const file of files) {
    const say = (text: string) => {
      // One line each, whatever the message holds.
      process.stderr.write(`${file}: ${text.replace(/\s+/g, " ")}\n`);
    };
    try {
      const warnings = await separateFile(file, join(out, folderOf(file, taken)), wanted, helpers, new Date());
      for (const warning of warnings) say(`warning: ${warning}`);
    } catch (error) {
      failures++;
      say(reasonOf(error));
    }
  }
  helpers.close();
  return failures > 0 ? 2 : 0;
}

/** A folder for each file, named as the file: a second one of the same name gets a number. */
function folderOf(file: string, taken: Set<string>): string {
  const name = basename(file, extname(file));
  let folder = name;
  for (let n = 2; taken.has(folder.toLowerCase()); n++) folder = `${name} ${n}`;
  taken.add(folder.toLowerCase());
  return folder;
}

function reasonOf(error: unknown): string {
  if (!(error instanceof Error)) return String(error);
  if (error instanceof OutputError) return `the output is not written: ${error.message}`;
  const { code } = error as NodeJS.ErrnoException;
  if (code === "ENOENT") return "there is no such file";
  if (code === "EISDIR") return "this is a folder, not a picture";
  if (code === "EACCES") return "the file may not be read";
  return error.message;
}

function tell(error: unknown): void {
  if (error instanceof UsageError)
    process.stderr.write(`separate: ${error.message}\n${error.needsUsage ? `${USAGE}\n` : ""}`);
  else if (error instanceof OutputError) process.stderr.write(`separate: --out: ${error.message}\n`);
  else throw error;
  process.exitCode = 2;
}

// Its threads begin here, too.
if (isMainThread)
  main().then((code) => {
    process.exitCode = code;
  }, tell);
else help();
