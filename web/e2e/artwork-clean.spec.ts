// Line art, background and touch-up, as a person does them.
import { expect, test } from "@playwright/test";
import { done, GARMENT, jobOf, NAVY, openSection, RED } from "./artwork-step.ts";
import { newJob, setField, settled } from "./shop.ts";
import { Table } from "./table.ts";

test("line art: the cut-off with its histogram, found by itself, moved, inverted; weight; uneven light", async ({
  page,
}) => {
  const drawing = `<svg xmlns="http://www.w3.org/2000/svg" width="400" height="300"><rect width="400" height="300" fill="#e8e6dd"/><rect x="100" y="100" width="200" height="20" fill="#222"/><rect x="100" y="200" width="200" height="20" fill="#b0aca0"/></svg>`;
  await newJob(page, "drawing.png", drawing);
  await page.getByLabel("Garment colour").fill("#1f7a8c");
  await openSection(page, "Line art");
  const table = new Table(page, 400, 300);
  await page.getByRole("button", { name: "Make it line art" }).click();
  await settled(page);
  // At half grey the faint line is lost.
  await table.expectColour(200, 110, [0, 0, 0]);
  await table.expectColour(200, 210, GARMENT);
  const chart = page.getByRole("img", { name: /Greys of the picture/ });
  await expect(chart.locator("svg")).toBeVisible();
  await setField(page, "Cut-off", "80");
  await table.expectColour(200, 210, [0, 0, 0]);
  await page.getByRole("button", { name: /^Find it/ }).click();
  await settled(page);
  await table.expectColour(200, 210, GARMENT);
  // The chart itself takes a cut-off, and the slide does with the arrow keys.
  const box = await chart.boundingBox();
  if (!box) throw new Error("no chart");
  await page.mouse.click(box.x + box.width * 0.8, box.y + box.height / 2);
  await expect(page.getByLabel("Cut-off", { exact: true }).first()).toHaveValue(/^(79|80|81) %/);
  await page.getByLabel("Cut-off, slide").press("ArrowLeft");
  await settled(page);
  await table.expectColour(200, 210, [0, 0, 0]);
  await table.expectColour(200, 96, GARMENT);
  // 10.5 in over 400 px: 10 px across are 6.67 mm.
  await setField(page, "Line weight", "8 mm");
  await table.expectColour(200, 96, [0, 0, 0]);
  await page.getByLabel("Light lines on dark").check();
  await settled(page);
  await table.expectColour(200, 110, GARMENT);
  await table.expectColour(30, 30, [0, 0, 0]);
  await page.getByLabel("Light lines on dark").uncheck();
  await page.getByText("Uneven light").click();
  await setField(page, "Surroundings", "81");
  await table.expectColour(200, 110, [0, 0, 0]);
  await table.expectColour(30, 30, GARMENT);
  await page.getByRole("button", { name: "No line art" }).click();
  await settled(page);
  await table.expectColour(30, 30, [232, 230, 221]);
});

