// A job in hand across its screens, and what is typed just before leaving.
import { expect, test } from "@playwright/test";
import { openSection } from "./artwork-step.ts";
import { goTo, newJob, setField, settled } from "./shop.ts";
import { Table } from "./table.ts";

test("the proof shows what was just saved, and coming back rolls nothing back", async ({ page }) => {
  await newJob(page);
  await goTo(page, "Separations");
  await setField(page, "Trap width", "0.6 mm");
  const saved = await page.getByTestId("save-state").textContent();
  const version = Number(/\d+/.exec(saved ?? "")?.[0]);
  await page.getByRole("navigation", { name: "Steps" }).getByRole("link", { name: /Proof/ }).click();
  await expect(page.getByText(new RegExp(`version ${version}$`))).toBeVisible();
  // Nothing false is shown while it is drawn.
  await expect(page.getByText(/^0 colours/)).toHaveCount(0);
  await page.getByRole("link", { name: "Back to the job" }).click();
  await goTo(page, "Separations");
  await expect(page.getByLabel("Trap width")).toHaveValue("0.6 mm");
  await setField(page, "Trap width", "0.7 mm");
  await expect(page.getByRole("alert")).toHaveCount(0);
  await expect(page.getByTestId("save-state")).toHaveText(`Saved, version ${version + 1}`);
});

test("a proof for a sleeve shows a sleeve", async ({ page }) => {
  await newJob(page);
  await page.getByLabel("Placement", { exact: true }).selectOption("Sleeve");
  await settled(page);
  await page.getByRole("navigation", { name: "Steps" }).getByRole("link", { name: /Proof/ }).click();
  await expect(page.getByRole("img", { name: /on the sleeve of the garment/ })).toBeVisible();
});

test("a garment is chosen by the shop's code, and the proof calls it so", async ({ page }) => {
  await newJob(page);
  await page.getByLabel("Garment", { exact: true }).fill("g-21");
  await page.getByLabel("Garment", { exact: true }).press("Enter");
  await settled(page);
  await expect(page.getByLabel("Garment colour")).toHaveValue("#1d2a44");
  await page.getByLabel("Garment", { exact: true }).fill("G-999");
  await page.getByLabel("Garment", { exact: true }).press("Enter");
  await expect(page.getByText(/has no garment "G-999"/)).toBeVisible();
  await expect(page.getByLabel("Garment colour")).toHaveValue("#1d2a44");
  await page.getByRole("navigation", { name: "Steps" }).getByRole("link", { name: /Proof/ }).click();
  await expect(page.getByText(/^G-21 \w/)).toBeVisible();
});

const CELLS = `<svg xmlns="http://www.w3.org/2000/svg" width="400" height="300"><g fill="none" stroke="#101014" stroke-width="9"><circle cx="100" cy="150" r="70"/><circle cx="300" cy="150" r="70"/></g></svg>`;
const AMBER = [242, 177, 52] as const;

test("areas: what a click takes is marked before it; an undone new spot is new again; a loop takes many, to nothing", async ({
  page,
}) => {
  await newJob(page, "cells.png", CELLS);
  await page.getByLabel("Garment colour").fill("#1f7a8c");
  await goTo(page, "Colours");
  await openSection(page, "Areas");
  const table = new Table(page, 400, 300);
  await page.getByRole("button", { name: "Pour into an area" }).click();
  const before = await table.colourAt(100, 150);
  const place = await table.at(100, 150);
  await page.mouse.move(place.x, place.y);
  await expect.poll(async () => (await table.colourAt(60, 150)).join()).not.toBe(before.join());
  await table.click(100, 150);
  await settled(page);
  await table.expectColour(100, 150, AMBER);
  // A click on a line takes nothing, says so and leaves no entry.
  const line = await table.at(170, 150);
  await page.mouse.move(line.x, line.y);
  await expect(page.getByText(/its place is on a line/)).toBeVisible();
  await page.mouse.click(line.x, line.y);
  const list = page.getByRole("list", { name: "Done to areas" }).getByRole("listitem");
  await expect(list).toHaveCount(1);
  await page.getByRole("button", { name: "Undo" }).click();
  await settled(page);
  await expect(page.getByLabel("Spot", { exact: true })).toHaveValue("");
  await table.click(300, 150);
  await settled(page);
  await table.expectColour(300, 150, AMBER);
  await expect(list).toHaveCount(1);
  await expect(list).not.toContainText("gone");
  await page.getByRole("button", { name: "Stop: pour into an area" }).click();
  await page.getByLabel("Spot", { exact: true }).selectOption("Nothing");
  await page.getByLabel("How far").selectOption("All in a loop I draw");
  await page.getByRole("button", { name: "Recolour an area" }).click();
  await table.drag([210, 60], [390, 60], [390, 240], [210, 240], [210, 70]);
  await settled(page);
  await table.expectColour(300, 150, [31, 122, 140]);
  await expect(list.nth(1)).toContainText("Areas to nothing");
});

