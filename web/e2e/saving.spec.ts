// Saving never lies: what was changed while the server was away is kept, said to wait, and there once it is back.
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { jobSchema, shelfSchema } from "@plain-palette/contract";
import { chromium, expect, type Page, test } from "@playwright/test";
import { CHROMIUM } from "../../tools/browser.ts";
import { type MortalShop, openMortalShop } from "./mortal-shop.ts";
import { drawPng, dropFiles, goTo, LOGO, newJob, settled } from "./shop.ts";
import { mortalPort } from "./shops.ts";

const SHOP = `http://127.0.0.1:${mortalPort()}`;
test.use({ baseURL: SHOP });

let shop: MortalShop;
test.beforeAll(async () => {
  shop = await openMortalShop();
});
test.afterAll(() => shop.close());

const read = async (path: string): Promise<unknown> => (await fetch(`${SHOP}/api${path}`)).json();
const jobAt = async (page: Page) => jobSchema.parse(await read(`/jobs/${/jobs\/([0-9a-f-]+)/.exec(page.url())?.[1]}`));
const board = (page: Page) => page.getByRole("link", { name: "Job board" });

async function type(page: Page, label: string, text: string): Promise<void> {
  const field = page.getByLabel(label, { exact: true });
  await field.fill(text);
  await field.press("Enter");
}

test("a width changed while the server is dead outlives the tab and the browser, and is sent by the next one", async () => {
  const profile = mkdtempSync(join(tmpdir(), "plain-palette-profile-"));
  const open = () => chromium.launchPersistentContext(profile, { ...CHROMIUM, baseURL: SHOP });
  let browser = await open();
  const page = await browser.newPage();
  await newJob(page);
  const { id } = await jobAt(page);
  await shop.die();
  await type(page, "Print width", "222 mm");
  await expect(page.getByTestId("save-state")).toHaveText("Not saved yet");
  await expect(page.getByTestId("outbox")).toContainText("The server does not answer. 1 change waits");
  await type(page, "Print width", "223 mm");
  await expect(page.getByTestId("outbox")).toContainText("2 changes wait");
  // Typed, and the browser is gone at once.
  await page.getByLabel("Print width").fill("224 mm");
  await page.getByLabel("Print width").press("Enter");
  await browser.close();
  await shop.comeBack();
  browser = await open();
  // Another page than the job's.
  await (await browser.newPage()).goto("/settings");
  await expect
    .poll(async () => jobSchema.parse(await read(`/jobs/${id}`)).recipe.artwork.width)
    .toEqual({ value: 224, unit: "mm" });
  await browser.close();
  rmSync(profile, { recursive: true });
});

test("a title typed while the server is dead is shown, waits on every screen, and is saved when it is back", async ({
  page,
}) => {
  const errors: Error[] = [];
  page.on("pageerror", (error) => errors.push(error));
  await newJob(page);
  await shop.die();
  await type(page, "Title", "Deck shirts");
  const note = page.getByTestId("outbox");
  await expect(note).toContainText("The server does not answer. 1 change waits");
  await board(page).click();
  await expect(page.getByText("Deck shirts")).toBeVisible();
  await expect(note).toContainText("1 change waits");
  await page.getByRole("link", { name: "Shop settings" }).click();
  await expect(note).toContainText("1 change waits");
  await shop.comeBack();
  await note.getByRole("button", { name: "Try now" }).click();
  await expect(note).toHaveCount(0);
  await board(page).click();
  await page.getByRole("link", { name: /Deck shirts/ }).click();
  await settled(page);
  expect((await jobAt(page)).title).toBe("Deck shirts");
  expect(errors).toEqual([]);
});

test("while writing fails the board says so, and coming back to the job shows what was changed last", async ({
  page,
}) => {
  await newJob(page);
  const isRecipe = /\/api\/jobs\/[^/]+\/recipes$/;
  await page.route(isRecipe, (route) => route.fulfill({ status: 500, json: { title: "Stumbled", status: 500 } }));
  await type(page, "Print width", "231 mm");
  await board(page).click();
  await expect(page.getByTestId("outbox")).toContainText("1 change waits");
  await page
    .getByRole("link", { name: /tern logo/ })
    .first()
    .click();
  await expect(page.getByLabel("Print width")).toHaveValue("231 mm");
  await expect(page.getByTestId("save-state")).toContainText("Not saved yet");
  await page.unrouteAll();
  await settled(page);
  expect((await jobAt(page)).recipe.artwork.width).toEqual({ value: 231, unit: "mm" });
});

