// The artwork step as a person works through it: each tool on the real interface, server and database.
import { execFileSync } from "node:child_process";
import { readFile } from "node:fs/promises";
import type { Job } from "@plain-palette/contract";
import { expect, type Page, test } from "@playwright/test";
import sharp from "sharp";
import { dropFiles, goTo, LOGO, newJob, setField, settled } from "./shop.ts";
import { Table } from "./table.ts";

/** Colours of the logo (shop.ts), and the garment it lies on in these tests. */
const RED = [216, 65, 47] as const;
const NAVY = [20, 48, 79] as const;
const WHITE = [255, 255, 255] as const;
const GARMENT = [31, 122, 140] as const;

async function openSection(page: Page, name: string): Promise<void> {
  await page.getByRole("tab", { name }).click();
}

/** A new job of the logo (400 x 300) on a teal garment, so that what is clear shows. */
async function logoOnTeal(page: Page): Promise<Table> {
  await newJob(page);
  await page.getByLabel("Garment colour").fill("#1f7a8c");
  await settled(page);
  return new Table(page, 400, 300);
}

const done = (page: Page) => page.getByRole("region", { name: "Done to the artwork" }).getByRole("listitem");

async function jobOf(page: Page): Promise<Job> {
  const id = /jobs\/([0-9a-f-]+)/.exec(page.url())?.[1];
  return (await page.request.get(`/api/jobs/${id}`)).json();
}

test.describe("in", () => {
  test("a file is what it is, whatever its name says", async ({ page }) => {
    const jpeg = await sharp(Buffer.from(LOGO)).jpeg().toBuffer();
    await page.goto("/");
    await dropFiles(page, { name: "logo.pdf", bytes: jpeg });
    await page.waitForURL(/artwork/);
    await settled(page);
    await expect(page.getByText("JPEG: pixels")).toBeVisible();
  });

  test("a PDF comes in as a picture; another page can be chosen, and its shapes drawn finer for a larger print", async ({
    page,
  }) => {
    const ps = `%!PS
<< /PageSize [144 72] >> setpagedevice 0.847 0.255 0.184 setrgbcolor 0 0 144 72 rectfill showpage
<< /PageSize [72 144] >> setpagedevice 0.078 0.188 0.310 setrgbcolor 0 0 72 144 rectfill showpage`;
    const pdf = execFileSync("gs", ["-q", "-dNOPAUSE", "-dBATCH", "-sDEVICE=pdfwrite", "-o", "-", "-"], { input: ps });
    await page.goto("/");
    await dropFiles(page, { name: "order form", bytes: pdf });
    await page.waitForURL(/artwork/);
    await settled(page);
    await expect(page.getByText("PDF: shapes, drawn here as pixels")).toBeVisible();
    await expect(page.getByText("3150 × 1575 px")).toBeVisible();
    await page.getByLabel("Page of 2").selectOption("2");
    await settled(page);
    await expect(page.getByText("3150 × 6300 px")).toBeVisible();
    await new Table(page, 3150, 6300).expectColour(1500, 3000, NAVY);
    await setField(page, "Print width", "12in");
    await page.getByRole("button", { name: "Draw its shapes at 300 dpi" }).click();
    await settled(page);
    await expect(page.getByText("300 dpi", { exact: true })).toBeVisible();
  });

  test("a better version takes the old one's place: the recipe is kept, and what does not fit is said", async ({
    page,
  }) => {
    const table = await logoOnTeal(page);
    await goTo(page, "Colours");
    await page.getByLabel("Name of Navy").fill("Harbour");
    await page.getByLabel("Name of Navy").press("Enter");
    await settled(page);
    await goTo(page, "Artwork");
    await openSection(page, "Background");
    await page.getByRole("button", { name: "Pick what is not the design" }).click();
    await table.click(8, 8);
    await settled(page);
    await page.getByRole("button", { name: "Stop picking" }).click();
    await page.getByRole("button", { name: "#ffffff, tolerance" }).click();
    await openSection(page, "Size");
    const larger = await sharp(Buffer.from(LOGO), { density: 216 }).png().toBuffer();
    await page
      .getByLabel("A better version of the file")
      .setInputFiles({ name: "big.png", mimeType: "", buffer: larger });
    await expect(page.getByText(/400 × 300 px before, 1200 × 900 px now/)).toBeVisible();
    await settled(page);
    await new Table(page, 1200, 900).expectColour(24, 24, GARMENT);
    // One in which there is no white at all: the pick finds nothing.
    const other = await sharp({ create: { width: 300, height: 300, channels: 3, background: "#f2b134" } })
      .png()
      .toBuffer();
    await page
      .getByLabel("A better version of the file")
      .setInputFiles({ name: "other.png", mimeType: "", buffer: other });
    await expect(page.getByText(/The proportions differ/)).toBeVisible();
    await settled(page);
    await expect(page.getByText("One of these does nothing here any more", { exact: false })).toBeVisible();
    await expect(page.getByText("finds nothing of its colour here")).toBeVisible();
    await goTo(page, "Colours");
    await expect(page.getByText(/What you decided on Harbour waits/)).toBeVisible();
    await goTo(page, "Artwork");
    await page.getByRole("button", { name: "Undo" }).click();
    await page.getByRole("button", { name: "Undo" }).click();
    await settled(page);
    await expect(page.getByText("tern logo.png")).toBeVisible();
    await new Table(page, 400, 300).expectColour(8, 8, GARMENT);
  });
});

