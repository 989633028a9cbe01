// The client's file and its size, as a person works with them on the real interface, server and database.
import { execFileSync } from "node:child_process";
import { expect, test } from "@playwright/test";
import sharp from "sharp";
import { GARMENT, logoOnTeal, NAVY, openSection } from "./artwork-step.ts";
import { dropFiles, goTo, LOGO, setField, settled } from "./shop.ts";
import { Table } from "./table.ts";

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
