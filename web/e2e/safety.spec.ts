import { crc32 } from "node:zlib";
import { expect, type Page, test } from "@playwright/test";
import sharp from "sharp";
import { drawPng, dropFiles, goTo, LOGO, newJob, setField, settled } from "./shop.ts";

/** A PNG of a few bytes that claims `side` x `side` pixels. */
function bomb(side: number): Buffer {
  const header = Buffer.alloc(25);
  header.writeUInt32BE(13, 0);
  header.write("IHDR", 4, "latin1");
  header.writeUInt32BE(side, 8);
  header.writeUInt32BE(side, 12);
  header[16] = 8;
  header.writeUInt32BE(crc32(header.subarray(4, 21)), 21);
  return Buffer.concat([Buffer.from("89504e470d0a1a0a", "hex"), header]);
}

const bad: readonly (readonly [string, () => Buffer | Promise<Buffer>, RegExp])[] = [
  ["empty.png", () => Buffer.alloc(0), /The file is empty/],
  ["notes.png", () => Buffer.from("The logo is in the other mail."), /This is text, not a picture/],
  ["cut.png", async () => (await drawPng(LOGO)).subarray(0, 900), /PNG is damaged or ends too early/],
  [
    "cut.jpg",
    async () =>
      (
        await sharp(await drawPng(LOGO))
          .jpeg()
          .toBuffer()
      ).subarray(0, 2000),
    /JPEG is damaged or ends too early/,
  ],
  [
    "script.svg",
    () => Buffer.from(LOGO.replace("<rect", "<script>alert(1)</script><rect")),
    /The SVG contains a script/,
  ],
  ["bomb.png", () => bomb(50_000), /50000 x 50000 pixels .* at most 60 million/],
  [
    "outside.svg",
    () => Buffer.from(LOGO.replace("<rect", '<image href="http://elsewhere.example/a.png"/><rect')),
    /refers to something outside itself/,
  ],
];

for (const [name, make, message] of bad)
  test(`${name} is refused with its cause, and the board goes on`, async ({ page }) => {
    await page.goto("/");
    await page.getByText("Crew shirts, full front").waitFor();
    await dropFiles(page, { name, bytes: await make() });
    const alert = page.getByRole("alert");
    await expect(alert).toContainText(message);
    await expect(alert).toContainText("Nothing was changed.");
    await expect(page.getByText(name, { exact: true })).toBeVisible();
    await alert.getByRole("button", { name: "Close" }).click();
    await expect(page.getByText("Crew shirts, full front")).toBeVisible();
  });

test("one pixel, and 26 000 colours, become jobs like any other", async ({ page }) => {
  await newJob(
    page,
    "dot.png",
    '<svg xmlns="http://www.w3.org/2000/svg" width="1" height="1"><rect width="1" height="1" fill="#c81e28"/></svg>',
  );
  await goTo(page, "Colours");
  await expect(page.getByRole("list", { name: "Spots" }).getByRole("listitem")).toHaveCount(1);
  const pixels = Buffer.alloc(200 * 130 * 3);
  for (let i = 0; i < pixels.length; i += 3) pixels.writeUIntBE((i / 3) * 331, i, 3);
  await page.goto("/");
  await dropFiles(page, {
    name: "many.png",
    bytes: await sharp(pixels, { raw: { width: 200, height: 130, channels: 3 } })
      .png()
      .toBuffer(),
  });
  await page.waitForURL(/artwork/);
  await settled(page);
  await goTo(page, "Output");
  await expect(page.getByText(/flat spots will not carry its gradients/)).toBeVisible();
});

test("a picture of nothing becomes a job that says there is nothing to print", async ({ page }) => {
  await newJob(page, "clear.png", '<svg xmlns="http://www.w3.org/2000/svg" width="20" height="20"></svg>');
  await goTo(page, "Separations");
  await expect(page.getByText("No inks", { exact: false })).toBeVisible();
  await goTo(page, "Output");
  await expect(page.getByText("fully transparent", { exact: false })).toBeVisible();
  await expect(page.getByRole("button", { name: "Make the files" })).toBeDisabled();
});

