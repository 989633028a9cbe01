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

test("what opens over the page, a motif's sheet, files on the practice bench and the client's page keep nobody out", async ({
  page,
  browser,
}) => {
  await page.goto("/motifs");
  await page.getByRole("list", { name: "Motifs" }).getByRole("button").first().click();
  await expect(page.getByRole("region", { name: /^Motif / })).toBeVisible();
  await expectAccessible(page, "a motif's sheet");

  await newJob(page);
  const title = await page.getByLabel("Title", { exact: true }).inputValue();
  await page.getByRole("button", { name: "Change the shop's placements" }).click();
  await expectAccessible(page, "the shop's placements");
  await page.keyboard.press("Escape");

  await goTo(page, "Shapes");
  await page.getByRole("tab", { name: "Lettering" }).click();
  await page.getByRole("button", { name: "New line" }).click();
  await settled(page);
  await expectAccessible(page, "a line of lettering");
  await page.getByRole("button", { name: /^Typeface:/ }).click();
  await expect(page.getByLabel("Search typefaces")).toBeVisible();
  await expectAccessible(page, "the typefaces");
  await page.keyboard.press("Escape");

  await page.getByRole("tab", { name: "Motifs" }).click();
  await page
    .getByRole("button", { name: /^Place / })
    .first()
    .click();
  await settled(page);
  await expectAccessible(page, "a placed motif");

  await page.getByLabel("Made with").first().selectOption("Stitches");
  await goTo(page, "Output");
  await page.getByRole("button", { name: "Make the files" }).click();
  await expect(page.getByRole("link", { name: /worksheet\.pdf/ })).toBeVisible();
  await page.getByRole("link", { name: "practice bench" }).click();
  await expect(page.getByRole("region", { name: "Embroidery machine" })).toBeVisible();
  await expectAccessible(page, "the practice bench at work");
  await page.goBack();

  await page.getByRole("navigation", { name: "Steps" }).getByRole("link", { name: /Proof/ }).click();
  await page.getByLabel("The client's mail address").fill("mate@ferry.example");
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: "Send the proof" }).click();
  await expect(page.getByRole("region", { name: "Version 1" })).toContainText("Waits for the client");
  await expectAccessible(page, "a proof that was sent");
  await page.goto("/practice?at=mail");
  await page.getByRole("button", { name: new RegExp(title) }).click();
  await expectAccessible(page, "a message");
  const link = await page.getByRole("link", { name: "Open it as the client" }).getAttribute("href");
  const client = await (await browser.newContext({ viewport: { width: 390, height: 800 } })).newPage();
  await client.goto(link ?? "");
  await expect(client.getByRole("heading", { name: title })).toBeVisible();
  await expectAccessible(client, "the client's page");
});