test("background away: in one click, by hand with a tolerance that is followed, islands, each pick in a list", async ({
  page,
}) => {
  const ring = `<svg xmlns="http://www.w3.org/2000/svg" width="400" height="300"><defs><linearGradient id="g"><stop offset="0" stop-color="#fff"/><stop offset="1" stop-color="#dcdcdc"/></linearGradient></defs><rect width="400" height="300" fill="url(#g)"/><circle cx="200" cy="150" r="80" fill="none" stroke="#d8412f" stroke-width="40"/></svg>`;
  await newJob(page, "ring.png", ring);
  await page.getByLabel("Garment colour").fill("#1f7a8c");
  await settled(page);
  await openSection(page, "Background");
  const table = new Table(page, 400, 300);
  await expect(page.getByText(/lies all round the art/)).toBeVisible();
  await expect(page.getByText(/One patch of it inside the design/)).toBeVisible();
  await page.getByRole("button", { name: "Take the background away" }).click();
  await settled(page);
  const marked = page.getByText(/of the picture is marked/);
  await expect(marked).toBeVisible();
  const share = async () => Number.parseFloat((await marked.textContent()) ?? "");
  expect(await share()).toBeGreaterThan(60);
  // Put away, the mark goes, and the garment shows.
  await page.getByRole("button", { name: /^#\w+ away/ }).click();
  await settled(page);
  await table.expectColour(10, 10, GARMENT);
  await table.expectColour(390, 290, GARMENT);
  await table.expectColour(200, 150, [238, 238, 238]);
  await table.expectColour(120, 150, RED);
  await page.getByRole("button", { name: "Undo" }).click();
  await settled(page);

  await page.getByRole("button", { name: "Pick what is not the design" }).click();
  await setField(page, "Tolerance", "4");
  await table.click(40, 20);
  await settled(page);
  const low = await share();
  const slide = page.getByLabel("Tolerance, slide");
  for (let i = 0; i < 40; i++) await slide.press("ArrowRight");
  await settled(page);
  const high = await share();
  expect(low).toBeLessThan(30);
  expect(high).toBeGreaterThan(60);
  await expect(page.getByLabel("Tolerance", { exact: true })).toHaveValue("44");
  await page.getByText("Everywhere", { exact: true }).click();
  await settled(page);
  expect(await share()).toBeGreaterThan(high + 5);
  await page.getByText("What hangs together").click();
  await settled(page);
  // A second pick for the island; both stay in the list, each to be switched off.
  await table.click(200, 150);
  await settled(page);
  const picks = page.getByRole("list", { name: "Picks" }).getByRole("listitem");
  await expect(picks).toHaveCount(2);
  await page.getByRole("button", { name: "Stop picking" }).click();
  await table.expectColour(200, 150, GARMENT);
  await picks.last().getByLabel("on").uncheck();
  await settled(page);
  await table.expectColour(200, 150, [238, 238, 238]);
  await table.expectColour(10, 10, GARMENT);
});

test("touch up: strokes, a piece moved and put back, pinholes, specks, the silhouette", async ({ page }) => {
  const dirty = `<svg xmlns="http://www.w3.org/2000/svg" width="400" height="300"><path fill-rule="evenodd" fill="#14304f" d="M100 60h200v180h-200ZM150 100h4v4h-4ZM250 200h3v3h-3Z"/><circle cx="50" cy="50" r="2" fill="#14304f"/><circle cx="350" cy="250" r="2" fill="#14304f"/><circle cx="200" cy="150" r="2" fill="#f2b134"/></svg>`;
  await newJob(page, "dirty.png", dirty);
  await page.getByLabel("Garment colour").fill("#1f7a8c");
  await openSection(page, "Touch up");
  const table = new Table(page, 400, 300);

  await page.getByRole("button", { name: "Take the brush" }).click();
  await setField(page, "Width of the stroke", "13.335 mm");
  await table.drag([120, 220], [180, 220]);
  await settled(page);
  await table.expectColour(150, 220, GARMENT);
  await table.expectColour(150, 205, NAVY);
  await page.getByRole("radiogroup", { name: "What the brush does" }).getByText("Restore").click();
  await table.drag([110, 220], [190, 220]);
  await settled(page);
  await table.expectColour(150, 220, NAVY);
  await page.getByRole("radiogroup", { name: "What the brush does" }).getByText("Paint").click();
  await page.getByLabel("Colour", { exact: true }).fill("#d8412f");
  // With Shift a wandering hand still draws a straight line.
  await page.keyboard.down("Shift");
  await table.drag([320, 40], [390, 20], [380, 280]);
  await page.keyboard.up("Shift");
  await settled(page);
  await table.expectColour(350, 160, RED);
  await table.expectColour(385, 60, GARMENT);
  await page.getByRole("button", { name: "Put the brush down" }).click();
  await expect(done(page)).toHaveCount(3);
  for (let i = 0; i < 3; i++)
    await done(page)
      .first()
      .getByRole("button", { name: /^Take out/ })
      .click();
  await settled(page);

  await page.getByRole("button", { name: "Look for specks" }).click();
  await settled(page);
  await setField(page, "Up to", "20");
  await expect(page.getByTestId("speck-count")).toHaveText(/^3 specks/);
  await page.getByText("Light in dark").click();
  await expect(page.getByTestId("speck-count")).toHaveText(/^1 speck /);
  await page.getByText("All", { exact: true }).click();
  await expect(page.getByTestId("speck-count")).toHaveText(/^3 specks/);
  expect((await jobOf(page)).recipe.artwork.actions).toEqual([]);
  await page.getByRole("button", { name: "Take them away" }).click();
  await settled(page);
  await table.expectColour(200, 150, NAVY);
  await page.getByRole("button", { name: "Look for pinholes" }).click();
  await expect(page.getByTestId("speck-count")).toHaveText(/^2 pinholes/);
  await page.getByRole("button", { name: "Fill them" }).click();
  await settled(page);
  await table.expectColour(152, 102, NAVY);

  await page.getByRole("button", { name: "Cut a rectangle" }).click();
  await table.drag([90, 50], [310, 140]);
  await settled(page);
  await table.drag([200, 100], [200, 60]);
  await settled(page);
  await table.expectColour(200, 30, NAVY);
  await table.expectColour(200, 120, GARMENT);
  await page.getByRole("button", { name: "Put it back" }).click();
  await settled(page);
  await table.expectColour(200, 120, NAVY);
  await page.getByRole("button", { name: "Done" }).click();
  await page.getByRole("button", { name: "Cut round it freely" }).click();
  await table.drag([90, 160], [310, 160], [310, 250], [90, 250], [90, 162]);
  await settled(page);
  await setField(page, "Moved down", "30");
  await table.expectColour(200, 262, NAVY);
  await page.getByRole("button", { name: "Done" }).click();

  await page.getByRole("button", { name: "Whole design in one colour" }).click();
  await settled(page);
  await page.getByLabel("Whole design in").fill("#f2b134");
  await table.expectColour(200, 262, [242, 177, 52]);
});