test("a field says what is wrong with what was typed, and keeps the old value in force", async ({ page }) => {
  await newJob(page);
  const field = page.getByLabel("Print width");
  await field.fill("very wide");
  await field.press("Enter");
  await expect(page.getByText('"very wide" is not a length', { exact: false })).toBeVisible();
  await field.fill("1mm");
  await field.press("Enter");
  await expect(page.getByText(/^From 5 mm to/)).toBeVisible();
  await page.reload();
  await expect(page.getByLabel("Print width")).toHaveValue("10.5 in");
});

test("an answer that makes no sense is said in words and asked for again when one wants, never by itself", async ({
  page,
}) => {
  const nonsense = (address: string) => page.route(address, (route) => route.fulfill({ json: { jobs: "none" } }));
  await nonsense("**/api/board*");
  await page.goto("/");
  const problem = page.getByRole("alert");
  await expect(problem).toContainText("The server gave no sensible answer");
  await expect(problem).not.toContainText("expected");
  await page.unroute("**/api/board*");
  await page.getByRole("button", { name: "Try again" }).click();
  await expect(page.getByRole("link", { name: /Crew shirts/ })).toBeVisible();
  await nonsense("**/api/jobs/*");
  await page.getByRole("link", { name: /Crew shirts/ }).click();
  await expect(problem).toContainText("The server gave no sensible answer");
  let loads = 0;
  page.on("load", () => loads++);
  // Longer than it takes until what is away is asked again.
  await page.waitForTimeout(4000);
  expect(loads).toBe(0);
  await page.unroute("**/api/jobs/*");
  await page.getByRole("button", { name: "Reload" }).click();
  await expect(page.getByRole("heading", { level: 1, name: "Artwork" })).toBeVisible();
});

test("closing the tab right after a change loses nothing", async ({ page, context }) => {
  await newJob(page);
  const { url } = { url: page.url() };
  await page.getByLabel("Print width").fill("222mm");
  await page.getByLabel("Print width").press("Enter");
  // With the cursor still in the field.
  await page.getByLabel("Title").fill("Typed last");
  await page.close({ runBeforeUnload: false });
  const again = await context.newPage();
  await expect(async () => {
    await again.goto(url);
    await expect(again.getByLabel("Title")).toHaveValue("Typed last", { timeout: 1500 });
    await expect(again.getByLabel("Print width")).toHaveValue("222 mm", { timeout: 1500 });
  }).toPass();
});

test("two people on one job: both changes are kept and a person chooses", async ({ page, browser }) => {
  await newJob(page);
  await goTo(page, "Separations");
  // Another person, at another browser.
  const other = await (await browser.newContext()).newPage();
  await other.goto(page.url());
  await settled(other);
  await setField(other, "Trap width", "0.4");
  const mine: Page = page;
  await mine.getByLabel("Trap width").fill("0.5");
  await mine.getByLabel("Trap width").press("Enter");
  await expect(mine.getByText("Somebody else changed this job meanwhile.")).toBeVisible();
  await mine.getByRole("button", { name: "Go on with mine" }).click();
  await expect(mine.getByRole("main")).toBeFocused();
  await expect(mine.getByTestId("said")).toContainText("This job goes on with your change.");
  await settled(mine);
  await other.reload();
  await settled(other);
  await expect(other.getByLabel("Trap width")).toHaveValue("0.5 mm");
  await other.getByRole("button", { name: "Undo" }).click();
  await settled(other);
  await expect(other.getByLabel("Trap width")).toHaveValue("0.4 mm");
});

test("a question that cannot be answered is refused, and the next ones are answered", async ({ page }) => {
  await newJob(page);
  const job = page.url();
  await page.route("**/pixels?**", (route) =>
    route.fulfill({
      status: 500,
      contentType: "application/problem+json",
      body: JSON.stringify({ title: "Away", status: 500, detail: "The pixels are away." }),
    }),
  );
  await page.goto(job);
  await expect(page.getByRole("alert")).toContainText("The pixels are away.");
  await page.getByRole("tab", { name: "Upright" }).click();
  await page.getByRole("button", { name: "Look for the sheet" }).click();
  await expect(page.getByRole("alert")).toContainText("the picture is not there yet");
  await page.unroute("**/pixels?**");
  await page.getByRole("button", { name: "Quarter right" }).click();
  await settled(page);
  await page.getByRole("button", { name: "Look for the sheet" }).click();
  await expect(page.getByText(/No edge of a sheet is seen/)).toBeVisible();
  await expect(page.getByRole("alert")).toHaveCount(0);
});
