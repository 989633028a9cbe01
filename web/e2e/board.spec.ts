import { expect, test } from "@playwright/test";
import sharp from "sharp";
import { drawPng, dropFiles, goTo, LOGO, newJob, pasteFile, settled } from "./shop.ts";

test("a chosen file makes a job, found again on the board with its client, garment and step", async ({ page }) => {
  await page.goto("/");
  const chooser = page.waitForEvent("filechooser");
  await page.getByRole("button", { name: "New job from a picture" }).click();
  await (await chooser).setFiles({ name: "kite_badge-v2.png", mimeType: "image/png", buffer: await drawPng(LOGO) });
  await page.waitForURL(/artwork/);
  await settled(page);
  await page.getByLabel("Title").fill("Marshal badges");
  await page.getByLabel("Title").press("Enter");
  await page.getByLabel("Client").fill("Kite Sunday stewards");
  await page.getByLabel("Client").press("Enter");
  await page.getByLabel("Garment colour").fill("#245a3a");
  await goTo(page, "Shapes");
  await page.getByRole("link", { name: "Job board" }).click();

  await page.getByLabel("Search jobs").fill("stewards");
  const cards = page.getByRole("main").getByRole("listitem");
  await expect(cards).toHaveCount(1);
  await expect(cards.first()).toContainText("Marshal badges");
  await expect(cards.first()).toContainText("#245a3a");
  await expect(cards.first()).toContainText("Shapes");
  await page.getByLabel("Search jobs").fill("no such thing");
  await expect(page.getByText('No job has "no such thing" in it.')).toBeVisible();
  await page.getByLabel("Search jobs").fill("marshal");
  await cards.first().getByRole("link").click();
  await expect(page.getByRole("heading", { name: "Shapes" })).toBeVisible();
});

test("the demo jobs are there, each with its picture", async ({ page }) => {
  await page.goto("/");
  for (const client of [
    "Tern Island Ferry",
    "Kite Sunday committee",
    "Hearth & Rye",
    "Saltmarsh Rowing Club",
    "Lantern Quay Pilots",
  ]) {
    const card = page.getByRole("listitem").filter({ hasText: client });
    await expect(card).toHaveCount(1);
    const picture = card.locator("img");
    await expect.poll(() => picture.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBeGreaterThan(100);
  }
});

test("the sheet grows rather than cut the art, and says so", async ({ page }) => {
  await newJob(page);
  await goTo(page, "Output");
  await page.getByRole("radio", { name: "A4" }).click();
  await settled(page);
  await expect(page.getByText("The sheet grew so that nothing of the art or its marks is cut off.")).toBeVisible();
  await page.getByRole("radio", { name: "A3" }).click();
  await settled(page);
  await expect(page.getByText("420.0 × 297.0 mm.").or(page.getByText("297.0 × 420.0 mm."))).toBeVisible();
  await expect(page.getByText("The sheet grew")).toHaveCount(0);
  await page
    .getByRole("button", { name: /3 Light red|3 Red|Gold/ })
    .first()
    .click();
  await expect(page.getByText(/^Film \d of \d: /)).toBeVisible();
});

test("a job that is not there says so and leads back", async ({ page }) => {
  await page.goto("/jobs/6f2b1c1e-0000-4000-8000-000000000000/colours");
  await expect(page.getByRole("alert")).toContainText("This job is not here");
  await page.getByRole("link", { name: "Back to the job board" }).click();
  await expect(page.getByRole("heading", { name: "Job board" })).toBeVisible();
});

test("a pasted screen grab makes a job", async ({ page }) => {
  await page.goto("/");
  await page.getByText("Crew shirts, full front").waitFor();
  await pasteFile(page, { name: "grab.png", bytes: await drawPng(LOGO) });
  await page.waitForURL(/artwork/);
  await expect(page.getByLabel("Title")).toHaveValue("grab");
});

test("several pictures at once become jobs; a bad one among them is named", async ({ page }) => {
  await page.goto("/");
  await page.getByText("Crew shirts, full front").waitFor();
  await dropFiles(
    page,
    { name: "left sleeve.png", bytes: await drawPng(LOGO) },
    { name: "right sleeve", bytes: await drawPng(LOGO.replace("#d8412f", "#3f9b5b")) },
    { name: "letter.png", bytes: Buffer.from("see attached") },
  );
  for (const title of ["left sleeve", "right sleeve"])
    await expect(page.getByRole("main").getByRole("link").filter({ hasText: title })).toHaveCount(1);
  await expect(page.getByRole("alert")).toContainText("This is text, not a picture");
});

test("an upload shows its progress and can be cancelled; nothing is left of it", async ({ page }) => {
  await page.goto("/");
  await page.getByText("Crew shirts, full front").waitFor();
  const line = await page.context().newCDPSession(page);
  await line.send("Network.enable");
  await line.send("Network.emulateNetworkConditions", {
    offline: false,
    latency: 0,
    downloadThroughput: -1,
    uploadThroughput: 200_000,
  });
  const noise = Buffer.alloc(900 * 900 * 3);
  for (let i = 0; i + 4 <= noise.length; i += 4) noise.writeUInt32LE(Math.imul(i + 1, 2654435761) >>> 0, i);
  const heavy = await sharp(noise, { raw: { width: 900, height: 900, channels: 3 } })
    .png()
    .toBuffer();
  await dropFiles(page, { name: "slow.png", bytes: heavy });
  await expect(page.getByRole("progressbar", { name: "Sending slow.png" })).toBeVisible();
  await expect(page.getByText(/\d+ % sent/)).toBeVisible();
  await page.getByRole("button", { name: "Cancel" }).click();
  await expect(page.getByText("slow.png")).toHaveCount(0);
  await page.reload();
  await page.getByText("Crew shirts, full front").waitFor();
  await expect(page.getByText("slow", { exact: true })).toHaveCount(0);
});
