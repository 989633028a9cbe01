// Any screen: what is worked on keeps its room, and nobody scrolls sideways to read.
import { expect, type Page, test } from "@playwright/test";
import { goTo, newJob } from "./shop.ts";

/** Widths from a phone to a large screen; the first two are also what 400 % and 200 % of zoom leave of 1280x800. */
const SCREENS = [
  { width: 320, height: 200 },
  { width: 640, height: 400 },
  { width: 390, height: 800 },
  { width: 1024, height: 768 },
  { width: 1280, height: 800 },
  { width: 1920, height: 1080 },
  { width: 2560, height: 1440 },
] as const;
/** Of the width of the screen, where the table has no row of its own. */
const LEAST_TABLE = 0.55;

const sideways = (page: Page) =>
  page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);

test("the table has more than half of any screen, or a row of its own, and every way to look at it can be clicked", async ({
  page,
}) => {
  await newJob(page);
  for (const step of ["Artwork", "Colours", "Shapes", "Separations", "Output"]) {
    await page.setViewportSize({ width: 1280, height: 800 });
    await goTo(page, step);
    for (const screen of SCREENS) {
      await page.setViewportSize(screen);
      const table = page.getByRole("region", { name: /^Light table/ });
      const share = async () => ((await table.boundingBox())?.width ?? 0) / screen.width;
      // The ticket folds when the page has heard of its new width.
      await expect.poll(share, `${step} at ${screen.width}`).toBeGreaterThanOrEqual(LEAST_TABLE);
      expect(await sideways(page), `${step} at ${screen.width}`).toBe(0);
      for (const way of await page.getByRole("radiogroup", { name: "Look at" }).getByRole("radio").all())
        await way.click({ trial: true });
    }
  }
});

test("no page is wider than the screen", async ({ page }) => {
  for (const path of ["/", "/shelf", "/motifs", "/typefaces", "/settings", "/room", "/practice", "/practice?at=mail"]) {
    await page.goto(path);
    await page.waitForLoadState("networkidle");
    for (const screen of SCREENS) {
      await page.setViewportSize(screen);
      expect.soft(await sideways(page), `${path} at ${screen.width}`).toBe(0);
    }
  }
  await newJob(page);
  await page.getByRole("navigation", { name: "Steps" }).getByRole("link", { name: /Proof/ }).click();
  const picture = page.getByRole("img", { name: /on the front of the garment/ });
  await expect(picture).toBeVisible();
  for (const screen of SCREENS) {
    await page.setViewportSize(screen);
    expect.soft(await sideways(page), `proof at ${screen.width}`).toBe(0);
    expect((await picture.boundingBox())?.width ?? 0).toBeGreaterThan(0.5 * Math.min(screen.width, 800));
  }
});

test("ticket and settings fold away, are remembered, and the focus goes with them", async ({ page }) => {
  await newJob(page);
  const table = page.getByRole("region", { name: /^Light table/ });
  const width = async () => (await table.boundingBox())?.width ?? 0;
  const before = await width();
  await page.getByRole("button", { name: "Fold the settings away" }).press("Enter");
  await expect(page.getByRole("button", { name: "Open the settings" })).toBeFocused();
  expect(await width()).toBeGreaterThan(before + 300);
  await page.getByRole("button", { name: "Fold the ticket away" }).press("Enter");
  await expect(page.getByRole("button", { name: "Open the ticket" })).toBeFocused();
  expect(await width()).toBe(1280);
  await page.reload();
  await expect(table).toBeVisible();
  expect(await width()).toBe(1280);
  await page.getByRole("button", { name: "Open the settings" }).press("Enter");
  await expect(page.getByRole("button", { name: "Fold the settings away" })).toBeFocused();
});