test("size: by width or height, by placement, on the printable area; what is too big is said at once", async ({
  page,
}) => {
  await logoOnTeal(page);
  await page.getByLabel("Placement", { exact: true }).selectOption("Left chest");
  await settled(page);
  await expect(page.getByLabel("Print width")).toHaveValue("3.75 in");
  await expect(page.getByText("too big")).toHaveCount(0);
  await setField(page, "Print width", "12 cm");
  await expect(page.getByRole("alert")).toContainText("120 × 90 mm is too big for Left chest");
  await page.getByRole("radiogroup", { name: "Size by" }).getByText("Height").click();
  await setField(page, "Print height", "2in");
  await expect(page.getByText("2.667 in wide")).toBeVisible();
  await expect(page.getByText("150 dpi", { exact: true })).toBeVisible();
  await expect(page.getByRole("alert")).toHaveCount(0);
  const before = await page.getByLabel(/^Light table/).screenshot();
  await page.getByRole("radio", { name: "On the garment" }).click();
  expect((await page.getByLabel(/^Light table/).screenshot()).equals(before)).toBe(false);

  await page.getByRole("button", { name: "Change the shop's placements" }).click();
  const dialog = page.getByRole("dialog", { name: "The shop's placements" });
  await dialog.getByRole("button", { name: "Add a placement" }).click();
  await dialog.getByLabel("Name of New placement").fill("Apron bib");
  await dialog.getByLabel("Name of New placement").press("Enter");
  const row = dialog.getByRole("listitem", { name: "Apron bib" });
  await row.getByLabel("Starts at").fill("7in");
  await row.getByLabel("Starts at").press("Enter");
  await expect(row.getByLabel("Starts at")).toHaveValue("177.8 mm");
  await dialog.getByRole("button", { name: "Close" }).click();
  await page.getByLabel("Placement", { exact: true }).selectOption("Apron bib");
  await settled(page);
  await expect(page.getByLabel("Print width")).toHaveValue("17.78 cm");
  await page.getByRole("button", { name: "Change the shop's placements" }).click();
  await dialog.getByRole("button", { name: "Remove Apron bib" }).click();
  await expect(row).toHaveCount(0);
});

test("upright: turned, flipped, levelled by a line, cropped by hand and by number", async ({ page }) => {
  await logoOnTeal(page);
  await openSection(page, "Upright");
  await page.getByRole("button", { name: "Quarter right" }).click();
  await settled(page);
  // The yellow block of the top right is at the bottom right now.
  await new Table(page, 300, 400).expectColour(235, 300, [242, 177, 52]);
  await page.getByRole("button", { name: "Flip sideways" }).click();
  await settled(page);
  await new Table(page, 300, 400).expectColour(65, 300, [242, 177, 52]);
  await page.getByRole("button", { name: 'Take out "Flipped left to right"' }).click();
  await page.getByRole("button", { name: 'Take out "Turned a quarter right"' }).click();
  await settled(page);

  const table = new Table(page, 400, 300);
  await page.getByRole("button", { name: "Draw a level line" }).click();
  // Ten pixels down over a hundred: 5.71 degrees.
  await table.drag([100, 100], [200, 110]);
  await settled(page);
  const angle = Number((await page.getByLabel("Straighten by").inputValue()).replace("°", ""));
  expect(Math.abs(angle + 5.71)).toBeLessThan(0.4);
  await setField(page, "Straighten by", "0");

  await page.getByRole("button", { name: "Crop by hand" }).click();
  await settled(page);
  await table.drag([0, 0], [60, 30]);
  await settled(page);
  await expect(page.getByLabel("From the left")).toHaveValue("60 px");
  await expect(page.getByLabel("Crop height")).toHaveValue("270 px");
  await setField(page, "Crop width", "300");
  await page.getByRole("button", { name: "Done" }).click();
  await settled(page);
  await expect(done(page).last()).toContainText("Cropped to 300 × 270 px");
  await new Table(page, 300, 270).expectColour(250, 20, [242, 177, 52]);
  // Taken up again, it is there to be changed, over the whole picture.
  await done(page)
    .last()
    .getByRole("button", { name: /^Cropped/ })
    .click();
  await settled(page);
  await table.frame.focus();
  // By keyboard: to the frame's middle grip and 40 px to the left.
  await page.keyboard.press("Enter");
  for (let i = 0; i < 4; i++) await page.keyboard.press("Shift+ArrowLeft");
  await page.keyboard.press("Enter");
  await settled(page);
  expect(Number.parseInt(await page.getByLabel("From the left").inputValue(), 10)).toBeLessThan(60);
  await page.getByRole("button", { name: "No crop" }).click();
  await settled(page);
  await table.expectColour(305, 65, [242, 177, 52]);
});

