import { execFile } from "node:child_process";
import { promisify } from "node:util";
import { expect, type Page, test } from "@playwright/test";
import { drawFerry } from "../../tools/demo/ferry.ts";
import { dropFiles, goTo, newJob, setField, settled } from "./shop.ts";

const run = promisify(execFile);

async function makeFiles(page: Page): Promise<readonly string[]> {
  await page.getByRole("button", { name: "Make the files" }).click();
  await expect(page.getByText("Made from the recipe as it is now.")).toBeVisible();
  return page.getByTestId("run-files").getByRole("link").allTextContents();
}

async function madeWith(page: Page, process: string): Promise<void> {
  await page.getByRole("complementary", { name: "Ticket" }).getByLabel("Made with").selectOption(process);
  await settled(page);
}

test("the ferry job goes from screens to transfer film and back: nothing before is redone, both are made", async ({
  page,
}) => {
  let fetched = 0;
  page.on("request", (request) => {
    if (/artworks\/[0-9a-f]+\/pixels/.test(request.url())) fetched++;
  });
  await page.goto("/");
  await dropFiles(page, { name: "crew shirt FINAL.png", bytes: await drawFerry() });
  await page.waitForURL(/artwork/);
  await settled(page);
  await goTo(page, "Separations");
  await setField(page, "Trap width", "0.45 mm");
  const plates = await page.getByRole("list", { name: "Plates" }).getByRole("listitem").count();
  await goTo(page, "Shapes");
  const nodes = await page.getByTestId("node-count").textContent();

  await madeWith(page, "Transfer film");
  await goTo(page, "Layers");
  const layers = page.getByRole("list", { name: "Layers" }).getByRole("listitem");
  await expect(layers).toHaveCount(plates);
  // Moved from the keyboard; the order is the job's own from then on.
  const names = await layers.evaluateAll((rows) => rows.map((row) => row.getAttribute("aria-label") ?? ""));
  await page.getByRole("button", { name: `Move ${names[1]}` }).focus();
  for (const key of ["Space", "ArrowUp", "Space"]) {
    await page.keyboard.press(key);
    await page.waitForTimeout(120);
  }
  await expect(layers.first()).toHaveAttribute("aria-label", names[1] ?? "");
  await settled(page);
  await page.getByRole("button", { name: "As proposed" }).click();
  await settled(page);
  await expect(layers.first()).toHaveAttribute("aria-label", names[0] ?? "");
  // Film that moves shows shirt where a layer is flush, and none where its lap is wide enough.
  await page.getByLabel("Show where the shirt would show").check();
  await setField(page, "Shrinks by", "0");
  await setField(page, "Lap width", "0");
  await expect(page.getByText(/mm² of shirt would show/)).toBeVisible();
  await page.getByRole("button", { name: "Use it" }).click();
  await settled(page);
  await expect(page.getByLabel("Lap width")).toHaveValue("0.4 mm");
  await setField(page, "Lap width", "0.6");
  await expect(page.getByText("No shirt would show.")).toBeVisible();

  await goTo(page, "Output");
  await page.getByLabel("HPGL (.plt)").check();
  await settled(page);
  await setField(page, "Pieces", "6");
  await expect(page.getByRole("list", { name: "Rolls" }).getByRole("listitem")).toHaveCount(plates);
  const files = await makeFiles(page);
  for (const wanted of ["layers.svg", "press-sheet.pdf", /^layer-1-[0-9a-f]{6}\.plt$/, /^sheet-1-[0-9a-f]{6}\.plt$/])
    expect(files).toContainEqual(typeof wanted === "string" ? wanted : expect.stringMatching(wanted));
  const download = page.waitForEvent("download");
  await page.getByRole("link", { name: "press-sheet.pdf" }).click();
  const { stdout } = await run("pdftotext", ["-layout", await (await download).path(), "-"]);
  const places = names.map((name) => stdout.indexOf(name));
  expect(places.every((place, i) => place > (places[i - 1] ?? 0))).toBe(true);
  expect(stdout).toContain(`${plates} layers, then 15 s for the whole`);
  expect(stdout).toContain("for 6");

  // The simulated cutter gets the files alone.
  await page.getByRole("link", { name: "practice bench" }).click();
  await expect(page.getByText(`Every layer cuts, closed and once.`)).toBeVisible();
  await page.getByRole("button", { name: "Cut again" }).click();
  await expect(page.getByRole("button", { name: "Stop" })).toBeVisible();
  await expect(page.getByRole("img", { name: "The shirt as it is pressed" })).toBeVisible();
  await page.goBack();

  await madeWith(page, "Screens");
  await goTo(page, "Separations");
  await expect(page.getByLabel("Trap width")).toHaveValue("0.45 mm");
  await goTo(page, "Shapes");
  await expect(page.getByTestId("node-count")).toHaveText(nodes ?? "");
  await goTo(page, "Output");
  expect(await makeFiles(page)).toContain("films.pdf");
  // Once for the job, and once more after the practice bench: never for a change of process.
  expect(fetched).toBeLessThanOrEqual(2);
});

