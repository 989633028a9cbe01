// Kills of server, readers and database while ten people work: nothing that was acknowledged is lost, and it is soon back.
import { audit, makeDiary, makeJobs, quantile, work } from "./people.ts";
import { startSupervised } from "./supervised.ts";

const PEOPLE = 10;
const WHAT = ["server", "reader", "database"] as const;
/** Longest that it may take until all is well again, ms; beyond, it is waited for all the same. */
const BACK_MS = 10_000;

/** Prints and returns the figures. */
export async function trialOfKills(kills: number) {
  const shop = await startSupervised();
  const diary = makeDiary();
  const backMs: number[] = [];
  try {
    const jobs = await makeJobs(shop.url, 5);
    let isOver = false;
    const people = Array.from({ length: PEOPLE }, (_, i) =>
      work(shop.url, jobs, diary, { isOver: () => isOver, pauseMs: 100, by: `person ${i}` }),
    );
    for (let n = 0; n < kills; n++) {
      await rest(300 + 2500 * Math.random());
      const what = WHAT[Math.floor(Math.random() * WHAT.length)] ?? "server";
      const [pid] = shop.processes(what).sort(() => Math.random() - 0.5);
      if (pid === undefined) continue;
      const killed = performance.now();
      process.kill(pid, "SIGKILL");
      // Seen to be gone before it is seen to be well.
      await rest(100);
      while (!(await shop.isWell()) || (what !== "reader" && shop.processes(what).every((now) => now === pid)))
        await rest(50);
      backMs.push(performance.now() - killed);
      if ((n + 1) % 50 === 0) console.log(`${n + 1} kills, ${diary.acknowledged.length} edits acknowledged`);
    }
    isOver = true;
    await Promise.all(people);
    const found = await audit(shop.databaseUrl(), diary);
    const figures = {
      kills: backMs.length,
      acknowledged: diary.acknowledged.length,
      ...found,
      errors: diary.errors.length,
      away: diary.away,
      conflicts: diary.conflicts,
      backMedianMs: quantile(backMs, 0.5),
      backMostMs: quantile(backMs, 1),
      backTooLate: backMs.filter((ms) => ms > BACK_MS).length,
    };
    console.log(figures, diary.errors.slice(0, 5));
    return figures;
  } finally {
    await shop.stop();
  }
}

const rest = (ms: number) => new Promise<void>((resolve) => setTimeout(resolve, ms));