test("a setting typed right before the page is left lasts, even behind a slow one", async ({ page }) => {
  await page.goto("/settings");
  const screen = page.getByLabel("A screen", { exact: true });
  const before = await screen.inputValue();
  const gap = page.getByLabel("Thinnest gap");
  const gapBefore = await gap.inputValue();
  await page.route("**/api/settings", async (route) => {
    if (route.request().method() === "PATCH") await new Promise((resolve) => setTimeout(resolve, 300));
    await route.continue();
  });
  await screen.fill("31");
  await screen.press("Enter");
  // With the cursor still in the field, and the first one on its way.
  await gap.fill("0.45 mm");
  await page.goto("/");
  await page.unrouteAll({ behavior: "wait" });
  await expect(async () => {
    await page.goto("/settings");
    await expect(screen).toHaveValue("31", { timeout: 2000 });
    await expect(gap).toHaveValue("0.45 mm", { timeout: 2000 });
  }).toPass();
  for (const [field, value] of [
    [screen, before],
    [gap, gapBefore],
  ] as const) {
    await field.fill(value);
    await field.press("Enter");
    await expect(field).toHaveValue(value);
  }
  await page.waitForLoadState("networkidle");
});

test("a job is copied, the copy put away and taken out again, each said by name", async ({ page }) => {
  await newJob(page, "copy me.png");
  await page.getByRole("link", { name: "Job board" }).click();
  await page.getByLabel("Search jobs").fill("copy me");
  const cards = page.getByRole("main").getByRole("listitem");
  await page.getByRole("button", { name: "Copy copy me" }).first().click();
  await expect(page.getByText(/is a copy of copy me\./)).toBeVisible();
  await expect(cards).toHaveCount(2);
  await page.getByRole("button", { name: "Put away copy me (copy)" }).click();
  await expect(page.getByText("copy me (copy) is put away.")).toBeVisible();
  await expect(cards).toHaveCount(1);
  await page.getByRole("button", { name: /^Put away: \d/ }).click();
  await page.getByRole("button", { name: "Take out copy me (copy)" }).click();
  await page.getByRole("button", { name: "Back to the board" }).click();
  await expect(cards).toHaveCount(2);
});

test("what one window changes, another of the same browser shows within a second, and goes on from there", async ({
  page,
  context,
}) => {
  await newJob(page);
  const second = await context.newPage();
  await second.goto(page.url());
  await settled(second);
  await setField(page, "Print width", "123 mm");
  await expect(second.getByLabel("Print width")).toHaveValue("123 mm", { timeout: 1000 });
  await setField(second, "Print width", "124 mm");
  await expect(page.getByLabel("Print width")).toHaveValue("124 mm", { timeout: 1000 });
  await page.getByLabel("Title", { exact: true }).fill("Followed");
  await page.getByLabel("Title", { exact: true }).press("Enter");
  await expect(second.getByLabel("Title", { exact: true })).toHaveValue("Followed", { timeout: 1000 });
  await expect(second).toHaveTitle(/Artwork · \d+ Followed/);
});
