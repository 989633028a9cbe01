// A whole job without a pointer: the focus is somewhere sensible at each turn.
import { expect, type Locator, type Page, test } from "@playwright/test";
import { drawPng, LOGO, settled } from "./shop.ts";

/** Goes on with Tab until something has the focus; never through the page's body. */
async function tabTo(page: Page, target: Locator): Promise<void> {
  for (let presses = 0; presses < 150; presses++) {
    if (await target.evaluate((element) => element === document.activeElement).catch(() => false)) return;
    await page.keyboard.press("Tab");
  }
  await expect(target).toBeFocused();
}

async function expectFocusKept(page: Page, after: string): Promise<void> {
  const held = await page.evaluate(() => document.activeElement?.tagName);
  expect(held, after).not.toBe("BODY");
}

const heading = (page: Page, name: string) => page.getByRole("heading", { level: 1, name });

test("from the client's picture to films", async ({ page }) => {
  // The browser hears of it long before: a key is faster than the word that its dialog is ours to answer.
  const chooser = page.waitForEvent("filechooser");
  await page.goto("/");
  await expect(heading(page, "Job board")).toBeVisible();
  await page.keyboard.press("Tab");
  await expect(page.getByRole("link", { name: "To the work" })).toBeFocused();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("main")).toBeFocused();
  await page.keyboard.press("Shift+Tab");
  await expect(page.getByRole("button", { name: "New job from a picture" })).toBeFocused();
  await page.keyboard.press("Enter");
  await (await chooser).setFiles({ name: "keys.png", mimeType: "image/png", buffer: await drawPng(LOGO) });

  await expect(heading(page, "Artwork")).toBeFocused();
  await settled(page);
  const width = page.getByLabel("Print width", { exact: true });
  await tabTo(page, width);
  await page.keyboard.type("7 1/2 in");
  await page.keyboard.press("Enter");
  await expect(width).toHaveValue("7.5 in");
  await expect(width).toBeFocused();
  // Undone from the very field.
  await page.keyboard.press("Control+z");
  await expect(width).not.toHaveValue("7.5 in");
  await page.keyboard.press("Control+y");
  await expect(width).toHaveValue("7.5 in");
  await settled(page);

  await tabTo(page, page.getByRole("button", { name: "On to colours" }));
  await page.keyboard.press("Enter");
  await expect(heading(page, "Colours")).toBeFocused();
  await settled(page);
  const merge = page.getByRole("button", { name: /^Merge .*red.* into another/i }).first();
  await tabTo(page, merge);
  await page.keyboard.press("Enter");
  await page.getByRole("menuitem", { name: "Red", exact: true }).focus();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("list", { name: "Spots" }).getByRole("listitem")).toHaveCount(4);
  await settled(page);
  await expectFocusKept(page, "two colours merged");

  await tabTo(page, page.getByRole("button", { name: "On to shapes" }));
  await page.keyboard.press("Enter");
  await expect(heading(page, "Shapes")).toBeFocused();
  await settled(page);
  await page.keyboard.press("t");
  const table = page.getByRole("region", { name: /^Light table/ });
  await expect(table).toBeFocused();
  await expect(table.getByText("Arrow keys move the table", { exact: false })).toBeVisible();

  await tabTo(page, page.getByRole("button", { name: "On to separations" }));
  await page.keyboard.press("Enter");
  await expect(heading(page, "Separations")).toBeFocused();
  await settled(page);
  const grip = page
    .getByRole("list", { name: "Plates" })
    .getByRole("button", { name: /^Move / })
    .last();
  await tabTo(page, grip);
  for (const key of ["Space", "ArrowUp", "Space"]) {
    await page.keyboard.press(key);
    await page.waitForTimeout(300);
  }
  await settled(page);
  await expectFocusKept(page, "a plate moved");

  await tabTo(page, page.getByRole("button", { name: "On to output" }));
  await page.keyboard.press("Enter");
  await expect(heading(page, "Output")).toBeFocused();
  await settled(page);
  await tabTo(page, page.getByRole("button", { name: "Make the files" }));
  await page.keyboard.press("Enter");
  const films = page.getByRole("link", { name: /films\.pdf/ });
  await expect(films).toBeVisible();
  await expectFocusKept(page, "the files made");
  await expect(page.getByTestId("said")).toContainText("The files are made");
  await tabTo(page, films);
  const download = page.waitForEvent("download");
  await page.keyboard.press("Enter");
  expect((await download).suggestedFilename()).toMatch(/films\.pdf$/);
});
