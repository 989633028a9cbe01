// Comparing, the list of what was done, the way back to the client's file, and how live it all is.
import { readFile } from "node:fs/promises";
import { expect, test } from "@playwright/test";
import sharp from "sharp";
import { done, GARMENT, jobOf, logoOnTeal, openSection, RED, WHITE } from "./artwork-step.ts";
import { LOGO, newJob, settled } from "./shop.ts";
import { Table } from "./table.ts";

test("comparing: the source faded in, held, split, and the map of differences", async ({ page }) => {
  const table = await logoOnTeal(page);
  await openSection(page, "Background");
  await page.getByRole("button", { name: "Take the background away" }).click();
  await settled(page);
  await page.getByRole("button", { name: /^#ffffff away/ }).click();
  await table.expectColour(390, 290, GARMENT);
  const fade = page.getByLabel("Fade in source, slide");
  await fade.focus();
  await page.keyboard.press("End");
  await table.expectColour(390, 290, WHITE);
  await page.keyboard.press("Home");
  await table.expectColour(390, 290, GARMENT);
  await page.keyboard.down("o");
  await table.expectColour(390, 290, WHITE);
  await page.keyboard.up("o");
  await table.expectColour(390, 290, GARMENT);
  await page.getByRole("radio", { name: "Split" }).click();
  await table.expectColour(10, 290, WHITE);
  await table.expectColour(390, 290, GARMENT);
  await page.getByRole("radio", { name: "Difference" }).click();
  await settled(page);
  await expect(page.getByTestId("difference")).toContainText(/\d+\.\d % differs visibly/);
  // Nothing differs in the red, much where the white was.
  await table.expectColour(60, 180, WHITE);
  expect((await table.colourAt(390, 290))[1]).toBeLessThan(120);
});

test("the list: switched off, moved, taken out; undone back to the client's file, byte for byte", async ({ page }) => {
  const table = await logoOnTeal(page);
  const { artwork, head } = await jobOf(page);
  const untouched = await table.frame.screenshot();
  await openSection(page, "Background");
  await page.getByRole("button", { name: "Take the background away" }).click();
  await settled(page);
  await openSection(page, "Touch up");
  await page.getByRole("button", { name: "Whole design in one colour" }).click();
  await settled(page);
  await openSection(page, "Upright");
  await page.getByRole("button", { name: "Quarter left" }).click();
  await settled(page);
  await expect(done(page)).toHaveCount(3);
  // Whatever its place, what lays the picture upright is done first, and shown first.
  await expect(done(page).first()).toContainText("Turned a quarter left");
  const turned = new Table(page, 300, 400);
  await turned.expectColour(180, 340, [30, 29, 26]);
  await done(page).nth(2).getByRole("checkbox").uncheck();
  await turned.expectColour(180, 340, RED);
  await done(page).nth(2).getByRole("checkbox").check();
  await settled(page);
  // With the keyboard the silhouette goes before the pick: then nothing white is left for it to find.
  const grip = done(page).nth(2).getByRole("button", { name: /^Move/ });
  await grip.focus();
  await page.keyboard.press("Space");
  await page.waitForTimeout(200);
  await page.keyboard.press("ArrowUp");
  await page.waitForTimeout(200);
  await page.keyboard.press("Space");
  await settled(page);
  await expect(page.getByText("finds nothing of its colour here")).toBeVisible();
  await done(page)
    .first()
    .getByRole("button", { name: /^Take out/ })
    .click();
  await settled(page);
  await expect(done(page)).toHaveCount(2);

  const undo = page.getByRole("button", { name: "Undo" });
  await page.reload();
  await settled(page);
  while ((await jobOf(page)).head !== head) {
    await undo.click();
    await settled(page);
  }
  await expect(page.getByText("Nothing done to the picture yet", { exact: false })).toBeVisible();
  const download = page.waitForEvent("download");
  await openSection(page, "Size");
  await page.getByRole("link", { name: "Download it" }).click();
  const bytes = await readFile(await (await download).path());
  const sent = await page.request.get(`/api/artworks/${artwork.hash}/file`);
  expect(bytes.equals(await sharp(Buffer.from(LOGO)).png().toBuffer())).toBe(true);
  expect(bytes.equals(await sent.body())).toBe(true);
  await page.mouse.move(5, 5);
  expect((await table.frame.screenshot()).equals(untouched)).toBe(true);
});

test("tolerance, cut-off and brush are followed live on 4 megapixels (figures printed, not judged)", async ({
  page,
}) => {
  // Every request to the worker, and how long until its picture is there and drawn.
  await page.addInitScript(() => {
    const times: number[] = [];
    Object.assign(window, { times });
    const post = Worker.prototype.postMessage;
    const sent = new Map<number, number>();
    Worker.prototype.postMessage = function (this: Worker, message: { type: string; id: number }) {
      if (message.type === "compute") sent.set(message.id, performance.now());
      if (!("isWatched" in this)) {
        Object.assign(this, { isWatched: true });
        this.addEventListener("message", ({ data }) => {
          const start = sent.get(data.id);
          if (data.type !== "prepared" || start === undefined) return;
          // The first picture of a change is what a hand follows; a finer one may come after it.
          sent.delete(data.id);
          requestAnimationFrame(() => requestAnimationFrame(() => times.push(performance.now() - start)));
        });
      }
      post.call(this, message);
    } as typeof post;
  });
  const large = LOGO.replace('width="400" height="300"', 'width="2310" height="1732"');
  await newJob(page, "large.png", large);
  const measure = async (work: () => Promise<void>): Promise<number> => {
    await page.evaluate(() => {
      (window as unknown as { times: number[] }).times.length = 0;
    });
    await work();
    await settled(page);
    const times = await page.evaluate(() => (window as unknown as { times: number[] }).times);
    expect(times.length).toBeGreaterThan(0);
    return times.sort((a, b) => a - b)[times.length >> 1] ?? Number.NaN;
  };
  const press = async (label: string) => {
    for (let i = 0; i < 16; i++) {
      await page.getByLabel(label).press("ArrowRight");
      await page.waitForTimeout(150);
    }
  };
  await openSection(page, "Background");
  await page.getByRole("button", { name: "Take the background away" }).click();
  await settled(page);
  const tolerance = await measure(() => press("Tolerance, slide"));
  await page.getByRole("button", { name: /^Take out/ }).click();
  await openSection(page, "Line art");
  await page.getByRole("button", { name: "Make it line art" }).click();
  await settled(page);
  const cutOff = await measure(() => press("Cut-off, slide"));
  await page.getByRole("button", { name: "No line art" }).click();
  await openSection(page, "Touch up");
  await page.getByRole("button", { name: "Take the brush" }).click();
  const table = new Table(page, 2310, 1732);
  const brush = await measure(async () => {
    for (let i = 0; i < 5; i++) {
      await table.drag([400, 300 + i * 200], [1500, 300 + i * 200]);
      await page.waitForTimeout(250);
    }
  });
  console.log(
    `4 MP, from the change to the picture (median): tolerance ${tolerance.toFixed(0)} ms, cut-off ${cutOff.toFixed(0)} ms, a finished stroke ${brush.toFixed(0)} ms`,
  );
});
