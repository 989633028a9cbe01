import { readFile } from "node:fs/promises";
import { expect, type Page, test } from "@playwright/test";
import DxfParser, { type ICircleEntity } from "dxf-parser";
import { goTo, newJob, setField, settled } from "./shop.ts";
import { Table } from "./table.ts";

const RED = [216, 65, 47] as const;
const WHITE = [255, 255, 255] as const;

const picture = (content: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 400 300" width="800" height="600"><rect width="400" height="300" fill="#ffffff"/>${content}</svg>`;

/** A job with this art, 200 mm wide: half a millimetre to a unit of the drawing; its shapes by hand. */
async function openByHand(page: Page, name: string, content: string): Promise<Table> {
  await newJob(page, name, picture(content));
  await setField(page, "Print width", "200 mm");
  await goTo(page, "Shapes");
  await page.getByRole("tab", { name: "By hand" }).click();
  await settled(page);
  return new Table(page, 400, 300);
}

const workOn = (page: Page, name: string) => page.getByRole("radiogroup", { name: "Work on" }).getByText(name).click();
const done = (page: Page) => page.getByRole("list", { name: "Done by hand" });
const shapes = async (page: Page) => Number(await page.getByTestId("hand-shapes").textContent());

test("the string is broken off its balloon and taken away", async ({ page }) => {
  const table = await openByHand(
    page,
    "balloon.png",
    '<circle cx="200" cy="100" r="70" fill="#d8412f"/><path d="M196 160V270H204V160Z" fill="#d8412f"/>',
  );
  const before = await shapes(page);
  // The two nodes where the string leaves the balloon, and a break between them.
  await table.click(196, 170);
  await page.keyboard.down("Shift");
  await table.click(204, 170);
  await page.keyboard.up("Shift");
  await expect(page.getByTestId("picked-nodes")).toHaveText("2 nodes");
  await page.getByRole("button", { name: "Break here" }).click();
  await settled(page);
  expect(await shapes(page)).toBe(before + 1);
  await workOn(page, "Pieces");
  await table.click(200, 230);
  await page.getByRole("button", { name: "Take away" }).click();
  await settled(page);
  expect(await shapes(page)).toBe(before);
  await table.expectColour(200, 230, WHITE);
  await table.expectColour(200, 100, RED);
  await expect(done(page).getByRole("listitem")).toHaveCount(2);
  // Everything can be had back.
  await page.getByRole("button", { name: "Undo" }).click();
  await settled(page);
  await table.expectColour(200, 230, RED);
});

test("an open ring is closed between its two ends", async ({ page }) => {
  const table = await openByHand(
    page,
    "ring.png",
    '<path d="M200 50A100 100 0 1 1 140 70" fill="none" stroke="#d8412f" stroke-width="24"/>',
  );
  await table.expectColour(170, 54, WHITE);
  // A loop round each end picks its two nodes.
  await page.keyboard.down("Shift");
  await table.drag([192, 30], [208, 68]);
  await table.drag([120, 56], [152, 86]);
  await page.keyboard.up("Shift");
  await expect(page.getByTestId("picked-nodes")).toHaveText("4 nodes");
  await page.getByRole("button", { name: "Close the ring" }).click();
  await settled(page);
  await table.expectColour(170, 54, RED);
  await expect(done(page)).toContainText("joined");
});

test("a damaged letter is replaced by a good one", async ({ page }) => {
  const letter = (x: number) => `M${x} 60h80v180h-80zM${x + 25} 90v40h30v-40zM${x + 25} 160v50h30v-50z`;
  const table = await openByHand(
    page,
    "letters.png",
    `<path fill-rule="evenodd" d="${letter(60)}" fill="#d8412f"/><path fill-rule="evenodd" d="${letter(240)}" fill="#d8412f"/><path d="M300 130l40 -14v30z" fill="#ffffff"/>`,
  );
  await table.expectColour(315, 132, WHITE);
  await workOn(page, "Pieces");
  await table.click(70, 150);
  await page.getByRole("button", { name: "Put in place of ..." }).click();
  await table.click(250, 150);
  await settled(page);
  await table.expectColour(312, 132, RED);
  // Its counters are those of the good one, and it can be moved from there.
  await table.expectColour(280, 110, WHITE);
  await table.expectColour(280, 185, WHITE);
  await setField(page, "Down", "5 mm");
  await table.expectColour(280, 66, WHITE);
  await expect(done(page)).toContainText("put in place of another");
});

test("a drill hole is a circle of 3.175 mm in the file, whatever is simplified", async ({ page }) => {
  const table = await openByHand(
    page,
    "plate.png",
    '<rect x="60" y="40" width="280" height="220" fill="#d8412f"/><circle cx="200" cy="150" r="6.1" fill="#ffffff"/>',
  );
  await workOn(page, "Pieces");
  await table.click(200, 150);
  await setField(page, "Diameter", "3.175 mm");
  await page.getByRole("button", { name: "Make it a true circle" }).click();
  await settled(page);
  await page.getByRole("tab", { name: "Fewer nodes" }).click();
  await page.getByRole("radio", { name: "All" }).click();
  await setField(page, "May move by", "1.5");
  await settled(page);
  const take = page.getByRole("button", { name: "Take it" });
  if (await take.isEnabled()) await take.click();
  await settled(page);
  await page.getByRole("tab", { name: "Files" }).click();
  await page.getByRole("radio", { name: "DXF" }).click();
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Save the file" }).click(),
  ]);
  // Read by a general reader (npm dxf-parser, MIT): the hole's edge, once for the plate and once for what lies in it.
  const dxf = new DxfParser().parseSync((await readFile(await download.path())).toString());
  const circles = (dxf?.entities ?? []).flatMap((entity) =>
    entity.type === "CIRCLE" ? [entity as ICircleEntity] : [],
  );
  expect(circles.length).toBeGreaterThan(0);
  for (const { radius, center } of circles) {
    expect(Math.abs(2 * radius - 3.175)).toBeLessThan(0.002);
    expect(Math.hypot(center.x - 100, center.y - 75)).toBeLessThan(0.05);
  }
});

