import { expect, test } from "@playwright/test";
import sharp from "sharp";
import { goTo, newJob, settled } from "./shop.ts";
import { Table } from "./table.ts";

test("the light table looks, zooms and reads as a person asks", async ({ page }) => {
  await newJob(page);
  await goTo(page, "Colours");
  const table = page.getByLabel(/^Light table/);
  const readOut = page.getByTestId("read-out");
  const box = await table.boundingBox();
  if (!box) throw new Error("no table");
  const centre = { x: box.width / 2, y: box.height / 2 };

  await table.hover({ position: centre });
  await expect(readOut).toContainText("133.");
  await expect(readOut).toContainText("Navy");
  await expect(readOut).toContainText("ΔE 0.0");

  const zoomText = page.locator("span", { hasText: /^\d+ %$/ }).first();
  const fitted = await zoomText.textContent();
  await page.getByRole("button", { name: "True size" }).click();
  await expect(zoomText).toHaveText("100 %");
  await table.press("0");
  await expect(zoomText).toHaveText(fitted ?? "");
  await page.mouse.move(box.x + centre.x, box.y + centre.y);
  await page.mouse.wheel(0, -300);
  await expect(zoomText).not.toHaveText(fitted ?? "");
  // The place under the pointer stays under it while zooming.
  await page.mouse.move(box.x + centre.x + 1, box.y + centre.y);
  await expect(readOut).toContainText("133.");
  await page.getByRole("button", { name: "Show all" }).click();

  const pixels = async () => (await table.screenshot()).toString("base64");
  const result = await pixels();
  await page.getByRole("radio", { name: "Outlines" }).click();
  const outlines = await pixels();
  expect(outlines).not.toBe(result);
  await page.getByRole("radio", { name: "Split" }).click();
  expect(await pixels()).not.toBe(outlines);
  await page.getByRole("radio", { name: "Result" }).click();

  // Dropped white shows the garment; the source is one key away.
  await page.getByRole("radiogroup", { name: "What White is" }).getByText("Drop").click();
  await settled(page);
  const dropped = await pixels();
  await page.getByRole("heading", { name: "Colours" }).click();
  await page.keyboard.down("o");
  await expect.poll(pixels).not.toBe(dropped);
  await page.keyboard.up("o");
  await expect.poll(pixels).toBe(dropped);
});

test("the table moves and zooms in one piece: no joints in an even colour, everything where it belongs", async ({
  page,
}) => {
  await newJob(page);
  await goTo(page, "Shapes");
  const art = new Table(page, 400, 300);
  const navy = [20, 48, 79] as const;
  const red = [216, 65, 47] as const;
  await art.expectColour(200, 150, navy);
  await art.expectColour(70, 190, red);
  const box = await art.frame.boundingBox();
  if (!box) throw new Error("no table");
  const from = await art.at(70, 190);
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(from.x + 333, from.y - 101, { steps: 9 });
  await page.mouse.up();
  // The places of the art have moved with it: what was under the hand still is.
  const shownAt = async (x: number, y: number) => {
    const clip = { x: Math.round(x) - 3, y: Math.round(y) - 3, width: 7, height: 7 };
    const { data } = await sharp(await page.screenshot({ clip }))
      .removeAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    return [...data.subarray(0, 3)];
  };
  expect(await shownAt(from.x + 333, from.y - 101)).toEqual([...red]);
  const middle = await art.at(200, 150);
  await page.getByRole("button", { name: "Show all" }).click();
  await page.mouse.move(middle.x, middle.y);
  for (let i = 0; i < 6; i++) await page.mouse.wheel(0, -240);
  const shades = async () => {
    const clip = { x: box.x + 2, y: box.y + 2, width: box.width - 4, height: box.height - 4 };
    const { channels } = await sharp(await page.screenshot({ clip }))
      .removeAlpha()
      .stats();
    return channels.map(({ min, max }) => [min, max]);
  };
  const onlyNavy = navy.map((v) => [v, v]);
  await expect.poll(shades).toEqual(onlyNavy);
  await page.mouse.down();
  await page.mouse.move(middle.x + 77, middle.y + 53, { steps: 7 });
  await page.mouse.up();
  await expect.poll(shades).toEqual(onlyNavy);
});

test("a long run shows progress and can be stopped", async ({ page }) => {
  const art = Array.from(
    { length: 300 },
    (_, i) =>
      `<circle cx="${(i % 20) * 20 + 10}" cy="${Math.floor(i / 20) * 20 + 10}" r="${3 + (i % 6)}" fill="${["#d8412f", "#14304f", "#f2b134"][i % 3]}"/>`,
  ).join("");
  await newJob(
    page,
    "dots.png",
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 400 300" width="3600" height="2700"><rect width="400" height="300" fill="#1f7a8c"/>${art}</svg>`,
  );
  await goTo(page, "Output");
  await page.getByRole("button", { name: "Make the files" }).click();
  await expect(page.getByRole("progressbar", { name: "Making the files" })).toBeVisible();
  await page.getByRole("button", { name: "Stop" }).click();
  await expect(page.getByText("Stopped. Nothing was written.")).toBeVisible();
  await expect(page.getByRole("button", { name: "Make the files" })).toBeEnabled();
});
