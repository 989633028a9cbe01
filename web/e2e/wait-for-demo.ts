// The server answers before the demo jobs are drawn; the tests begin when all of them are on the board.
import { DEMO_JOBS } from "../../tools/demo/jobs.ts";

const PATIENCE_MS = 60_000;

export default async function waitForDemo(): Promise<void> {
  for (const end = Date.now() + PATIENCE_MS; ; ) {
    const jobs: { client: string }[] = await (await fetch(`http://127.0.0.1:${process.env.E2E_PORT}/api/jobs`)).json();
    if (jobs.filter((job) => job.client !== "").length === DEMO_JOBS.length) return;
    if (Date.now() > end) throw new Error("the demo jobs are not seeded");
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
}