test("a hole that is there already is picked, and made a true circle", async ({ page }) => {
  const table = await openByHand(
    page,
    "plate.png",
    '<rect x="60" y="40" width="280" height="220" fill="#d8412f"/><path d="M190 140h20v20h-20z" fill="#ffffff"/>',
  );
  await workOn(page, "Pieces");
  await table.click(200, 150);
  await page.getByLabel("Colour", { exact: true }).selectOption({ label: "The garment (a hole)" });
  await settled(page);
  await table.click(200, 150);
  await expect(page.getByText("Picked: a hole, 10.00 × 10.00 mm")).toBeVisible();
  await setField(page, "Diameter", "20 mm");
  await page.getByRole("button", { name: "Make it a true circle" }).click();
  await settled(page);
  await expect(page.getByText("Picked: a hole, 20.00 × 20.00 mm")).toBeVisible();
  await expect(done(page)).toContainText("A true circle of 20 mm, held");
});

test("a figure that was drawn is moved as itself: what was under it is back", async ({ page }) => {
  const table = await openByHand(
    page,
    "seam.png",
    '<rect x="60" y="40" width="140" height="220" fill="#d8412f"/><rect x="200" y="40" width="140" height="220" fill="#14304f"/><rect x="20" y="100" width="20" height="20" fill="#f2b134"/>',
  );
  await workOn(page, "Draw");
  await setField(page, "Diameter", "20 mm");
  await page.getByLabel("In", { exact: true }).selectOption({ label: "Gold" });
  await table.click(200, 120);
  await settled(page);
  await table.expectColour(190, 120, GOLD);
  await workOn(page, "Pieces");
  await table.drag([205, 125], [205, 190], [205, 205]);
  await settled(page);
  // The circle lies 80 units lower; the seam runs where it ran.
  await table.expectColour(200, 200, GOLD);
  await table.expectColour(193, 120, RED);
  await table.expectColour(207, 120, NAVY);
  await table.frame.focus();
  for (let i = 0; i < 5; i++) await page.keyboard.press("Shift+ArrowDown");
  await settled(page);
  await table.expectColour(200, 226, GOLD);
  await expect(done(page).getByRole("listitem")).toHaveCount(1);
});

