// A server answers before the demo jobs are drawn; the tests begin when all of them are on every shop's board.
import { DEMO_JOBS } from "../../tools/demo/jobs.ts";
import { allShops, shopUrl } from "./shops.ts";

const PATIENCE_MS = 480_000;

async function waitFor(shop: string): Promise<void> {
  for (const end = Date.now() + PATIENCE_MS; Date.now() < end; ) {
    const answer = await fetch(`${shop}/api/board`).catch(() => null);
    const { jobs }: { jobs: { client: string }[] } = answer ? await answer.json() : { jobs: [] };
    if (jobs.filter((job) => job.client !== "").length === DEMO_JOBS.length) return;
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
  throw new Error("the demo jobs are not seeded");
}

export default async function waitForDemo(): Promise<void> {
  await Promise.all(allShops().map((index) => waitFor(shopUrl(index))));
}
