import { readFile } from "node:fs/promises";
import { expect, test } from "@playwright/test";
import { PDFDocument } from "pdf-lib";
import { goTo, newJob, setField, settled } from "./shop.ts";

test("one job from the client's picture to registered films", async ({ page }) => {
  const complaints: string[] = [];
  page.on("console", (message) => {
    if (message.type() === "error") complaints.push(message.text());
  });
  await newJob(page);

  // Artwork: width in the unit as typed; the resolution follows.
  await setField(page, "Print width", "8 in");
  await expect(page.getByText("50 dpi", { exact: true })).toBeVisible();
  await setField(page, "Print width", "100mm");
  await expect(page.getByLabel("Print width")).toHaveValue("100 mm");
  await expect(page.getByText("75 mm high", { exact: false })).toBeVisible();
  await page.getByLabel("Garment colour").fill("#1d2a44");
  await settled(page);

  // Colours: found by itself; two reds merged by hand; the white box dropped.
  await goTo(page, "Colours");
  const spots = page.getByRole("list", { name: "Spots" }).getByRole("listitem");
  await expect(spots).toHaveCount(5);
  await setField(page, "Number of colours", "3");
  await expect(spots).toHaveCount(3);
  await page.getByRole("button", { name: "Find them" }).click();
  await expect(spots).toHaveCount(5);
  await settled(page);
  await page
    .getByRole("button", { name: /^Merge .*red.* into another/i })
    .first()
    .click();
  await page.getByRole("menuitem", { name: "Red", exact: true }).click();
  await expect(spots).toHaveCount(4);
  await settled(page);
  await page.getByRole("radiogroup", { name: "What White is" }).getByText("Drop").click();
  await settled(page);
  await page.getByLabel("Name of Navy").fill("Harbour blue");
  await page.getByLabel("Name of Navy").press("Enter");
  await settled(page);
  await expect(page.getByRole("link", { name: /Colours 4 colours, 3 inks/ })).toBeVisible();

  // Shapes: a handful of shapes, few nodes, fewer with more tolerance.
  await goTo(page, "Shapes");
  const nodes = async () => Number(await page.getByTestId("node-count").textContent());
  const shapes = Number(await page.getByTestId("shape-count").textContent());
  expect(shapes).toBeGreaterThanOrEqual(3);
  expect(shapes).toBeLessThan(12);
  const fine = await nodes();
  expect(fine).toBeLessThan(60);
  await setField(page, "Tolerance", "2");
  expect(await nodes()).toBeLessThanOrEqual(fine);

  // Separations: light to dark, then reordered from the keyboard; trap and base.
  await goTo(page, "Separations");
  const plates = page.getByRole("list", { name: "Plates" }).getByRole("listitem");
  await expect(plates).toHaveText([/Gold/, /Red/, /Harbour blue/]);
  await expect(page.getByRole("list", { name: "Underbase" }).getByRole("listitem")).toHaveCount(1);
  await page.getByRole("button", { name: "Move Harbour blue" }).focus();
  await page.keyboard.press("Space");
  await page.waitForTimeout(300);
  await page.keyboard.press("ArrowUp");
  await page.waitForTimeout(300);
  await page.keyboard.press("Space");
  await expect(plates).toHaveText([/Gold/, /Harbour blue/, /Red/]);
  await settled(page);
  await setField(page, "Trap width", "0.5mm");
  await setField(page, "Choke", "1pt");
  await expect(page.getByLabel("Choke")).toHaveValue("0.353 mm");
  await page.getByRole("button", { name: "Alone" }).nth(1).click();
  await expect(page.getByRole("checkbox", { name: "Red on the table" })).not.toBeChecked();
  await page.getByRole("button", { name: "All on the table" }).click();
  await expect(page.getByRole("checkbox", { name: "Red on the table" })).toBeChecked();

  // Output: made by the server from this very recipe, downloaded, true to the job.
  await goTo(page, "Output");
  await page.getByText("Mirrored").click();
  await settled(page);
  await page.getByRole("button", { name: "Make the files" }).click();
  await expect(page.getByText("Made from the recipe as it is now.")).toBeVisible();
  const download = page.waitForEvent("download");
  await page.getByRole("link", { name: "films.pdf" }).click();
  const films = await PDFDocument.load(await readFile(await (await download).path()));
  expect(films.getPageCount()).toBe(4);
  const { width } = films.getPage(0).getSize();
  expect((width * 25.4) / 72).toBeGreaterThan(100 + 2 * 10);

  // Reload: everything is there; undo walks back through what was done before the reload, and redo forward.
  await page.reload();
  await settled(page);
  await expect(page.getByText("Made from the recipe as it is now.")).toBeVisible();
  await goTo(page, "Separations");
  await expect(page.getByLabel("Trap width")).toHaveValue("0.5 mm");
  const undo = page.getByRole("button", { name: "Undo" });
  for (let i = 0; i < 3; i++) {
    await undo.click();
    await settled(page);
  }
  await expect(page.getByLabel("Trap width")).toHaveValue("0.3 mm");
  await page.reload();
  await settled(page);
  await page.keyboard.press("Control+z");
  await settled(page);
  await expect(plates).toHaveText([/Gold/, /Red/, /Harbour blue/]);
  for (let i = 0; i < 4; i++) {
    await page.getByRole("button", { name: "Redo" }).click();
    await settled(page);
  }
  await expect(page.getByLabel("Trap width")).toHaveValue("0.5 mm");
  await expect(plates).toHaveText([/Gold/, /Harbour blue/, /Red/]);

  // Proof: what the client sees.
  await page.goto(page.url().replace("make", "proof"));
  await expect(page.getByRole("list", { name: "Colours" }).getByRole("listitem")).toHaveText([
    /Harbour blue/,
    /Red/,
    /Gold/,
  ]);
  const onGarment = page.getByRole("img", { name: /on the front of the garment/ });
  await expect(onGarment.locator('path[fill="#f2b134"]')).toHaveAttribute("d", /^M/);
  expect(complaints).toEqual([]);
});