test("thin strips and lost islands are listed, shown and mended; film may be printed in one piece", async ({
  page,
}) => {
  await newJob(
    page,
    "quay.png",
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 400 300" width="400" height="300"><rect width="400" height="300" fill="#ffffff"/><rect x="40" y="40" width="300" height="160" fill="#14304f"/><path d="M60 240H340" stroke="#14304f" stroke-width="3"/><circle cx="100" cy="90" r="3.5" fill="#f2b134"/></svg>',
  );
  await setField(page, "Print width", "100 mm");
  await madeWith(page, "Transfer film");
  await goTo(page, "Layers");
  const places = page.getByRole("list", { name: "Places that do not cut or weed" });
  await expect(places).toContainText("Strip, Navy");
  await expect(places).toContainText("Island, Gold");
  await places.getByRole("button").first().click();
  await page.getByLabel(/Thicken strips to 1 mm/).check();
  await settled(page);
  await expect(page.getByText("Changed, outlined on the table: Navy")).toBeVisible();
  await expect(places).not.toContainText("Strip, Navy");
  await page.getByLabel(/Give islands under 2 mm/).check();
  await settled(page);
  await expect(page.getByText("1 island given away, ringed on the table")).toBeVisible();
  await expect(places).toHaveCount(0);

  await page.getByRole("radio", { name: "In one piece" }).click();
  await settled(page);
  await setField(page, "Cut away from the art", "3 mm");
  await goTo(page, "Output");
  const files = await makeFiles(page);
  expect(files).toContain("printed.pdf");
  expect(files).toContain("cut-line.svg");
  expect(files.filter((name) => name.startsWith("layer"))).toEqual([]);
});

test("a film's roll and press are kept on the shelf, and a job goes by them", async ({ page }) => {
  await page.goto("/shelf");
  await page.getByText("Transfer films").click();
  const field = page.getByLabel("Press C of Deep water");
  await field.fill("140");
  await field.press("Enter");
  await page.reload();
  await page.getByText("Transfer films").click();
  await expect(page.getByLabel("Press C of Deep water")).toHaveValue("140");
  await page.getByLabel("Press C of Deep water").fill("");
  await page.getByLabel("Press C of Deep water").press("Enter");
  await page.reload();
  await page.getByText("Transfer films").click();
  await expect(page.getByLabel("Press C of Deep water")).toHaveValue("");
});

test("a single spot is made another way: a step of its own, and its files among the others", async ({ page }) => {
  await newJob(page);
  await goTo(page, "Colours");
  await page.getByRole("button", { name: "How Navy is made" }).click();
  await page.getByRole("menuitem", { name: "With transfer film" }).click();
  await settled(page);
  await goTo(page, "Separations");
  await expect(page.getByRole("list", { name: "Plates" })).not.toContainText("Navy");
  await goTo(page, "Layers");
  await expect(page.getByRole("list", { name: "Layers" }).getByRole("listitem")).toHaveText([/Navy/]);
  await goTo(page, "Output");
  await page.getByRole("radiogroup", { name: "Made with" }).getByText("Transfer film").click();
  await expect(page.getByRole("list", { name: "Rolls" }).getByRole("listitem")).toHaveCount(1);
  const files = await makeFiles(page);
  expect(files).toEqual(expect.arrayContaining(["films.pdf", "layer-1-14304f.svg", "press-sheet.pdf"]));
});
