// How long a person waits at the page, in Chromium: from what the hand did to the picture that answers it.
import type { Page } from "@playwright/test";
import { Table } from "../../web/e2e/table.ts";
import { ferrySvg } from "../demo/ferry.ts";
import { type BenchShop, inShop } from "./open-shop.ts";
import { middle } from "./timing.ts";

/** Deeds of each kind. */
const TIMES = 20;
const OPENINGS = 6;
const SIDE = 1000;
/** 4 megapixels of cells to pour full. */
const CELLS_SIDE = 2000;

const POLL_MS = 30;
const MOST_POLLS = 200;

/** Runs in the page, where nothing of ours is: plain text. When a hand did something last, and when its answer was painted. */
const NOTE_ANSWERS = `
  deedAt = 0; paintedAt = 0; askedId = 0; doneId = 0;
  for (const kind of ["keydown", "pointerdown", "pointerup", "click"])
    addEventListener(kind, (event) => (deedAt = event.timeStamp), { capture: true });
  Worker = class extends Worker {
    constructor(...given) {
      super(...given);
      this.addEventListener("message", ({ data }) => {
        if (data.type !== "done") return;
        doneId = data.id;
        requestAnimationFrame(() => setTimeout(() => (paintedAt = performance.now())));
      });
    }
    postMessage(message, ...rest) {
      if (message.type === "compute") askedId = message.id;
      super.postMessage(message, ...rest);
    }
  };
`;

/** Waits for the answer to what was done last, and says how long it took, ms. */
async function answered(page: Page): Promise<number> {
  const isAnswered = () => page.evaluate<boolean>("askedId > 0 && askedId === doneId && paintedAt > deedAt");
  for (let polls = 0; !(await isAnswered()); polls++) {
    if (polls > MOST_POLLS) throw new Error("what the hand did was not answered");
    await page.waitForTimeout(POLL_MS);
  }
  const ms: number = await page.evaluate("paintedAt - deedAt");
  // Nothing of it is to be at work still when the next is measured.
  await page.waitForTimeout(500);
  return ms;
}

export const measureUnderTheHand = () => inShop(workInShop);

async function workInShop({ url, browser, addJob }: BenchShop): Promise<void> {
  const job = await addJob("ferry.png", ferrySvg());
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.addInitScript(NOTE_ANSWERS);
  const table: Record<string, Record<string, number>> = {};
  const note = (what: string, times: readonly number[]) => {
    table[what] = { "middle, ms": Math.round(middle(times)), "longest, ms": Math.round(Math.max(...times)) };
  };
  /** Does two things that undo each other; the first of them counts. */
  const toAndFro = async (what: string, to: () => Promise<unknown>, fro: () => Promise<unknown>) => {
    const times: number[] = [];
    for (let k = 0; k < TIMES; k++) {
      await to();
      times.push(await answered(page));
      await fro();
      await answered(page);
    }
    note(what, times);
  };
  const goTo = async (step: string) => {
    await page
      .getByRole("navigation", { name: "Steps" })
      .getByRole("link", { name: new RegExp(step) })
      .click();
    await page.getByRole("heading", { name: step, exact: true }).waitFor();
    await page.waitForTimeout(1500);
  };

  const openings: number[] = [];
  for (let k = 0; k < OPENINGS; k++) {
    await page.goto(url);
    await page.waitForTimeout(1500);
    await page.getByRole("link", { name: new RegExp(job.title) }).click();
    openings.push(await answered(page));
  }
  note("a job opened for the first time", openings.slice(0, 1));
  note("opened again", openings.slice(1));

  await goTo("Colours");
  const count = page.getByLabel("Number of colours", { exact: true });
  await count.click();
  await toAndFro(
    "one colour fewer",
    () => count.press("ArrowDown"),
    () => count.press("ArrowUp"),
  );
  await goTo("Shapes");
  const tolerance = page.getByRole("slider", { name: "Tolerance, slide" });
  await tolerance.focus();
  await toAndFro(
    "a tolerance",
    () => tolerance.press("ArrowRight"),
    () => tolerance.press("ArrowLeft"),
  );
  await page.getByRole("tab", { name: "By hand" }).click();
  await page.waitForTimeout(2000);
  await new Table(page, SIDE, SIDE).drag([100, 100], [SIDE / 2, SIDE / 2]);
  await page.getByTestId("picked-nodes").waitFor();
  await toAndFro(
    "nodes moved",
    () => page.keyboard.press("ArrowRight"),
    () => page.keyboard.press("ArrowLeft"),
  );
  await goTo("Separations");
  const trap = page.getByLabel("Trap width", { exact: true });
  const typeTrap = (text: string) => async () => {
    await trap.fill(text);
    await trap.press("Enter");
  };
  await toAndFro("a trap", typeTrap("0.2 mm"), typeTrap("0.15 mm"));
  await page.goto(`${url}/jobs/${(await addJob("cells.png", cellsSvg())).id}/colours`);
  await answered(page);
  await page.getByText("Areas", { exact: true }).click();
  await page.getByRole("button", { name: "Pour into an area" }).click();
  const cells = new Table(page, CELLS_SIDE, CELLS_SIDE);
  await toAndFro(
    "an area of 4 MP poured full",
    () => cells.click(CELLS_SIDE / 4, CELLS_SIDE / 4),
    () => page.keyboard.press("ControlOrMeta+z"),
  );
  console.table(table);
}

/** Round cells, drawn in lines. */
function cellsSvg(): string {
  const at = [1, 3].flatMap((u) => [1, 3].map((v) => [(u * CELLS_SIDE) / 4, (v * CELLS_SIDE) / 4]));
  const cells = at.map(([x, y]) => `<circle cx="${x}" cy="${y}" r="${CELLS_SIDE / 5}"/>`).join("");
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${CELLS_SIDE}" height="${CELLS_SIDE}"><g fill="none" stroke="#101014" stroke-width="24">${cells}</g></svg>`;
}
