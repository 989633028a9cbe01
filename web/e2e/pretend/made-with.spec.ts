// What the seams are for: a process that nothing in the program knows of is chosen, computed, shown and given out.
import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { runListSchema } from "@plain-palette/contract";
import { expect, test } from "@playwright/test";
import sharp from "sharp";
import { ROOT } from "../../../tools/server-process.ts";
import { drawPng, goTo, LOGO, newJob, settled } from "../shop.ts";
import { openPretendShop, type PretendShop, WITH_PRETEND } from "./pretend-shop.ts";

let shop: PretendShop;
test.beforeAll(async () => {
  shop = await openPretendShop();
});
test.afterAll(() => shop.close());

/** Names of the sheets in a stencils.svg. */
const sheetsIn = (svg: string) => [...svg.matchAll(/data-sheet="([^"]*)"/g)].map(([, name]) => name);

test("a process of a test's own is chosen on the ticket, computed, shown and made", async ({ browser }) => {
  const page = await browser.newPage({ baseURL: shop.url });
  await newJob(page);
  const ticket = page.getByRole("complementary", { name: "Ticket" });
  await expect(ticket.getByLabel("Made with")).toHaveValue("screens");
  await ticket.getByLabel("Made with").selectOption("Stencils");
  await settled(page);
  await goTo(page, "Sheets");
  const sheets = page.getByRole("list", { name: "Sheets" }).getByRole("listitem");
  await expect(sheets).toHaveCount(4);
  const names = await sheets.allTextContents();
  // Its layer lies on the table, in a colour that nothing else has.
  const table = await sharp(await page.getByLabel(/Light table/).screenshot())
    .raw()
    .toBuffer();
  let green = 0;
  for (let i = 0; i < table.length; i += 3)
    if (table[i] === 0 && table[i + 1] === 0xb0 && table[i + 2] === 0x50) green++;
  expect(green).toBeGreaterThan(10_000);

  await goTo(page, "Output");
  await expect(page.getByRole("group", { name: "Before you cut" })).toContainText(
    "4 sheets have to be laid on in turn.",
  );
  await page.getByRole("button", { name: "Make the files" }).click();
  const files = page.getByTestId("run-files");
  await expect(files.getByRole("link")).toHaveText([
    "recipe.json",
    "report.json",
    "shapes.svg",
    "stencils.svg",
    /\.zip$/,
  ]);
  const job = /jobs\/([0-9a-f-]+)/.exec(page.url())?.[1];
  const [run] = runListSchema.parse(await (await page.request.get(`/api/jobs/${job}/runs`)).json());
  expect(run?.process).toBe("stencils");
  const made = await page.request.get(`/api/runs/${run?.id}/files/stencils.svg`);
  expect(sheetsIn(await made.text())).toEqual(names);
  const report = await (await page.request.get(`/api/runs/${run?.id}/files/report.json`)).json();
  expect(report.stencils).toEqual({ sheets: names, marginMm: 10 });
  expect(report.plates).toBeUndefined();

  // Back to screens with one choice: what was decided there is as it was.
  await page.goto(`/jobs/${job}/artwork`);
  await ticket.getByLabel("Made with").selectOption("Screens");
  await settled(page);
  await goTo(page, "Separations");
  await expect(page.getByRole("list", { name: "Plates" }).getByRole("listitem")).toHaveCount(4);
});

test("the shell makes with it, too, and refuses what there is not", async () => {
  const folder = mkdtempSync(join(tmpdir(), "plain-palette-stencils-"));
  const separate = (...words: string[]) =>
    execFileSync(
      process.execPath,
      ["--import", "tsx", join(ROOT, "cli", "src", "main.ts"), join(folder, "tern.png"), ...words],
      {
        env: { ...process.env, ...WITH_PRETEND },
        encoding: "utf8",
        stdio: ["ignore", "pipe", "pipe"],
      },
    );
  try {
    writeFileSync(join(folder, "tern.png"), await drawPng(LOGO));
    separate("--process", "stencils", "--margin", "12mm", "--out", folder);
    const made = join(folder, "tern");
    expect(sheetsIn(readFileSync(join(made, "stencils.svg"), "utf8"))).toHaveLength(4);
    const report = JSON.parse(readFileSync(join(made, "report.json"), "utf8"));
    expect(report.stencils.marginMm).toBe(12);
    expect(Object.keys(report.timingsMs)).toEqual(["decode", "reduce", "trace", "cut", "stencils"]);
    separate("--process", "stencils", "--only", "14304f", "d8412f", "--no-margin", "--out", folder);
    expect(sheetsIn(readFileSync(join(made, "stencils.svg"), "utf8"))).toHaveLength(2);
    expect(JSON.parse(readFileSync(join(made, "report.json"), "utf8")).stencils.marginMm).toBe(0);
    expect(() => separate("--process", "stencils", "--only", "navy")).toThrow('--only takes ids of spots, not "navy"');
    expect(() => separate("--process", "letterpress")).toThrow(
      '--process takes screens or transfer or stitches or stones or stencils, not "letterpress"',
    );
  } finally {
    rmSync(folder, { recursive: true });
  }
});
