import { execFile } from "node:child_process";
import { readFile } from "node:fs/promises";
import { promisify } from "node:util";
import { expect, type Page, test } from "@playwright/test";
import sharp from "sharp";
import { goTo, newJob, setField, settled } from "./shop.ts";
import { Table } from "./table.ts";

const run = promisify(execFile);

/** A club's crest: a red shield with a navy border, and its name, TILT, in gold strokes of 4 mm at 200 mm across. */
const CREST = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 400 300" width="800" height="600"><rect width="400" height="300" fill="#ffffff"/><path d="M40 20H360V180Q360 270 200 290Q40 270 40 180Z" fill="#d8412f" stroke="#14304f" stroke-width="14"/><circle cx="200" cy="210" r="36" fill="#14304f"/><path d="M80 70H130M105 70V130M160 70V130M190 70V130H230M255 70H305M280 70V130" fill="none" stroke="#f2b134" stroke-width="8"/></svg>`;
/** Millimetres to a unit of the drawing. */
const MM = 0.5;

const inAll = (page: Page) => page.getByTestId("stones-in-all").textContent();

test("a club crest with its name in stones on a printed shirt: both processes' files register", async ({ page }) => {
  await newJob(page, "tilt crest.png", CREST);
  await setField(page, "Print width", "200 mm");
  await goTo(page, "Colours");
  await page.getByRole("button", { name: "How Gold is made" }).click();
  await page.getByRole("menuitem", { name: "With stones" }).click();
  await settled(page);
  await goTo(page, "Stones");

  // The name alone is set, one row to each stroke, nothing of what is printed.
  const rows = page.getByTestId("stone-counts").locator("tbody tr");
  await expect(rows).toHaveCount(1);
  const proposed = await inAll(page);
  expect(Number(proposed)).toBeGreaterThan(30);
  await page.getByLabel("Stone size", { exact: true }).selectOption("SS6");
  await settled(page);
  expect(Number(await inAll(page))).toBeGreaterThan(Number(proposed));
  await page.getByRole("button", { name: "Undo" }).click();
  await settled(page);
  expect(await inAll(page)).toBe(proposed);

  // By hand: the end of the first stroke taken up, dragged, listed, switched off; one more set beside it.
  const table = new Table(page, 400, 300);
  const size = Number(
    /[\d.]+(?= mm$)/.exec(
      (await page.getByLabel("Stone size", { exact: true }).locator("option:checked").textContent()) ?? "",
    ),
  );
  const end = 80 + size / 2 / MM;
  await table.drag([end, 70], [end, 62], [end, 60]);
  await settled(page);
  const deeds = page.getByRole("list", { name: "Done by hand" });
  await expect(deeds).toContainText("Stone moved");
  await expect(page.getByTestId("stone-in-hand")).toContainText(`at ${(end * MM).toFixed(1)}, 30.0 mm`);
  await page.getByRole("button", { name: "Add stones" }).click();
  await table.click(200, 40);
  await settled(page);
  await expect(deeds).toContainText("Stone added");
  expect(Number(await inAll(page))).toBe(Number(proposed) + 1);
  await page.getByRole("button", { name: "Done adding" }).click();
  // Taken away from the keyboard, and back: focus stays where it is.
  const takeAway = page.getByRole("button", { name: "Take away" });
  await takeAway.focus();
  await page.keyboard.press("Enter");
  await settled(page);
  await expect(deeds).toContainText("Stone taken away");
  await expect(takeAway).toBeFocused();
  await page.getByRole("button", { name: 'Take out "Stone taken away"' }).focus();
  await page.keyboard.press("Enter");
  await settled(page);
  await expect(page.getByRole("button", { name: 'Take out "Stone added, ' })).toBeFocused();
  await deeds.getByLabel("Stone moved: in force").uncheck();
  await settled(page);

  await goTo(page, "Output");
  await page.getByRole("button", { name: "Make the files" }).click();
  await expect(page.getByText("Made from the recipe as it is now.")).toBeVisible();
  const fetchFile = async (name: string) => {
    const download = page.waitForEvent("download");
    await page.getByRole("link", { name, exact: true }).click();
    return (await download).path();
  };
  const list = await readFile(await fetchFile("stones.csv"), "utf8");
  const stones = list
    .split("\n")
    .filter((line) => /^\d/.test(line))
    .map((line) => line.split(",").slice(0, 2).map(Number) as [number, number]);
  expect(stones).toHaveLength(Number(proposed) + 1);
  expect(list).toContain("# size: 200.00 x 150.00 mm");

  // Every stone but the one that was added lies on a stroke of the name; what is printed lies where it is in the drawing.
  const strokes = [
    [80, 70, 130, 70],
    [105, 70, 105, 130],
    [160, 70, 160, 130],
    [190, 70, 190, 130],
    [190, 130, 230, 130],
    [255, 70, 305, 70],
    [280, 70, 280, 130],
  ] as const;
  const away = ([x, y]: [number, number]) =>
    Math.min(
      ...strokes.map(([ax, ay, bx, by]) => {
        const t = Math.min(
          1,
          Math.max(0, ((x / MM - ax) * (bx - ax) + (y / MM - ay) * (by - ay)) / ((bx - ax) ** 2 + (by - ay) ** 2)),
        );
        return Math.hypot(x / MM - ax - t * (bx - ax), y / MM - ay - t * (by - ay)) * MM;
      }),
    );
  const off = stones.filter((stone) => away(stone) > 0.6);
  expect(off).toHaveLength(1);
  expect(Math.hypot((off[0]?.[0] ?? 0) - 100, (off[0]?.[1] ?? 0) - 20)).toBeLessThan(0.3);
  const { stdout } = await run("pdftoppm", ["-r", "127", "-png", await fetchFile("separations.pdf")], {
    encoding: "buffer",
    maxBuffer: 1e8,
  });
  const { data, info } = await sharp(stdout).greyscale().raw().toBuffer({ resolveWithObject: true });
  // Five pixels to the millimetre; the page is the design, as the list's origin is its corner: the shield's border begins and ends
  // where it does in the drawing, at half a millimetre to its unit.
  expect(Math.abs(info.width - 1000) + Math.abs(info.height - 750)).toBeLessThanOrEqual(2);
  const row = Array.from(data.subarray(250 * info.width, 251 * info.width));
  const [left, right] = [row.findIndex((v) => v < 200), row.findLastIndex((v) => v < 200)];
  expect(Math.abs(left / 5 - 33 * MM)).toBeLessThan(0.3);
  expect(Math.abs((right + 1) / 5 - 367 * MM)).toBeLessThan(0.3);
  // The templates' holes lie 14 mm inside their sheet: the same corner.
  const template = await readFile(await fetchFile("template-all.svg"), "utf8");
  expect(template).toContain('viewBox="0 0 228 178"');
  const [x = 0, y = 0] = stones[0] ?? [];
  const starts = [...template.matchAll(/M([\d.]+) ([\d.]+)/g)].map(([, sx, sy]) => [Number(sx), Number(sy)] as const);
  expect(starts.some(([sx, sy]) => Math.abs(sy - y - 14) < 0.01 && Math.abs(sx - x - 14) < 4)).toBe(true);

  // The stone setter gets the files alone.
  await page.goto(`/practice?job=${/jobs\/([0-9a-f-]+)/.exec(page.url())?.[1]}`);
  await expect(page.getByText(`Every stone has its hole: ${stones.length} counted`)).toBeVisible();
});
