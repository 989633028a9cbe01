import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { expect, type Page, test } from "@playwright/test";
import { readPlates } from "../../cli/src/plates.test.support.ts";
import { drawBakery } from "../../tools/demo/bakery.ts";
import { dropFiles, goTo, settled } from "./shop.ts";
import { Table } from "./table.ts";

const WHITE = [255, 255, 255] as const;
/** Pixels of the bakery's picture. */
const SIDE = 360;
const words = (page: Page) => page.getByLabel("Words", { exact: true }).and(page.locator("textarea"));
/** A place of the drawing (800 units wide), on the picture. */
const on = (x: number, y: number) => [(x * SIDE) / 800, (y * SIDE) / 800] as const;
/** On the arc of the name, that far out, so many degrees right of its top. */
const onArc = (deg: number, radius: number) =>
  on(400 + radius * Math.sin((deg * Math.PI) / 180), 470 - radius * Math.cos((deg * Math.PI) / 180));

async function openBakery(page: Page): Promise<Table> {
  await page.goto("/");
  await dropFiles(page, { name: "hearth and rye.jpg", bytes: await drawBakery() });
  await page.waitForURL(/\/jobs\/[0-9a-f-]+\/artwork/);
  await settled(page);
  await goTo(page, "Shapes");
  await page.getByRole("tab", { name: "Lettering" }).click();
  await settled(page);
  return new Table(page, SIDE, SIDE);
}

test("the bakery's name is taken away and set again on its arc, changed, in the films, and had back", async ({
  page,
}) => {
  const table = await openBakery(page);
  await page.getByText("Old letters", { exact: true }).click();
  // A loop round the arc, over the loaf.
  await page.getByText("Loop", { exact: true }).click();
  const loop = [-84, -60, -30, 0, 30, 60, 84].map((deg) => onArc(deg, 385));
  const back = [84, 60, 30, 0, -30, -60, -84].map((deg) => onArc(deg, 272));
  await table.drag(...loop, ...back, loop[0] ?? on(0, 0));
  await expect(page.getByLabel(/^10 of/)).toBeChecked();
  await page.getByLabel("What they say").fill("HEARTH & RYE");
  await page.getByRole("button", { name: "Find the typeface" }).click();
  const proposals = page.getByRole("list", { name: "Proposals" }).getByRole("button");
  // The first answers are there at once; then it goes on to the last typeface.
  await expect(proposals.first()).toBeVisible({ timeout: 3000 });
  await expect(page.getByText(/typefaces tried$/)).toBeVisible();
  await expect(page.getByRole("button", { name: "Find the typeface" })).toBeVisible({ timeout: 40_000 });
  await expect(proposals).toHaveCount(5);
  await expect(proposals.first()).toHaveAccessibleName(/DejaVu Serif Bold, which covers (8[5-9]|9\d)/);
  await proposals.first().click();
  await settled(page);
  await expect(words(page)).toHaveValue("HEARTH & RYE");
  const lines = page.getByRole("list", { name: "Lettering" }).getByRole("listitem");
  await expect(lines).toHaveCount(1);
  // The stem of the first H stands where it stood.
  const stem = onArc(-71, 318);
  await page.getByLabel("Old art shows through").focus();
  await page.keyboard.press("Home");
  // Typing shows at once: a shorter word leaves its ends bare.
  await words(page).fill("MILL");
  await settled(page);
  await table.expectColour(...stem, WHITE);
  await page.getByRole("button", { name: "Undo" }).click();
  await settled(page);
  await expect(words(page)).toHaveValue("HEARTH & RYE");
  await page.getByRole("button", { name: "Redo" }).click();
  await settled(page);
  // The middle of MILL is between its second and third letter: the stem of the first L is left of it.
  await goTo(page, "Output");
  await page.getByRole("button", { name: /^Make/ }).click();
  await expect(page.getByRole("link", { name: "separations.pdf" })).toBeVisible({ timeout: 60_000 });
  const download = page.waitForEvent("download");
  await page.getByRole("link", { name: "separations.pdf" }).click();
  const folder = mkdtempSync(join(tmpdir(), "plain-palette-lettering-"));
  const { spots } = await readPlates(await (await download).path(), 100, folder);
  const inked = (deg: number, radius: number) =>
    [...spots.values()].some(({ data, width, height }) => {
      const [x, y] = onArc(deg, radius);
      return (data[Math.round((y / SIDE) * height) * width + Math.round((x / SIDE) * width)] ?? 255) < 60;
    });
  // Somewhere in the middle of the arc is a letter, and no ink where the first and the last one were.
  const row = Array.from({ length: 60 }, (_, k) => inked(-15 + k / 2, 315));
  expect(row.filter(Boolean).length).toBeGreaterThan(5);
  for (let deg = -74; deg < -40; deg++) expect(inked(deg, 325)).toBe(false);
  rmSync(folder, { recursive: true });
});

