// npm run screenshots: one current picture of every main view, from the demo jobs, into docs/screenshots.
// Runs against a throw-away database, so that the pictures do not depend on what was done in .data.
import { join } from "node:path";
import type { Job } from "@plain-palette/contract";
import type { Page } from "@playwright/test";
import { Table } from "../web/e2e/table.ts";
import { fillBoard } from "./demo/busy-board.ts";
import { seedDemo } from "./demo/seed.ts";
import { ROOT } from "./server-process.ts";
import { openThrowAwayShop } from "./throw-away-shop.ts";

const OUT = process.argv[2] ?? join(ROOT, "docs", "screenshots");
const { server, browser, close } = await openThrowAwayShop();
try {
  const jobs = await seedDemo(server.url);
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  page.on("console", (message) => {
    if (message.type() === "error") console.error("page:", message.text());
  });
  const shoot = (name: string) => page.screenshot({ path: join(OUT, `${name}.png`) });
  const ferry = jobNamed(jobs, "Crew shirts");
  await open(page, ferry, "artwork");
  await page.getByLabel("Placement", { exact: true }).selectOption("Full front, adult");
  await ready(page);
  await page.getByRole("radio", { name: "On the garment" }).click();
  await shoot("artwork");
  await prepareScan(page, jobNamed(jobs, "Festival shirts"));
  await open(page, ferry, "artwork");
  await page.getByRole("radio", { name: "Split" }).click();
  await open(page, ferry, "colours", false);
  await page.getByRole("radiogroup", { name: "What White is" }).getByText("Drop").click();
  await ready(page);
  await page.getByRole("button", { name: /^Take the \d that the shelf has/ }).click();
  await ready(page);

  await page.getByLabel("Number of colours", { exact: true }).scrollIntoViewIfNeeded();
  await page.mouse.move(560, 420);
  await shoot("colours");
  await page.getByRole("radio", { name: "Outlines" }).click();
  await open(page, ferry, "shapes", false);
  await page.getByLabel(/Light table/).hover({ position: { x: 330, y: 210 } });
  for (let i = 0; i < 5; i++) await page.mouse.wheel(0, -240);
  // Painted sharp again over a few frames.
  await page.waitForTimeout(500);
  await shoot("shapes");
  await page.getByRole("button", { name: "Show all" }).click();
  await page.getByRole("radio", { name: "Result" }).click();
  await shootByHand(page, shoot);
  await page.getByRole("tab", { name: "Trace" }).click();
  await open(page, ferry, "separations", false);
  await shoot("separations");
  await open(page, ferry, "output", false);
  await page.getByRole("button", { name: "Make the files" }).click();
  await page.getByTestId("run-files").waitFor({ timeout: 120_000 });
  await page.getByRole("list", { name: "Films" }).getByRole("button").nth(2).click();
  await shoot("output");
  await shootFilm(page, ferry, shoot);
  await shootStitches(page, jobNamed(jobs, "Fleeces"), shoot);
  await shootStones(page, ferry, shoot);
  await shootLettering(page, jobNamed(jobs, "Aprons"), shoot);
  await page.goto(`${server.url}/typefaces`);
  await page.getByRole("heading", { name: "Public Sans" }).waitFor();
  await page.waitForTimeout(1500);
  await shoot("typefaces");
  await page.goto(`${server.url}/shelf`);
  await page.getByRole("row", { name: "Signal red" }).waitFor();
  await shoot("shelf");
  await shootMotifs(page, jobNamed(jobs, "Club kit"), shoot);
  await shootProof(page, ferry, shoot);
  await fillBoard(server.url, server.clientUrl, jobs, new Date());
  await page.goto(server.url);
  await page.getByText("Winter hats").waitFor();
  for (const picture of await page.locator("img").all())
    await picture.evaluate((img: { decode(): Promise<void> } & object) => img.decode());
  await shoot("job-board");
} finally {
  await close();
}

/** The shop's motifs, one open; a row of them on an arc under the crest. */
async function shootMotifs(page: Page, crest: Job, shoot: (name: string) => Promise<unknown>): Promise<void> {
  await page.goto(`${server.url}/motifs`);
  await page.getByRole("button", { name: /^Compass star/ }).click();
  await page.getByRole("region", { name: "Motif Compass star" }).waitFor();
  await page.waitForTimeout(600);
  await shoot("motifs");
  await open(page, crest, "shapes");
  await page.getByRole("tab", { name: "Motifs" }).click();
  await page.getByRole("button", { name: "Place Thrift flower" }).click();
  await ready(page);
  for (const [label, value] of [
    ["Middle from the top", "40 mm"],
    ["Width", "26 mm"],
  ] as const) {
    await page.getByLabel(label, { exact: true }).fill(value);
    await page.keyboard.press("Enter");
    await ready(page);
  }
  await page.getByText("On an arc", { exact: true }).click();
  await ready(page);
  await shoot("motifs-placed");
}

