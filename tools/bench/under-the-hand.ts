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
/** A node of the ferry that stands alone. */
const WINDOW_CORNER = [516, 346];
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

type Deed = () => Promise<unknown>;

/** A person at the page, and the table of how long they waited. */
function openHand(page: Page) {
  const table: Record<string, Record<string, number>> = {};
  const note = (what: string, times: readonly number[]) => {
    table[what] = { "middle, ms": Math.round(middle(times)), "longest, ms": Math.round(Math.max(...times)) };
  };
  return {
    page,
    table,
    note,
    /** Does things in turn and counts them, each other than the three before: these are kept. `back` leads to the beginning. */
    async inTurn(what: string, deeds: readonly Deed[], back: Deed, restMs = 0) {
      const times: number[] = [];
      while (times.length < TIMES) {
        for (const deed of deeds) {
          await page.waitForTimeout(restMs);
          await deed();
          times.push(await answered(page));
        }
        await back();
        await answered(page);
      }
      note(what, times);
    },
    async goTo(step: string) {
      await page
        .getByRole("navigation", { name: "Steps" })
        .getByRole("link", { name: new RegExp(step) })
        .click();
      await page.getByRole("heading", { name: step, exact: true }).waitFor();
      await page.waitForTimeout(1500);
    },
    /** Opens a job from the board in a page that was just loaded, some times. */
    async openings(url: string, title: string) {
      const times: number[] = [];
      for (let k = 0; k < OPENINGS; k++) {
        await page.goto(url);
        await page.waitForTimeout(2500);
        await page.getByRole("link", { name: new RegExp(title) }).click();
        times.push(await answered(page));
      }
      return times;
    },
  };
}

type Hand = ReturnType<typeof openHand>;

async function workInShop({ url, browser, addJob }: BenchShop): Promise<void> {
  const job = await addJob("ferry.png", ferrySvg());
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.addInitScript(NOTE_ANSWERS);
  const hand = openHand(page);
  const [first = 0, ...again] = await hand.openings(url, job.title);
  hand.note("a job opened for the first time", [first]);
  hand.note("opened again", again);
  await countColours(hand);
  await tuneShapes(hand);
  await tuneTrap(hand);
  // What was computed is kept once the hand rests.
  await page.waitForTimeout(4000);
  hand.note("opened again, separated", await hand.openings(url, job.title));
  await page.goto(`${url}/jobs/${(await addJob("cells.png", cellsSvg())).id}/colours`);
  await answered(page);
  await pourCells(hand);
  console.table(hand.table);
}

async function countColours({ page, inTurn, goTo }: Hand): Promise<void> {
  await goTo("Colours");
  const count = page.getByLabel("Number of colours", { exact: true });
  await count.click();
  const most = await count.inputValue();
  const fewer = () => count.press("ArrowDown");
  const toMost = async () => {
    await count.fill(most);
    await count.press("Enter");
  };
  await inTurn("one colour fewer", [fewer, fewer, fewer], toMost);
  await inTurn("one colour fewer, after a rest of two seconds", [fewer, fewer, fewer], toMost, 2000);
  await fewer();
  await answered(page);
  await inTurn("and back", [() => count.press("ArrowUp")], fewer);
}

async function tuneShapes({ page, inTurn, goTo }: Hand): Promise<void> {
  await goTo("Shapes");
  const tolerance = page.getByRole("slider", { name: "Tolerance, slide" });
  await tolerance.focus();
  const looser = () => tolerance.press("ArrowRight");
  await inTurn("a tolerance", [looser, looser, looser, looser], async () => {
    for (let k = 0; k < 3; k++) {
      await tolerance.press("ArrowLeft");
      await answered(page);
    }
    await tolerance.press("ArrowLeft");
  });
  await page.getByRole("tab", { name: "By hand" }).click();
  await page.waitForTimeout(2000);
  const art = new Table(page, SIDE, SIDE);
  const press = (...keys: string[]) => keys.map((key) => () => page.keyboard.press(`Arrow${key}`));
  for (const [from, to] of [
    [WINDOW_CORNER.map((v) => v - 4), WINDOW_CORNER.map((v) => v + 4)],
    [
      [SIDE / 10, SIDE / 10],
      [SIDE / 2, SIDE / 2],
    ],
  ] as [number, number][][]) {
    if (!from || !to) continue;
    await art.drag(from, to);
    const picked = await page.getByTestId("picked-nodes").textContent();
    const [up = async () => {}] = press("Up");
    await inTurn(`moved: ${picked}`, press("Right", "Right", "Down", "Down", "Left"), up);
  }
}

async function tuneTrap({ page, inTurn, goTo }: Hand): Promise<void> {
  await goTo("Separations");
  const trap = page.getByLabel("Trap width", { exact: true });
  const typeTrap = (text: string) => async () => {
    await trap.fill(text);
    await trap.press("Enter");
  };
  await inTurn("a trap", ["0.2 mm", "0.25 mm", "0.3 mm", "0.18 mm"].map(typeTrap), typeTrap("0.15 mm"));
}

async function pourCells({ page, inTurn }: Hand): Promise<void> {
  await page.getByText("Areas", { exact: true }).click();
  await page.getByRole("button", { name: "Pour into an area" }).click();
  const cells = new Table(page, CELLS_SIDE, CELLS_SIDE);
  const undo = () => page.keyboard.press("ControlOrMeta+z");
  const pours = cellCentres().map(
    ([x, y]) =>
      () =>
        cells.click(x, y),
  );
  await inTurn("an area of 4 MP poured full", pours, async () => {
    for (let k = 1; k < pours.length; k++) {
      await undo();
      await answered(page);
    }
    await undo();
  });
}

function cellCentres(): [number, number][] {
  return [1, 3].flatMap((u) => [1, 3].map((v): [number, number] => [(u * CELLS_SIDE) / 4, (v * CELLS_SIDE) / 4]));
}

/** Round cells, drawn in lines. */
function cellsSvg(): string {
  const cells = cellCentres()
    .map(([x, y]) => `<circle cx="${x}" cy="${y}" r="${CELLS_SIDE / 5}"/>`)
    .join("");
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${CELLS_SIDE}" height="${CELLS_SIDE}"><g fill="none" stroke="#101014" stroke-width="24">${cells}</g></svg>`;
}
