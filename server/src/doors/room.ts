// The disk of the database: what is new is refused before there is no room left, since a database that runs out of it
// stops everybody.
import { statfs } from "node:fs/promises";
import type { RequestHandler } from "express";
import { diskFull } from "../problems/index.ts";

/** How long an answer of the disk counts, ms. */
const FRESH_MS = 1000;

export interface Disk {
  /** Bytes that are left; null where no disk is watched or it cannot be asked. */
  free(): Promise<number | null>;
  /** Refuses whatever would write. */
  readonly refuseWhenFull: RequestHandler;
}

export function watchDisk(folder: string | undefined, leastMb: number): Disk {
  let asked = 0;
  let last: Promise<number | null> = Promise.resolve(null);
  const free = () => {
    if (folder === undefined || Date.now() - asked < FRESH_MS) return last;
    asked = Date.now();
    last = statfs(folder).then(
      ({ bavail, bsize }) => bavail * bsize,
      () => null,
    );
    return last;
  };
  return {
    free,
    async refuseWhenFull(request, _response, next) {
      const left = request.method === "GET" || request.method === "HEAD" ? null : await free();
      if (left === null || left >= leastMb * 2 ** 20) return next();
      request.resume();
      next(
        diskFull(`${Math.floor(left / 2 ** 20)} MB are left, and ${leastMb} MB are kept free for what is under way.`),
      );
    },
  };
}