/** The crew shirt's proof sent, asked about by its client on a phone, and looked at in the mailbox. */
async function shootProof(page: Page, ferry: Job, shoot: (name: string) => Promise<unknown>): Promise<void> {
  await page.goto(`${server.url}/jobs/${ferry.id}/proof`);
  await page.getByRole("img", { name: /on the front of the garment/ }).waitFor({ timeout: 60_000 });
  await page.getByLabel("The client's mail address").fill("mate@ferry.example");
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: /^Send/ }).click();
  const link = await page.getByLabel("The client's link").inputValue();
  const client = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await client.goto(link);
  await client.getByRole("radio", { name: "Close up" }).click();
  const box = await client.getByRole("application").boundingBox();
  if (box) await client.mouse.click(box.x + box.width * 0.32, box.y + box.height * 0.72);
  await client.getByLabel("Your words").fill("Is the pale teal in the waves meant, or did the scan make it?");
  await client.getByLabel("Your name").fill("Ada Wren, mate");
  await client.getByRole("button", { name: "Send" }).click();
  await client.getByRole("list", { name: "What was said" }).waitFor();
  await client.evaluate("window.scrollTo(0, 0)");
  await client.screenshot({ path: join(OUT, "proof-client.png") });
  await client.close();
  await page.getByRole("radio", { name: "Close up" }).click();
  await page.reload();
  await page.getByLabel("Version", { exact: true }).selectOption({ index: 1 });
  await page.getByRole("list", { name: "What was said" }).waitFor();
  await page.waitForTimeout(800);
  await shoot("proof");
  await page.goto(`${server.url}/practice?at=mail`);
  await page.getByRole("list", { name: "Messages" }).waitFor();
  await shoot("mailbox");
}

/** The bird moved, a drill hole and a bridge drawn, and the lamp house's roof in hand; all of it taken back again. */
async function shootByHand(page: Page, shoot: (name: string) => Promise<unknown>): Promise<void> {
  const table = new Table(page, 1000, 1000);
  const workOn = (name: string) => page.getByRole("radiogroup", { name: "Work on" }).getByText(name).click();
  await page.getByRole("tab", { name: "By hand" }).click();
  await ready(page);
  await workOn("Pieces");
  await table.drag([624, 394], [690, 420], [700, 440]);
  await ready(page);
  await workOn("Draw");
  await page.getByLabel("In", { exact: true }).selectOption({ label: "The garment (a hole)" });
  await page.getByLabel("Hold its measure").check();
  await table.click(330, 500);
  await ready(page);
  await workOn("Lines");
  const [from, to] = [await table.at(456, 352), await table.at(430, 330)];
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(to.x, to.y, { steps: 5 });
  await page.waitForTimeout(300);
  await shoot("shapes-by-hand");
  await page.mouse.up();
  await ready(page);
  for (let undone = 0; undone < 3; undone++) {
    await page.getByRole("button", { name: "Undo" }).click();
    await ready(page);
  }
}

/** The bakery's name marked and found, then set again and bent. */
async function shootLettering(page: Page, bakery: Job, shoot: (name: string) => Promise<unknown>): Promise<void> {
  const table = new Table(page, 360, 360);
  const arc = (deg: number, radius: number) =>
    [180 + radius * Math.sin((deg * Math.PI) / 180), 211.5 - radius * Math.cos((deg * Math.PI) / 180)] as const;
  await open(page, bakery, "shapes");
  await page.getByRole("tab", { name: "Lettering" }).click();
  await ready(page);
  await page.getByText("Old letters", { exact: true }).click();
  await page.getByText("Loop", { exact: true }).click();
  const degrees = [-84, -60, -30, 0, 30, 60, 84];
  await table.drag(...degrees.map((deg) => arc(deg, 173)), ...degrees.toReversed().map((deg) => arc(deg, 123)));
  await page.getByLabel("What they say").fill("HEARTH & RYE");
  await page.getByRole("button", { name: "Find the typeface" }).click();
  await page.getByRole("button", { name: "Find the typeface" }).waitFor({ timeout: 60_000 });
  await page
    .getByRole("button", { name: /^Set them again/ })
    .first()
    .click();
  await ready(page);
  await page.getByLabel("Words", { exact: true }).and(page.locator("textarea")).fill("HEARTH & MILL");
  await page.getByLabel("A line round them").check();
  await ready(page);
  await page.getByLabel("Words", { exact: true }).and(page.locator("textarea")).scrollIntoViewIfNeeded();
  const bend = await table.at(...arc(0, 119));
  await page.mouse.move(bend.x, bend.y);
  await page.waitForTimeout(400);
  await shoot("lettering");
}

