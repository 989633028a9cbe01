// The shapes step as a person works through it: tuned live, measured, nodes taken out, shapes saved.
import { readFileSync } from "node:fs";
import { expect, type Page, test } from "@playwright/test";
import { unzipSync } from "fflate";
import { openSection } from "./artwork-step.ts";
import { goTo, newJob, setField, settled } from "./shop.ts";
import { Table } from "./table.ts";

/** A wavy blot with a circle, and a box beside it. */
const ART = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 400 300" width="400" height="300"><rect width="400" height="300" fill="#ffffff"/><path fill="#14304f" d="M40 60q15 -14 30 0t30 0t30 0t30 0q16 18 0 36t4 34t-4 34t0 36q-16 14 -30 0t-30 2t-30 -2t-30 0q-15 -18 0 -36t-3 -34t3 -34t0 -36z"/><circle cx="100" cy="130" r="24" fill="#f2b134"/><rect x="240" y="80" width="110" height="120" fill="#d8412f"/></svg>`;

/** Enough of them that tracing takes longer than a hand rests between two moves. */
const MANY = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 2000 1500" width="2000" height="1500">${Array.from(
  { length: 25 },
  (_, i) => `<svg x="${(i % 5) * 400}" y="${Math.floor(i / 5) * 300}" width="400" height="300">${ART}</svg>`,
).join("")}</svg>`;

const nodes = async (page: Page) => Number(await page.getByTestId("node-count").textContent());

test("curves are tuned live, in pixels or on the garment, and say how far they are from the source", async ({
  page,
}) => {
  await newJob(page, "blot.png", ART);
  await goTo(page, "Shapes");
  const fine = await nodes(page);
  await expect(page.getByTestId("mean-distance")).toHaveText(/^0\.\d{3} mm, 0\.\d{2} px$/);
  await setField(page, "Tolerance", "2");
  expect(await nodes(page)).toBeLessThan(fine);
  // 400 px are 266.7 mm wide: 0.2 px are 0.133 mm.
  await setField(page, "The same on the garment", "0.1333 mm");
  await expect(page.getByLabel("Tolerance", { exact: true })).toHaveValue(/^0\.2 px$/);
  expect(await nodes(page)).toBe(fine);
  await page.getByRole("radio", { name: "Distance" }).click();
  await expect(page.getByText("Curves from the source's boundaries")).toBeVisible();
  // A circle this small, and everything thinner, goes to what surrounds it.
  await setField(page, "Thinnest line kept", "25");
  await expect(page.getByTestId("shape-count")).not.toHaveText("4");
});

test("shapes follow a slide while the hand is still moving", async ({ page }) => {
  await newJob(page, "blots.png", MANY);
  await goTo(page, "Shapes");
  const slide = page.getByRole("slider", { name: "Tolerance" });
  const thumb = await slide.boundingBox();
  if (!thumb) throw new Error("the slide is not to be seen");
  const y = thumb.y + thumb.height / 2;
  const seen = new Set<number>();
  await page.mouse.move(thumb.x + thumb.width / 2, y);
  await page.mouse.down();
  // Back and forth without a rest.
  for (let step = 0; step < 400 && seen.size < 4; step++) {
    await page.mouse.move(thumb.x + Math.abs((step % 60) - 30) * 5, y);
    if (step % 10 === 9) seen.add(await nodes(page));
  }
  await page.mouse.up();
  expect(seen.size).toBeGreaterThanOrEqual(4);
});

test("nodes are taken out of all, one colour or a picked shape, seen before they are taken", async ({ page }) => {
  await newJob(page, "blot.png", ART);
  await goTo(page, "Shapes");
  const before = await nodes(page);
  await openSection(page, "Fewer nodes");
  await page.getByRole("radio", { name: "A shape" }).click();
  await expect(page.getByText("Click on the shape on the table.")).toBeVisible();
  await new Table(page, 400, 300).click(60, 160);
  await settled(page);
  await setField(page, "May move by", "5");
  const tried = page.getByTestId("tried-nodes");
  await expect(tried).toHaveText(new RegExp(`^${before} → \\d+$`));
  const after = Number((await tried.textContent())?.split("→")[1]);
  expect(after).toBeLessThan(before);
  await page.getByRole("button", { name: "Take it" }).click();
  await settled(page);
  await expect(page.getByRole("list", { name: "Taken" }).getByRole("listitem")).toHaveText([/One shape, 5 px/]);
  await openSection(page, "Trace");
  expect(await nodes(page)).toBe(after);
  // What was taken can be put back, and the box has none to spare.
  await openSection(page, "Fewer nodes");
  await page.getByRole("checkbox", { name: /in force$/ }).uncheck();
  await settled(page);
  await page.getByRole("radio", { name: "One colour" }).click();
  await page.getByLabel("Colour", { exact: true }).selectOption({ label: "Red" });
  await settled(page);
  await expect(page.getByText("No boundary has a node to spare within that.")).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(page.getByRole("button", { name: "Take it" })).toHaveCount(0);
});

test("shapes are saved in the format, stacking and split that is asked for", async ({ page }) => {
  await newJob(page, "blot.png", ART);
  await goTo(page, "Shapes");
  await openSection(page, "Files");
  await settled(page);
  const save = async () => {
    const download = page.waitForEvent("download");
    await page.getByRole("button", { name: "Save the file" }).click();
    const file = await download;
    return { name: file.suggestedFilename(), bytes: readFileSync(await file.path()) };
  };
  await page.getByRole("radio", { name: "DXF" }).click();
  const dxf = await save();
  expect(dxf.name).toBe("shapes.dxf");
  expect(dxf.bytes.toString()).toContain("AC1009");
  await page.getByRole("radio", { name: "EPS" }).click();
  await page.getByRole("checkbox", { name: /^One file for each colour/ }).check();
  const zip = await save();
  expect(zip.name).toBe("shapes-eps.zip");
  const names = Object.keys(unzipSync(zip.bytes));
  expect(names).toHaveLength(4);
  for (const name of names) expect(name).toMatch(/^shapes-\d-[a-z-]+\.eps$/);
});