test("a scan is trimmed: the sheet is found, its angle and crop proposed, and taken over when the person says so", async ({
  page,
}) => {
  await page.goto("/");
  await page.getByRole("link", { name: /Festival shirts/ }).click();
  await goTo(page, "Artwork");
  await openSection(page, "Upright");
  await page.getByRole("button", { name: "Look for the sheet" }).click();
  await expect(page.getByText(/The sheet lies 3\.\d+° crooked/)).toBeVisible();
  expect((await jobOf(page)).recipe.artwork.actions).toEqual([]);
  await page.getByRole("button", { name: "Straighten and crop" }).click();
  await settled(page);
  await expect(done(page)).toHaveCount(2);
  const size = /(\d+) × (\d+)/.exec((await done(page).last().textContent()) ?? "");
  const table = new Table(page, Number(size?.[1]), Number(size?.[2]));
  // Paper in every corner, where the lid was.
  for (const [x, y] of [
    [0.02, 0.02],
    [0.98, 0.02],
    [0.98, 0.98],
    [0.02, 0.98],
  ])
    expect(Math.min(...(await table.colourAt(table.width * x, table.height * y)))).toBeGreaterThan(200);
  await page.getByRole("button", { name: "Undo" }).click();
  await settled(page);
  await expect(done(page)).toHaveCount(0);
});

test("a photographed sheet is laid flat by its four corners", async ({ page }) => {
  const photo = `<svg xmlns="http://www.w3.org/2000/svg" width="400" height="300"><rect width="400" height="300" fill="#1f7a8c"/><path d="M80 40L330 60L370 270L40 250Z" fill="#ffffff"/><circle cx="205" cy="150" r="30" fill="#d8412f"/></svg>`;
  await newJob(page, "photo.png", photo);
  await openSection(page, "Upright");
  await page.getByRole("button", { name: "Lay flat by four corners" }).click();
  await settled(page);
  // The sheet was found; one corner is pulled elsewhere and put right by its number.
  await expect(page.getByLabel("Top left x")).toHaveValue(/^(79|80|81)/);
  await new Table(page, 400, 300).drag([80, 40], [120, 90]);
  await expect(page.getByLabel("Top left x")).toHaveValue(/^1(19|20|21)/);
  await setField(page, "Top left x", "80");
  await setField(page, "Top left y", "40");
  await page.getByText("A4 wide").click();
  await page.getByRole("button", { name: "Done" }).click();
  await settled(page);
  const { recipe } = await jobOf(page);
  expect(recipe.artwork.actions[0]).toMatchObject({ kind: "keystone", ratio: Math.SQRT2 });
  const across = 292;
  const table = new Table(page, across * 1.02, (across * 1.02) / Math.SQRT2);
  for (const [x, y] of [
    [0.03, 0.05],
    [0.97, 0.05],
    [0.97, 0.95],
    [0.03, 0.95],
  ])
    await table.expectColour(table.width * x, table.height * y, WHITE);
});

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

test("comparing: the source faded behind, held, split, and the map of differences", async ({ page }) => {
  const table = await logoOnTeal(page);
  await openSection(page, "Background");
  await page.getByRole("button", { name: "Take the background away" }).click();
  await settled(page);
  await page.getByRole("button", { name: /^#ffffff away/ }).click();
  await table.expectColour(390, 290, GARMENT);
  const fade = page.getByLabel("Source behind, slide");
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
    return times.sort((a, b) => a - b)[times.length >> 1];
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