test("an answer that never arrives does not make a second version", async ({ page }) => {
  await newJob(page);
  const before = (await jobAt(page)).head;
  let lost = 0;
  await page.route(/\/api\/jobs\/[^/]+\/recipes$/, async (route) => {
    if (lost++ > 0) return route.continue();
    await route.fetch();
    return route.abort();
  });
  await type(page, "Print width", "241 mm");
  await settled(page);
  expect(lost).toBe(2);
  expect((await jobAt(page)).head).toBe(before + 1);
});

test("what was done to shelf and settings while the server was dead is done in order when it is back", async ({
  page,
}) => {
  await page.goto("/shelf");
  await page.getByRole("button", { name: "Add an ink" }).click();
  await expect(page.getByRole("row", { name: "Not named yet" })).toBeVisible();
  await expect.poll(async () => shelfSchema.parse(await read("/shelf")).length).toBe(1);
  await shop.die();
  await type(page, "Name of Not named yet", "Tern grey");
  await expect(page.getByTestId("outbox")).toContainText("waits");
  await type(page, "Detail of Tern grey", "Two tins");
  await page.getByRole("button", { name: "Add an ink" }).click();
  await type(page, "Name of Not named yet", "Kelp");
  await page.getByRole("button", { name: "Take Kelp off the shelf" }).click();
  await page.getByRole("button", { name: "Put it back" }).click();
  await expect(page.getByRole("row", { name: "Kelp" })).toBeVisible();
  await page.getByRole("link", { name: "Shop settings" }).click();
  await expect(page.getByRole("alert")).toContainText("It is tried again by itself.");
  await page.close();
  await shop.comeBack();
  const again = await page.context().newPage();
  await again.goto("/shelf");
  await expect(again.getByTestId("outbox")).toHaveCount(0);
  await expect(again.getByRole("row", { name: "Kelp" })).toBeVisible();
  await expect
    .poll(async () =>
      shelfSchema
        .parse(await read("/shelf"))
        .map(({ name, detail }) => `${name} ${detail}`)
        .sort(),
    )
    .toEqual(["Kelp ", "Tern grey Two tins"]);
});

test("with the server dead every step and page opens, says what it waits for, and goes on by itself", async ({
  page,
}) => {
  await page.goto("/");
  const parts: string[] = JSON.parse(await (await fetch(`${SHOP}/parts.json`)).text());
  await newJob(page);
  await expect
    .poll(() =>
      page.evaluate((all) => {
        const fetched = new Set(performance.getEntriesByType("resource").map(({ name }) => new URL(name).pathname));
        return all.filter((part) => !fetched.has(part)).length;
      }, parts),
    )
    .toBe(0);
  await shop.die();
  for (const step of ["Colours", "Shapes", "Separations", "Output"]) {
    await page.getByRole("navigation", { name: "Steps" }).getByRole("link", { name: step }).click();
    await expect(page.getByRole("heading", { name: step, exact: true })).toBeVisible();
    await expect(page.getByTestId("busy")).toHaveCount(0);
  }
  await page.getByRole("button", { name: "Make the files" }).click();
  await expect(page.getByRole("alert").first()).toContainText("The server does not answer");
  for (const name of ["Job board", "Shelf", "Motifs", "Typefaces", "Shop settings", "Room"]) {
    await page.getByRole("link", { name, exact: true }).click();
    await expect(page.getByRole("heading", { name, exact: true })).toBeVisible();
  }
  await expect(page.getByRole("alert")).toContainText("It is tried again by itself.");
  await shop.comeBack();
  await expect(page.getByRole("alert")).toHaveCount(0);
});

test("files and pictures that were ordered while the server was dead are made when it is back, once", async ({
  page,
}) => {
  await newJob(page, "ordered once.png");
  await goTo(page, "Output");
  await shop.die();
  await page.getByRole("button", { name: "Make the files" }).click();
  const alert = page.getByRole("alert");
  await expect(alert).toContainText("It is tried again by itself.");
  await shop.comeBack();
  await expect(page.getByTestId("run-files")).toBeVisible();
  await expect(alert).toHaveCount(0);
  await board(page).click();
  await shop.die();
  await dropFiles(page, { name: "late picture.png", bytes: await drawPng(LOGO) });
  await expect(page.getByText("Waits for the server")).toBeVisible();
  await shop.comeBack();
  await page.waitForURL(/\/jobs\/[0-9a-f-]+\/artwork/);
  const jobs = (await read("/board?words=late+picture")) as { jobs: unknown[] };
  expect(jobs.jobs.length).toBe(1);
});
