// Where files go: made or refused before any work, and never half written.
import { randomBytes } from "node:crypto";
import { constants } from "node:fs";
import { access, mkdir, open, rename, rm, stat } from "node:fs/promises";
import { dirname, join, resolve } from "node:path";

/** The output cannot be written; the message names the place and the reason. */
export class OutputError extends Error {
  override readonly name = "OutputError";
}

export interface OutputFile {
  readonly name: string;
  readonly bytes: Uint8Array | string;
}

/** Makes a folder for output, and those above it, or throws an OutputError. */
export async function makeOutputFolder(folder: string): Promise<void> {
  const missing: string[] = [];
  // Step by step upwards: a library's "recursive" never comes to an end where the system makes folders of its own.
  let place = resolve(folder);
  try {
    for (;;) {
      const found = await stat(place).catch((error: NodeJS.ErrnoException) => {
        if (error.code === "ENOENT") return null;
        throw error;
      });
      if (found && !found.isDirectory()) throw new OutputError(`${place} is a file, not a folder`);
      if (found) break;
      missing.push(place);
      place = dirname(place);
    }
    await access(place, constants.W_OK | constants.X_OK);
    for (const next of missing.reverse()) await mkdir(next);
  } catch (error) {
    throw explain(error, folder);
  }
}

/**
 * Writes files into a folder, all of them or none: first beside it under another name, then each is moved into its place. An
 * earlier run's files of the same names are replaced only then.
 */
export async function writeWhole(folder: string, files: readonly OutputFile[]): Promise<void> {
  const partial = `${folder}.partial-${randomBytes(4).toString("hex")}`;
  try {
    await mkdir(partial);
    for (const { name, bytes } of files) {
      const file = await open(join(partial, name), "wx");
      try {
        await file.writeFile(bytes);
        // A full disk may be found out only here.
        await file.sync();
      } finally {
        await file.close();
      }
    }
    await makeOutputFolder(folder);
    for (const { name } of files) await rename(join(partial, name), join(folder, name));
  } catch (error) {
    throw explain(error, folder);
  } finally {
    await rm(partial, { recursive: true, force: true });
  }
}

const REASONS: Readonly<Record<string, string>> = {
  EACCES: "may not be written to",
  EPERM: "may not be written to",
  EROFS: "is on a read-only disk",
  ENOENT: "cannot be made",
  ENOTDIR: "lies under something that is no folder",
  ENOSPC: "has no room left on its disk",
  EDQUOT: "has no room left on its disk",
  EFBIG: "may hold no file so large",
  ENAMETOOLONG: "has too long a name",
};

function explain(error: unknown, folder: string): OutputError {
  if (error instanceof OutputError) return error;
  const { code = "", message } = error as NodeJS.ErrnoException;
  return new OutputError(`${folder} ${REASONS[code] ?? `cannot be written (${message})`}`);
}
