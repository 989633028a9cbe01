import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { expect, type Page, test } from "@playwright/test";
import { readPlates } from "../../cli/src/plates.test.support.ts";
import { drawPng, dropFiles, goTo, newJob, setField, settled } from "./shop.ts";
import { Table } from "./table.ts";

const FLOWERS = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 400 300" width="400" height="300"><rect width="400" height="300" fill="#ffffff"/>${[
  [80, 80],
  [200, 80],
  [320, 80],
  [80, 220],
]
  .map(([x, y]) => `<circle cx="${x}" cy="${y}" r="30" fill="#d8412f"/>`)
  .join("")}<rect x="180" y="180" width="160" height="60" fill="#14304f"/></svg>`;
const RED = [216, 65, 47] as const;
const NAVY = [20, 48, 79] as const;

async function openMotifs(page: Page, name: string): Promise<Table> {
  await newJob(page, name, FLOWERS);
  await goTo(page, "Shapes");
  await page.getByRole("tab", { name: "Motifs" }).click();
  await settled(page);
  return new Table(page, 400, 300);
}

const placed = (page: Page) => page.getByRole("list", { name: "Placed motifs" }).getByRole("listitem");

test("a shape is kept as a motif, found on its page, filed, and placed in place of others", async ({ page }) => {
  const table = await openMotifs(page, "flowers.png");
  await page.getByText("Shapes of this job", { exact: true }).click();
  await table.click(260, 210);
  await expect(page.getByText("1 shape picked")).toBeVisible();
  const name = `Plank ${Date.now()}`;
  await page.getByLabel("Name", { exact: true }).fill(name);
  await page.getByLabel("Words", { exact: true }).fill("deck timber");
  await page.getByRole("button", { name: "Keep the picked shapes" }).click();
  await expect(page.getByText(`${name} is kept.`)).toBeVisible();

  // On the page: found by its words, filed by keyboard alone.
  await page.goto("/motifs");
  await page.getByLabel("Search motifs").fill("deck");
  const card = page.getByRole("list", { name: "Motifs" }).getByRole("button", { name });
  await expect(page.getByRole("list", { name: "Motifs" }).getByRole("button")).toHaveCount(1);
  await card.focus();
  await page.keyboard.press("Enter");
  const sheet = page.getByRole("region", { name: `Motif ${name}` });
  await expect(sheet.getByText("flowers", { exact: false }).first()).toBeVisible();
  await sheet.getByLabel("Folder", { exact: true }).fill("Planks");
  await page.keyboard.press("Enter");
  await expect(
    page.getByRole("list", { name: "Motifs" }).getByRole("button", { name: `${name}, in Planks` }),
  ).toBeVisible();

  // In place of all the round ones of another job: navy where red was, and white beside it.
  const other = await openMotifs(page, "other flowers.png");
  await page.getByText("Shapes of this job", { exact: true }).click();
  await other.click(80, 80);
  await page.getByRole("button", { name: "All like these" }).click();
  await expect(page.getByText("4 shapes picked")).toBeVisible();
  await page.getByLabel("Search motifs").fill(name);
  await page.getByRole("button", { name: `Place ${name}` }).click();
  await settled(page);
  await expect(placed(page)).toHaveCount(1);
  for (const [x, y] of [
    [80, 80],
    [200, 80],
    [320, 80],
    [80, 220],
  ] as const) {
    await other.expectColour(x, y, NAVY);
    await other.expectColour(x, y - 24, [255, 255, 255]);
  }
  await page.getByRole("button", { name: "Undo" }).click();
  await settled(page);
  await other.expectColour(80, 80, RED);
  await expect(placed(page)).toHaveCount(0);
});

test("a motif is placed, moved by hand and numbers, set in a row, kept through a new trace, and in the films", async ({
  page,
}) => {
  const table = await openMotifs(page, "row of anchors.png");
  await page.getByLabel("Search motifs").fill("Anchor");
  await page.getByRole("button", { name: "Place Anchor" }).click();
  await settled(page);
  await setField(page, "Width", "30 mm");
  await setField(page, "Middle from the left", "40 mm");
  await setField(page, "Middle from the top", "100 mm");
  await page.getByText("In a line", { exact: true }).click();
  await setField(page, "Gap between them", "10 mm");
  const navyAnchor = [29, 42, 68] as const;
  const mm = 400 / (10.5 * 25.4);
  // The shank of each, 40 mm from one to the next.
  for (const k of [0, 1, 2]) await table.expectColour((40 + 40 * k) * mm, 105 * mm, navyAnchor);
  // Dragged as a whole; arrow keys nudge it; undo goes back.
  await table.drag([40 * mm, 100 * mm], [40 * mm, 130 * mm]);
  await settled(page);
  await expect(page.getByLabel("Middle from the top")).toHaveValue(/^1(29|30)(\.\d+)? mm$/);
  await page.getByRole("button", { name: "Undo" }).click();
  await settled(page);
  await expect(page.getByLabel("Middle from the top")).toHaveValue("100 mm");
  // A new trace leaves it where it is.
  await page.getByRole("tab", { name: "Trace" }).click();
  await setField(page, "Tolerance", "0.6 px");
  for (const k of [0, 1, 2]) await table.expectColour((40 + 40 * k) * mm, 105 * mm, navyAnchor);
  await page.reload();
  await settled(page);
  await goTo(page, "Output");
  await page.getByRole("button", { name: /^Make the/ }).click();
  await expect(page.getByText(/Done|Made/).first()).toBeVisible({ timeout: 60_000 });
  const link = page.getByRole("link", { name: /separations\.pdf/ }).first();
  const folder = mkdtempSync(join(tmpdir(), "plain-palette-motif-"));
  try {
    const [download] = await Promise.all([page.waitForEvent("download"), link.click()]);
    const file = join(folder, "separations.pdf");
    await download.saveAs(file);
    const { spots } = await readPlates(file, 100, folder);
    // On one of the plates is ink on every shank, and none between them.
    const inked = (mm: number) =>
      [...spots].some(([plate, { data, width, height }]) => {
        const at = (x: number, of: number, whole: number) => Math.round((x / whole) * of);
        const row = at(105, height, (10.5 * 25.4 * 3) / 4);
        return plate !== "Base" && (data[row * width + at(mm, width, 10.5 * 25.4)] ?? 255) < 60;
      });
    expect([40, 80, 120].map(inked)).toEqual([true, true, true]);
  } finally {
    rmSync(folder, { recursive: true });
  }
});

test("an empty sheet takes badges in a grid, and an SVG that is dropped becomes a motif", async ({ page }) => {
  await page.goto("/motifs");
  const star =
    '<svg xmlns="http://www.w3.org/2000/svg" width="20mm" height="20mm" viewBox="0 0 20 20"><path d="M10 0L13 7L20 10L13 13L10 20L7 13L0 10L7 7Z" fill="#b04a9a"/></svg>';
  await dropFiles(
    page,
    { name: "Violet star.svg", bytes: Buffer.from(star) },
    { name: "photo.png", bytes: await drawPng(star) },
  );
  await expect(page.getByText(/Violet star\.svg: (1 motif|0 motifs) taken over/)).toBeVisible();
  await page.goto("/");
  await page.getByRole("button", { name: "Empty sheet" }).click();
  await page.getByLabel("Width", { exact: true }).fill("200 mm");
  await page.getByLabel("Height", { exact: true }).fill("150 mm");
  await page.getByRole("button", { name: "Make the sheet" }).click();
  await page.waitForURL(/\/shapes$/);
  await settled(page);
  await page.getByRole("tab", { name: "Motifs" }).click();
  await page.getByLabel("Search motifs").fill("violet");
  await page.getByRole("button", { name: "Place Violet star" }).click();
  await settled(page);
  await setField(page, "Middle from the left", "30 mm");
  await setField(page, "Middle from the top", "30 mm");
  await page.getByText("In a grid", { exact: true }).click();
  await settled(page);
  const table = new Table(page, 2400, 1800);
  for (const [x, y] of [
    [30, 30],
    [55, 30],
    [80, 55],
  ] as const)
    await table.expectColour((x + 3) * 12, y * 12, [176, 74, 154]);
  await setField(page, "Middle from the left", "4 mm");
  await expect(page.getByText("reaches over the picture's edge")).toBeVisible();
});

test("names a line are set on every badge of a grid, and a newer version is taken over when one says so", async ({
  page,
}) => {
  await page.goto("/");
  await page.getByRole("button", { name: "Empty sheet" }).click();
  await page.getByLabel("Width", { exact: true }).fill("200 mm");
  await page.getByLabel("Height", { exact: true }).fill("100 mm");
  await page.getByRole("button", { name: "Make the sheet" }).click();
  await page.waitForURL(/\/shapes$/);
  await settled(page);
  await page.getByRole("tab", { name: "Motifs" }).click();
  await page.getByLabel("Search motifs").fill("badge");
  await page.getByRole("button", { name: "Place Name badge" }).click();
  await settled(page);
  await setField(page, "Middle from the left", "45 mm");
  await page.getByText("In a line", { exact: true }).click();
  await setField(page, "How many", "2");
  await page.getByPlaceholder("One a line").fill("Ada Wren\nTom Skerry\nToo Many");
  await page.getByRole("button", { name: "Set them" }).click();
  await expect(page.getByText("2 names set, 1 without a place")).toBeVisible();
  await settled(page);
  await page.getByRole("tab", { name: "Lettering" }).click();
  await expect(page.getByRole("list", { name: "Lettering" }).getByRole("listitem")).toHaveCount(2);

  // Another version of the badge is kept: this job is told, and follows when it is asked to.
  await page.goto("/motifs");
  await page.getByLabel("Search motifs").fill("badge");
  await page
    .getByRole("list", { name: "Motifs" })
    .getByRole("button", { name: /^Name badge/ })
    .click();
  const sheet = page.getByRole("region", { name: "Motif Name badge" });
  await expect(sheet.getByRole("list", { name: "Jobs that place it" })).toContainText("Sheet 200 x 100 mm");
  const round =
    '<svg xmlns="http://www.w3.org/2000/svg" width="70mm" height="30mm" viewBox="0 0 70 30"><rect width="70" height="30" rx="15" fill="#b04a9a"/></svg>';
  await sheet
    .getByLabel("New version from a file")
    .setInputFiles({ name: "round.svg", mimeType: "image/svg+xml", buffer: Buffer.from(round) });
  await expect(sheet).toContainText("2 of 2");
  await expect(sheet.getByRole("list", { name: "Jobs that place it" })).toContainText("still version 1");
  await sheet.getByRole("link", { name: /Sheet 200 x 100/ }).click();
  await settled(page);
  await page.getByRole("tab", { name: "Motifs" }).click();
  const table = new Table(page, 2400, 1200);
  await table.expectColour(45 * 12, 20 + 600 - 12 * 12, [244, 234, 210]);
  await page.getByRole("button", { name: "Take the newer version of Name badge over" }).click();
  await settled(page);
  await table.expectColour(45 * 12, 20 + 600 - 12 * 12, [176, 74, 154]);
});
