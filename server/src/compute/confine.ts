// How a process that touches clients' files is held: its own group, so that it ends with all that it started; no network;
// so much memory and processor time and no more; and nobody's rights where the server has root's.
import { spawnSync } from "node:child_process";

export interface Limits {
  /** Private writable memory, bytes. Not address space: compiled code reserves gigabytes that it never touches. */
  readonly memory: number;
  /** Of all processors together over its life, s. */
  readonly processorS: number;
}

/** Largest file a confined process may write, bytes: it has no business writing any. */
const FILE_BYTES = 2 ** 20;
const OPEN_FILES = 256;
/** Debian's nobody and nogroup, on every machine. */
const NOBODY = 65534;

/** What shuts off the network here; empty where the kernel lets us shut off nothing. */
const offline: readonly string[] = (() => {
  const ways = process.getuid?.() === 0 ? [["--net"]] : [["--user", "--map-current-user", "--net"]];
  for (const way of ways) if (spawnSync("unshare", [...way, "true"]).status === 0) return ["unshare", ...way];
  return [];
})();

export const isNetworkShut = offline.length > 0;

/** A command and its arguments that run `program` under limits, in place of itself. */
export function confined({ memory, processorS }: Limits, program: readonly string[]): readonly [string, string[]] {
  const limits = [
    `--data=${memory}`,
    `--cpu=${processorS}`,
    `--fsize=${FILE_BYTES}`,
    `--nofile=${OPEN_FILES}`,
    "--core=0",
  ];
  return ["prlimit", [...limits, ...offline, ...program]];
}

/** For the confined process itself, once all its code is read: gives up root's rights for good. */
export function dropRights(): void {
  if (process.getuid?.() !== 0) return;
  process.setgroups?.([]);
  process.setgid?.(NOBODY);
  process.setuid?.(NOBODY);
}
