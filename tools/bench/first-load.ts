// What a browser fetches before the board and before a job can be worked with, compressed as it is sent; and how long the
// page is busy at a stretch while one opens a job, types, drags and goes from step to step.
import type { BrowserContext, Page, Request } from "@playwright/test";
import { ferrySvg } from "../demo/ferry.ts";
import { type BenchShop, inShop } from "./open-shop.ts";

/** A hand notices when nothing answers for longer, ms; and what is counted at all (the standard's long task). */
const FELT_MS = 100;
const LONG_MS = 50;

export const measureFirstLoad = () => inShop(openInShop);

const CODE = new Set(["script", "stylesheet"]);

function countCode(context: BrowserContext): () => Promise<number> {
  const fetched: Promise<number>[] = [];
  context.on("requestfinished", (request) => {
    if (CODE.has(request.resourceType())) fetched.push(bytesSent(request));
  });
  return async () => (await Promise.all(fetched)).reduce((sum, bytes) => sum + bytes, 0);
}

/** As they are on the wire; nothing where the browser had it. */
async function bytesSent(request: Request): Promise<number> {
  const answer = await request.response();
  return answer?.status() === 200 ? Number((await answer.headerValue("content-length")) ?? 0) : 0;
}

/** Runs in the page, where nothing of ours is: plain text. */
const NOTE_TASKS = `
  longTasks = [];
  new PerformanceObserver((list) => longTasks.push(...list.getEntries().map((one) => one.duration)))
    .observe({ type: "longtask" });
`;

async function settled(page: Page): Promise<void> {
  await page.waitForTimeout(300);
  await page.getByTestId("busy").waitFor({ state: "detached", timeout: 300_000 });
  await page.getByText(/^Saved/).waitFor();
}

/** A slide taken along its whole way by the pointer. */
async function drag(page: Page, label: string): Promise<void> {
  const thumb = page.getByRole("slider", { name: label });
  await thumb.scrollIntoViewIfNeeded();
  const box = await thumb.boundingBox();
  if (!box) throw new Error(`no slide "${label}"`);
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (let step = 1; step <= 60; step++) await page.mouse.move(x + 60 * Math.sin(step / 10), y);
  await page.mouse.up();
}

async function openInShop({ url, browser, addJob }: BenchShop): Promise<void> {
  const job = await addJob("ferry.png", ferrySvg());
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  await page.addInitScript(NOTE_TASKS);
  // Nothing is fetched ahead: that comes when there is time.
  await context.route("**/parts.json", (route) => route.abort());
  const codeSoFar = countCode(context);
  const kilobytes = async () => `${Math.round((await codeSoFar()) / 1000)} kB`;
  const table: Record<string, Record<string, string | number>> = {};
  const note = async (what: string, deed: () => Promise<void>) => {
    await page.evaluate("globalThis.longTasks && (longTasks.length = 0)");
    await deed();
    const tasks: number[] = await page.evaluate("longTasks");
    table[what] = {
      "code so far": await kilobytes(),
      [`over ${LONG_MS} ms`]: tasks.length,
      [`over ${FELT_MS} ms`]: tasks.filter((ms) => ms > FELT_MS).length,
      "longest, ms": Math.round(Math.max(0, ...tasks)),
    };
  };
  const step = (name: string) =>
    note(`on to ${name}`, async () => {
      await page.getByRole("link", { name: new RegExp(name) }).click();
      await settled(page);
    });

  await note("the board opens", async () => {
    await page.goto(url);
    await page.getByRole("link", { name: new RegExp(job.title) }).waitFor();
  });
  await note("a job opens", async () => {
    await page.getByRole("link", { name: new RegExp(job.title) }).click();
    await settled(page);
  });
  await note("a width is typed", async () => {
    await page.getByLabel("Print width", { exact: true }).click();
    await page.keyboard.press("ControlOrMeta+a");
    await page.keyboard.type("9 1/2 in", { delay: 60 });
    await page.keyboard.press("Enter");
    await settled(page);
  });
  await step("Colours");
  await note("a colour's name is typed", async () => {
    await page
      .getByLabel(/^Name of /)
      .first()
      .click();
    await page.keyboard.type(" for the hull", { delay: 60 });
    await page.keyboard.press("Enter");
    await settled(page);
  });
  await step("Shapes");
  await note("curves are dragged rounder", async () => {
    await drag(page, "Corners from, slide");
    await settled(page);
  });
  await step("Separations");
  await step("Output");
  await note("files are made", async () => {
    await page.getByRole("button", { name: "Make the files" }).click();
    await page.getByRole("link", { name: /films\.pdf/ }).waitFor({ timeout: 120_000 });
  });
  console.table(table);
}
