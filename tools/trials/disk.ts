// A disk that fills up by somebody else's doing while ten people work on it, stays full, and has room again.
import { closeSync, fsyncSync, openSync, rmSync, statfsSync, writeSync } from "node:fs";
import { join } from "node:path";
import { audit, makeDiary, makeJobs, work } from "./people.ts";
import { startSupervised } from "./supervised.ts";

const PEOPLE = 10;
const PIECE = Buffer.alloc(4 * 2 ** 20, 1);

/**
 * Prints and returns the figures. The environment's TRIAL_DISK names a folder on a small disk of its own, with at least
 * 600 MB: `mount -t tmpfs -o size=700m tmpfs FOLDER`. It is full for so many seconds.
 */
export async function trialOfDisk(seconds: number) {
  const disk = process.env.TRIAL_DISK;
  if (!disk) throw new Error("TRIAL_DISK names no folder on a small disk of its own");
  const shop = await startSupervised({ under: disk, environment: { LEAST_FREE_MB: "64" } });
  const filler = join(disk, "filler");
  try {
    const jobs = await makeJobs(shop.url, 5);
    const diary = makeDiary();
    let isOver = false;
    const people = Array.from({ length: PEOPLE }, (_, i) =>
      work(shop.url, jobs, diary, { isOver: () => isOver, pauseMs: 100, by: `person ${i}` }),
    );
    await rest(5000);
    const before = diary.acknowledged.length;
    fill(filler);
    const freeWhenFullMb = freeMb(disk);
    await rest(seconds * 1000);
    const wasWell = await shop.isWell();
    const whileFull = diary.acknowledged.length - before;
    const { away } = diary;
    rmSync(filler);
    const freed = performance.now();
    const kept = diary.acknowledged.length;
    while (diary.acknowledged.length < kept + PEOPLE) await rest(50);
    const backMs = Math.round(performance.now() - freed);
    isOver = true;
    await Promise.all(people);
    const found = await audit(shop.databaseUrl(), diary);
    const errors = diary.errors.length;
    const figures = { freeWhenFullMb, before, whileFull, refused: away, wasWell, backMs, ...found, errors };
    console.log(figures, diary.errors.slice(0, 5));
    return figures;
  } finally {
    rmSync(filler, { force: true });
    await shop.stop();
  }
}

function freeMb(folder: string): number {
  const { bavail, bsize } = statfsSync(folder);
  return Math.round((bavail * bsize) / 2 ** 20);
}

/** Takes all the room there is. */
function fill(file: string): void {
  const open = openSync(file, "w");
  try {
    for (let size = PIECE.length; size >= 4096; ) {
      try {
        writeSync(open, PIECE, 0, size);
      } catch {
        // What does not fit is tried smaller, to the last block.
        size /= 2;
      }
    }
    fsyncSync(open);
  } finally {
    closeSync(open);
  }
}

const rest = (ms: number) => new Promise<void>((resolve) => setTimeout(resolve, ms));