/** The scan: found, trimmed, its paper taken away, its lines cut off, a stroke of the brush. */
async function prepareScan(page: Page, scan: Job): Promise<void> {
  await open(page, scan, "artwork");
  await page.getByRole("tab", { name: "Upright" }).click();
  await page.getByRole("button", { name: "Look for the sheet" }).click();
  await page.getByRole("button", { name: "Straighten and crop" }).waitFor();
  await page.getByRole("button", { name: "Straighten and crop" }).click();
  await ready(page);
  await page.getByRole("tab", { name: "Line art" }).click();
  await page.getByRole("button", { name: "Make it line art" }).click();
  await ready(page);
  await page.getByRole("button", { name: /^Find it: / }).click();
  await ready(page);
  await page.getByRole("button", { name: "No line art" }).click();
  await page.getByRole("tab", { name: "Background" }).click();
  await page.getByRole("button", { name: "With the patches inside" }).click();
  await ready(page);
  await page.getByRole("tab", { name: "Touch up" }).click();
  await page.getByRole("button", { name: "Look for specks" }).click();
  await ready(page);
  await page.getByRole("button", { name: "Take them away" }).click();
  await ready(page);
  await page.getByRole("button", { name: "Take the brush" }).click();
  await page.mouse.move(420, 250);
  await page.mouse.down();
  await page.mouse.move(520, 200, { steps: 8 });
  await page.mouse.move(590, 230, { steps: 8 });
  await page.mouse.up();
  await ready(page);
}

/** The same job as transfer film: its layers, the cutter half way through one, the press sheet. */
async function shootFilm(page: Page, ferry: Job, shoot: (name: string) => Promise<unknown>): Promise<void> {
  const made = page.getByRole("complementary", { name: "Ticket" }).getByLabel("Made with");
  await made.selectOption("Transfer film");
  await ready(page);
  await open(page, ferry, "layers", false);
  await page.getByRole("button", { name: "Alone" }).nth(1).click();
  await shoot("layers");
  await open(page, ferry, "output", false);
  await page.getByLabel("HPGL (.plt)").check();
  await ready(page);
  await page.getByRole("button", { name: "Make the files" }).click();
  await page.getByText("Made from the recipe as it is now.").waitFor({ timeout: 120_000 });
  await page.getByRole("link", { name: "practice bench" }).click();
  await page.getByRole("button", { name: /^layer-2-/ }).click();
  await page.getByLabel("Time", { exact: true }).focus();
  for (let step = 0; step < 4; step++) await page.keyboard.press("PageDown");
  await shoot("practice");
  await open(page, ferry, "output");
  await made.selectOption("Screens");
  await ready(page);
}

/** A badge to be sewn: an area chosen. */
async function shootStitches(page: Page, badge: Job, shoot: (name: string) => Promise<unknown>): Promise<void> {
  await open(page, badge, "artwork");
  await open(page, badge, "stitches", false);
  await page.mouse.click(440, 500);
  await ready(page);
  await shoot("stitches");
}

/** The ferry set in stones of the shelf, one in hand; a crest whose name alone is set; lettering of four typefaces, 25 mm high. */
async function shootStones(page: Page, ferry: Job, shoot: (name: string) => Promise<unknown>): Promise<void> {
  const made = page.getByRole("complementary", { name: "Ticket" }).getByLabel("Made with");
  await open(page, ferry, "colours");
  await made.selectOption("Stones");
  await ready(page);
  await page.getByRole("button", { name: /^Take the \d that the shelf has/ }).click();
  await ready(page);
  await open(page, ferry, "stones", false);
  await page.getByTestId("stone-counts").scrollIntoViewIfNeeded();
  await shoot("stones");
  await made.selectOption("Screens");
  await ready(page);
}

function jobNamed(jobs: readonly Job[], title: string): Job {
  const job = jobs.find((one) => one.title.startsWith(title));
  if (!job) throw new Error(`no demo job "${title}"`);
  return job;
}

/** Opens a step; within the same job by its ticket, so that the way of looking stays. */
async function open(page: Page, job: Job, step: string, isFresh = true): Promise<void> {
  if (isFresh) await page.goto(`${server.url}/jobs/${job.id}/${step}`);
  else await stepTo(page, step);
  await ready(page);
}

/** Goes to another step of the job that is open. */
async function stepTo(page: Page, step: string): Promise<void> {
  await page
    .getByRole("navigation", { name: "Steps" })
    .getByRole("link", { name: new RegExp(step, "i") })
    .click();
  await ready(page);
}

async function ready(page: Page): Promise<void> {
  await page.waitForTimeout(200);
  await page.getByTestId("busy").waitFor({ state: "detached", timeout: 120_000 });
  await page.getByText(/^Saved/).waitFor();
}
