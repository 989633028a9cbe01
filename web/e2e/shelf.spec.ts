// The shelf and the shop's settings as a person keeps them.
import { readFile } from "node:fs/promises";
import { expect, test } from "@playwright/test";
import { goTo, newJob, settled } from "./shop.ts";

test("the shelf: stock is added and changed where it stands, given out, taken in; a bad file is named line by line", async ({
  page,
}) => {
  await page.goto("/");
  await page.getByRole("link", { name: "Shelf" }).click();
  await expect(page.getByRole("heading", { name: "Shelf" })).toBeVisible();
  await page.getByText("Threads").click();
  await expect(page.getByRole("row", { name: "Salt" })).toBeVisible();
  await page.getByText("Inks").click();
  await page.getByRole("button", { name: "Add an ink" }).click();
  const fresh = page.getByRole("row", { name: "Not named yet" });
  await fresh.getByLabel("Value of Not named yet").fill("Lab 42,5 60 30");
  await fresh.getByLabel("Value of Not named yet").press("Enter");
  await expect(fresh.getByLabel("Value of Not named yet")).toHaveValue("Lab 42.5 60 30");
  await fresh.getByLabel("Name of Not named yet").fill("Rope red");
  await fresh.getByLabel("Name of Not named yet").press("Enter");
  await expect(page.getByRole("row", { name: "Rope red" })).toBeVisible();
  await page.reload();
  await expect(page.getByRole("row", { name: "Rope red" })).toBeVisible();

  const download = page.waitForEvent("download");
  await page.getByRole("link", { name: "Give out as CSV" }).click();
  const csv = await readFile(await (await download).path(), "utf8");
  expect(csv).toContain("Rope red");
  const take = (name: string, text: string) =>
    page.getByLabel("File of stock").setInputFiles({ name, mimeType: "text/csv", buffer: Buffer.from(text) });
  await take("bad.csv", "code,name,hex\nB-1,Bell,#123456\nB-2,,#1234\n");
  await expect(page.getByRole("alert")).toContainText("Line 3");
  await expect(page.getByRole("alert")).toContainText("the shelf is as it was");
  await expect(page.getByRole("row", { name: "Bell" })).toHaveCount(0);
  await take("good.csv", csv.replace("Rope red", "Hawser red"));
  await expect(page.getByText(/^0 added, 1 changed/)).toBeVisible();
  await page.getByRole("button", { name: "Take Hawser red off the shelf" }).click();
  await expect(page.getByRole("row", { name: "Hawser red" })).toHaveCount(0);
  await page.getByRole("button", { name: "Put it back" }).click();
  await expect(page.getByRole("row", { name: "Hawser red" })).toBeVisible();
});

test("the shop's settings reach the job: price, limits", async ({ page }) => {
  await page.goto("/settings");
  await page.getByLabel("A screen", { exact: true }).fill("30");
  await page.getByLabel("A screen", { exact: true }).press("Enter");
  await page.getByLabel("Same colour up to ΔE").fill("0.01");
  await page.getByLabel("Same colour up to ΔE").press("Enter");
  await expect(page.getByLabel("Same colour up to ΔE")).toHaveValue("0.01");
  await newJob(page);
  await goTo(page, "Colours");
  await settled(page);
  await expect(page.getByText(/one more or fewer is £47.50/)).toBeVisible();
  await page.goto("/settings");
  for (const [label, value] of [
    ["A screen", "18"],
    ["Same colour up to ΔE", "2"],
  ] as const) {
    await page.getByLabel(label, { exact: true }).fill(value);
    await page.getByLabel(label, { exact: true }).press("Enter");
    await expect(page.getByLabel(label, { exact: true })).toHaveValue(value);
  }
});

test("settings typed one after another without waiting all count", async ({ page }) => {
  // An answer that takes its time, as over a slow line: the next ones are typed before it is there.
  await page.route("**/api/settings", async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 400));
    await route.continue();
  });
  await page.goto("/settings");
  const typed = { "A colour on a piece": "0.4", "Close enough up to ΔE": "6", "Thinnest gap": "0.4 mm" };
  const before: Record<string, string> = {};
  for (const label of Object.keys(typed)) before[label] = await page.getByLabel(label).inputValue();
  const type = async (values: Readonly<Record<string, string>>) => {
    for (const [label, value] of Object.entries(values)) {
      await page.getByLabel(label).fill(value);
      await page.getByLabel(label).press("Enter");
    }
    for (const [label, value] of Object.entries(values)) await expect(page.getByLabel(label)).toHaveValue(value);
  };
  await type(typed);
  await expect(page.getByRole("alert")).toHaveCount(0);
  await page.reload();
  for (const [label, value] of Object.entries(typed)) await expect(page.getByLabel(label)).toHaveValue(value);
  await type(before);
  await expect(page.getByRole("alert")).toHaveCount(0);
});

test("what was read before a change does not bring the old value back", async ({ page }) => {
  await page.goto("/settings");
  const field = page.getByLabel("Close enough up to ΔE");
  const before = await field.inputValue();
  // The page reads anew when it is looked at after a while: read before the change, there after it, and the change takes
  // longer than both.
  await page.route("**/api/settings", async (route) => {
    const isRead = route.request().method() === "GET";
    const response = await route.fetch();
    await new Promise((resolve) => setTimeout(resolve, isRead ? 1000 : 2500));
    await route.fulfill({ response });
  });
  await page.waitForTimeout(5_200);
  const isAsked = page.waitForRequest("**/api/settings");
  await page.evaluate(() => document.dispatchEvent(new Event("visibilitychange", { bubbles: true })));
  await isAsked;
  await field.fill("7.25");
  await field.press("Enter");
  await expect(field).toHaveValue("7.25");
  await page.waitForTimeout(1_800);
  expect(await field.inputValue()).toBe("7.25");
  await field.fill(before);
  await field.press("Enter");
});