test("a new line by keyboard: typed, sized, bent, coloured, a letter put right; nothing is lost by a reload", async ({
  page,
}) => {
  const table = await openBakery(page);
  await page.getByRole("button", { name: "New line" }).focus();
  await page.keyboard.press("Enter");
  await settled(page);
  // What was begun is typed over.
  await expect(words(page)).toBeFocused();
  await page.keyboard.type("Since 1947");
  await settled(page);
  await expect(page.getByRole("list", { name: "Lettering" })).toContainText("Since 1947");
  const capitals = page.getByLabel("Capitals", { exact: true });
  await capitals.fill("9 mm");
  await capitals.press("Enter");
  await page.getByText("Arc under", { exact: true }).click();
  await settled(page);
  await expect(page.getByLabel("Radius", { exact: true })).toBeVisible();
  // Through three points of a circle of 60 px, 266.7 mm being 360 px.
  await page.getByRole("button", { name: "Arc through three points" }).click();
  await table.click(120, 200);
  await table.click(180, 140);
  await expect(page.getByText("2 of 3 points")).toBeVisible();
  await table.click(240, 200);
  await settled(page);
  await expect(page.getByLabel("Radius", { exact: true })).toHaveValue(/^44\.[345]/);
  await page.getByLabel("A line round them").check();
  await page.getByLabel("A shadow").check();
  await settled(page);
  // The typeface by its name.
  await page.getByRole("button", { name: /^Typeface:/ }).click();
  await page.getByLabel("Search typefaces").fill("pacifico");
  await page.getByRole("button", { name: "Pacifico", exact: true }).click();
  await settled(page);
  await page.getByRole("tab", { name: "By hand" }).click();
  await expect(page.getByRole("list", { name: "Done by hand" })).toContainText('"Since 1947" in Pacifico');
  await page.reload();
  await settled(page);
  await page.getByRole("tab", { name: "Lettering" }).click();
  await page.getByRole("button", { name: 'Change "' }).click();
  await expect(words(page)).toHaveValue("Since 1947");
  await expect(capitals).toHaveValue("9 mm");
  await expect(page.getByText("At this size")).toBeVisible();
});

test("the shop adds a typeface, and a broken one is refused with the reason", async ({ page }) => {
  await page.goto("/typefaces");
  const files = page.locator('input[type="file"]');
  await files.setInputFiles({ name: "broken.ttf", mimeType: "font/ttf", buffer: Buffer.from("no font at all") });
  await expect(page.getByRole("alert")).toContainText("broken.ttf cannot become a typeface");
  await files.setInputFiles("node_modules/dejavu-fonts-ttf/ttf/DejaVuSansMono-Bold.ttf");
  await expect(page.getByText("DejaVu Sans Mono Bold is added.")).toBeVisible();
  await page.getByLabel("Search typefaces").fill("mono bold");
  await expect(page.getByRole("heading", { name: "DejaVu Sans Mono" })).toBeVisible();
  await page.getByLabel("Kind of DejaVu Sans Mono Bold").selectOption("typewriter");
  await page.getByRole("button", { name: "Put DejaVu Sans Mono Bold away" }).click();
  await expect(page.getByRole("heading", { name: "DejaVu Sans Mono" })).toHaveCount(0);
});