const GOLD = [242, 177, 52] as const;
const TWO_HALVES =
  '<rect x="60" y="40" width="140" height="220" fill="#d8412f"/><rect x="200" y="40" width="140" height="220" fill="#14304f"/>';
const NAVY = [20, 48, 79] as const;

test("a seam is picked and nudged with the keyboard alone, as one entry", async ({ page }) => {
  const table = await openByHand(page, "halves.png", TWO_HALVES);
  await table.frame.focus();
  // The crosshair begins in the middle of the table, which is on the seam; Enter down and up is a click.
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("ArrowLeft");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("picked-nodes")).toHaveText("2 nodes");
  await table.expectColour(210, 150, NAVY);
  for (let i = 0; i < 9; i++) await page.keyboard.press("Shift+ArrowRight");
  await settled(page);
  // Nine millimetres are eighteen units: the red half has grown, as one entry.
  await table.expectColour(214, 150, RED);
  await expect(done(page).getByRole("listitem")).toHaveCount(1);
  await page.keyboard.press("Escape");
  await expect(page.getByText("Nothing is picked")).toBeVisible();
  await page.keyboard.press("Control+z");
  await settled(page);
  await table.expectColour(216.6, 150, NAVY);
  await expect(table.frame).toBeFocused();
});

test("a table that was painted where it changed is what a fresh page paints, to the last pixel", async ({ page }) => {
  const blobs = Array.from({ length: 12 }, (_, k) => {
    const [x, y] = [60 + (k % 4) * 90, 60 + Math.floor(k / 4) * 90];
    return `<ellipse cx="${x}" cy="${y}" rx="${30 + k}" ry="${38 - k}" fill="${k % 2 ? "#d8412f" : "#14304f"}"/>`;
  });
  const table = await openByHand(page, "blobs.png", blobs.join(""));
  await table.drag([6, 6], [210, 150]);
  await expect(page.getByTestId("picked-nodes")).toHaveText(/^\d+ nodes$/);
  for (const key of ["ArrowRight", "Shift+ArrowDown", "ArrowRight", "Shift+ArrowRight"]) {
    await page.keyboard.press(key);
    await settled(page);
  }
  // Nothing in hand, and nothing of what the edit has replaced.
  const looks = [];
  for (const look of ["Result", "Outlines"]) {
    await page.getByRole("tab", { name: "Trace" }).click();
    await page.getByRole("radio", { name: look }).click();
    await settled(page);
    looks.push({ look, shown: await table.frame.locator("canvas").first().screenshot() });
  }
  await page.reload();
  for (const { look, shown } of looks) {
    await page.getByRole("radio", { name: look }).click();
    await settled(page);
    await expect.poll(async () => shown.equals(await table.frame.locator("canvas").first().screenshot())).toBe(true);
  }
});

test("two neighbours become one with one click", async ({ page }) => {
  const table = await openByHand(page, "halves.png", TWO_HALVES);
  const before = await shapes(page);
  await table.click(200, 180);
  await page.getByRole("button", { name: "Neighbours one" }).click();
  await settled(page);
  expect(await shapes(page)).toBe(before - 1);
});

test("an edit whose shape is gone says so, changes nothing else, and is back with its shape", async ({ page }) => {
  const table = await openByHand(
    page,
    "spot.png",
    `${TWO_HALVES}<rect x="366" y="146" width="8" height="8" fill="#d8412f"/>`,
  );
  await workOn(page, "Pieces");
  await table.drag([370, 150], [370, 180], [370, 200]);
  await settled(page);
  await table.expectColour(370, 200, RED);
  await page.getByRole("tab", { name: "Trace" }).click();
  await setField(page, "Specks", "20 px");
  await page.getByRole("tab", { name: "By hand" }).click();
  await expect(done(page)).toContainText("does not find its place any more");
  await table.expectColour(370, 200, WHITE);
  await table.expectColour(300, 150, NAVY);
  await page.getByRole("tab", { name: "Trace" }).click();
  await setField(page, "Specks", "2 px");
  await page.getByRole("tab", { name: "By hand" }).click();
  await expect(done(page)).not.toContainText("does not find its place any more");
  await table.expectColour(370, 200, RED);
});
