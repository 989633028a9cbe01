import { execFile } from "node:child_process";
import { readFile } from "node:fs/promises";
import { promisify } from "node:util";
import { expect, type Page, test } from "@playwright/test";
import sharp from "sharp";
import { drawKites } from "../../tools/demo/kites.ts";
import { dropFiles, goTo, setField, settled } from "./shop.ts";
import { Table } from "./table.ts";

const run = promisify(execFile);

const sewnStitches = (page: Page) =>
  page
    .getByTestId("stitch-counts")
    .getByText(/^[\d,]+$/)
    .first()
    .textContent();

test("the kite drawing is sewn on a cap's cloth: rows turned, a start moved, the order changed, played, made, undone", async ({
  page,
}) => {
  const drawing = await drawKites();
  await page.goto("/");
  await dropFiles(page, { name: "scan0007.jpg", bytes: drawing });
  await page.waitForURL(/artwork/);
  await settled(page);
  await setField(page, "Print width", "100 mm");
  await page.getByRole("complementary", { name: "Ticket" }).getByLabel("Made with").selectOption("stitches");
  await settled(page);
  await goTo(page, "Stitches");
  const cloth = await sewnStitches(page);
  await page.getByLabel("Cloth", { exact: true }).selectOption("cap");
  await settled(page);
  expect(await sewnStitches(page)).not.toBe(cloth);

  // The widest area is a fill: chosen from the list, turned by the field and by the handle.
  const areas = page.getByRole("list", { name: "Areas in the order of sewing" });
  await areas
    .getByRole("button", { name: /^Fill at/ })
    .first()
    .click();
  await setField(page, "Angle of rows", "30");
  await expect(areas.getByRole("button", { name: /^Fill at 30°/ })).toHaveCount(1);
  await page.getByRole("button", { name: "Undo" }).click();
  await settled(page);
  await expect(areas.getByRole("button", { name: /^Fill at 30°/ })).toHaveCount(0);
  await page.getByRole("button", { name: "Redo" }).click();
  await settled(page);
  await expect(areas.getByRole("button", { name: /^Fill at 30°/ })).toHaveCount(1);

  // The handle on the table stands along the rows, longer on a large area: it is drawn round to the other side.
  const { width, height } = await sharp(drawing).metadata();
  const table = new Table(page, 100, (100 * height) / width);
  const ways = page.getByTestId("area-ways");
  const [x = 0, y = 0] = (await ways.textContent())?.match(/[\d.]+/g)?.map(Number) ?? [];
  const [cm2 = 0] =
    /[\d.]+(?= cm²)/.exec((await areas.locator("[aria-pressed=true]").textContent()) ?? "")?.map(Number) ?? [];
  const length = Math.max(8, Math.sqrt(cm2 * 100) / 3);
  const onCircle = (deg: number) => {
    const radians = (deg * Math.PI) / 180;
    return [x + 1.5 + length * Math.cos(radians), y + length * Math.sin(radians)] as const;
  };
  await table.drag(onCircle(30), onCircle(70), onCircle(110));
  await settled(page);
  await expect(areas.getByRole("button", { name: /^Fill at 1(09|10|11)°/ })).toHaveCount(1);

  // Where the needle comes in, dragged on the table.
  await table.drag([x, y], [x, y + 6]);
  await settled(page);
  await expect(ways).toContainText(`in at ${x.toFixed(1)}, ${(y + 6).toFixed(1)}`);

  // The order of threads, from the keyboard.
  const threads = page.getByRole("list", { name: "Threads" }).getByRole("listitem");
  const names = await threads.evaluateAll((rows) => rows.map((row) => row.getAttribute("aria-label") ?? ""));
  await page.mouse.move(1200, 20);
  await page.getByRole("button", { name: `Move ${names[1]}` }).focus();
  for (const key of ["Space", "ArrowUp", "Space"]) {
    await page.keyboard.press(key);
    await page.waitForTimeout(300);
  }
  await expect(threads.first()).toHaveAttribute("aria-label", names[1] ?? "");
  await settled(page);

  // Played from its first stitch, and stopped.
  await page.getByLabel("Speed").selectOption("5000");
  await page.getByRole("button", { name: "Sew", exact: true }).click();
  await expect(page.getByTestId("play-place")).toContainText(" of ");
  await page.getByRole("button", { name: "Pause" }).click();
  const place = await page.getByTestId("play-place").textContent();
  await page.getByRole("button", { name: "The next thread" }).click();
  expect(await page.getByTestId("play-place").textContent()).not.toBe(place);
  await page.getByRole("button", { name: "All of it" }).click();

  await goTo(page, "Output");
  await page.getByRole("button", { name: "Make the files" }).click();
  await expect(page.getByText("Made from the recipe as it is now.")).toBeVisible();
  const fetchFile = async (name: string) => {
    const download = page.waitForEvent("download");
    await page.getByRole("link", { name }).click();
    return (await download).path();
  };
  const list = await readFile(await fetchFile("stitches.csv"), "utf8");
  expect(list).toContain("# size: 100.00 x ");
  expect(list.trimEnd().split("\n").at(-1)).toMatch(/,end,/);
  const { stdout } = await run("pdftotext", ["-layout", await fetchFile("worksheet.pdf"), "-"]);
  expect(stdout).toContain("Worksheet");
  expect(stdout).toContain("cap");
  for (const name of names) expect(stdout).toContain(name);

  // The simulated machine gets the list alone.
  await page.getByRole("link", { name: "practice bench" }).click();
  await expect(page.getByText("The machine sews every stitch.")).toBeVisible();
  await page.goBack();
  await goTo(page, "Stitches");
  await page.getByRole("button", { name: "Undo" }).click();
  await settled(page);
  await expect(threads.first()).toHaveAttribute("aria-label", names[0] ?? "");
});
