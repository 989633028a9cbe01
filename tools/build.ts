// What is served and what serves it, built from the source. Each in a process of its own: bundling takes a gigabyte, and
// whoever starts a shop lives as long as that does.
import { execFile } from "node:child_process";
import { join } from "node:path";
import { promisify } from "node:util";
import { ROOT } from "./server-process.ts";

export const buildWeb = () => build("web");

export const buildServer = () => build("server");

async function build(folder: string): Promise<void> {
  const vite = join(ROOT, "node_modules", ".bin", "vite");
  await promisify(execFile)(vite, ["build", folder, "--logLevel", "warn"], { cwd: ROOT });
}
