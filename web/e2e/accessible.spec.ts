// Every screen, dialog and open menu against the Web Content Accessibility Guidelines 2.2, A and AA, and what is good
// practice beside them, as axe-core reads them (Deque's open-source engine, an outside check).
import AxeBuilder from "@axe-core/playwright";
import { expect, type Page, test } from "@playwright/test";
import { goTo, newJob, settled } from "./shop.ts";

const RULES = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"];

async function expectAccessible(page: Page, where: string): Promise<void> {
  const { violations } = await new AxeBuilder({ page }).withTags(RULES).analyze();
  const told = violations.map(
    ({ id, nodes }) => `${where}: ${id}: ${nodes.map(({ html }) => html.slice(0, 200)).join(" | ")}`,
  );
  expect.soft(told).toEqual([]);
  expect.soft(await alikeButtons(page), `${where}: buttons that are called the same`).toEqual([]);
}

/** Names that more than one button has, as a reader lists them: nobody who hears the list knows which is which. */
async function alikeButtons(page: Page): Promise<string[]> {
  const names = [...(await page.locator("body").ariaSnapshot()).matchAll(/- button "((?:[^"\\]|\\.)*)"/g)].map(
    ([, name = ""]) => name,
  );
  return [...new Set(names.filter((name, i) => names.indexOf(name) !== i))];
}

test("the shop's pages have nothing that keeps anybody out", async ({ page }) => {
  for (const path of [
    "/",
    "/shelf",
    "/motifs",
    "/typefaces",
    "/settings",
    "/room",
    "/practice",
    "/practice?at=mail",
    "/nowhere",
  ]) {
    await page.goto(path);
    await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
    await page.waitForLoadState("networkidle");
    await expectAccessible(page, path);
  }
  await page.goto("/");
  await page.getByRole("radio", { name: "List" }).click();
  await expectAccessible(page, "the board as a list");
  await page.keyboard.press("?");
  await expectAccessible(page, "the sheet of keys");
  await page.getByRole("button", { name: "Close" }).click();
  await page.getByRole("button", { name: "Empty sheet" }).click();
  await expectAccessible(page, "a new sheet");
});

test("every step of a job has nothing that keeps anybody out", async ({ page }) => {
  await newJob(page);
  for (const tab of await page.getByRole("tab").allTextContents()) {
    await page.getByRole("tab", { name: tab, exact: true }).click();
    await expectAccessible(page, `Artwork, ${tab}`);
  }
  for (const step of ["Colours", "Shapes", "Separations", "Output"]) {
    await goTo(page, step);
    const tabs = await page.getByRole("tab").allTextContents();
    if (tabs.length === 0) await expectAccessible(page, step);
    for (const tab of tabs) {
      await page.getByRole("tab", { name: tab, exact: true }).click();
      await settled(page);
      await expectAccessible(page, `${step}, ${tab}`);
    }
  }
  for (const [way, title] of [
    ["Transfer film", "Layers"],
    ["Stitches", "Stitches"],
    ["Stones", "Stones"],
  ] as const) {
    await page.getByLabel("Made with").first().selectOption(way);
    await goTo(page, title);
    await expectAccessible(page, way);
    await goTo(page, "Output");
    await expectAccessible(page, `${way}, output`);
  }
  await goTo(page, "Colours");
  await page
    .getByRole("button", { name: /^Merge .*red.* into another/i })
    .first()
    .click();
  await expectAccessible(page, "a menu of colours");
  await page.keyboard.press("Escape");
  await page.getByRole("navigation", { name: "Steps" }).getByRole("link", { name: /Proof/ }).click();
  await expect(page.getByRole("img", { name: /on the front of the garment/ })).toBeVisible();
  await expectAccessible(page, "Proof");
});
