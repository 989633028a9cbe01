// Twenty people on fifty jobs: edits are soon acknowledged, none is refused and none is lost.
import { audit, makeDiary, makeJobs, quantile, work } from "./people.ts";
import { startSupervised } from "./supervised.ts";

const PEOPLE = 20;
const JOBS = 50;
/** Between two edits of one person, ms in the middle. */
const PAUSE_MS = 1000;

/** Prints and returns the figures. */
export async function trialOfLoad(seconds: number) {
  const shop = await startSupervised();
  try {
    const jobs = await makeJobs(shop.url, JOBS);
    const diary = makeDiary();
    const end = Date.now() + seconds * 1000;
    const isOver = () => Date.now() > end;
    await Promise.all(
      Array.from({ length: PEOPLE }, (_, i) =>
        work(shop.url, jobs, diary, { isOver, pauseMs: PAUSE_MS, by: `person ${i}` }),
      ),
    );
    const found = await audit(shop.databaseUrl(), diary);
    const figures = {
      seconds,
      edits: diary.tookMs.length,
      medianMs: quantile(diary.tookMs, 0.5),
      p95Ms: quantile(diary.tookMs, 0.95),
      p99Ms: quantile(diary.tookMs, 0.99),
      mostMs: quantile(diary.tookMs, 1),
      conflicts: diary.conflicts,
      errors: diary.errors.length + diary.away,
      ...found,
    };
    console.log(figures, diary.errors.slice(0, 5));
    return figures;
  } finally {
    await shop.stop();
  }
}
