import { expect, type Page, test } from "@playwright/test";
import { drawPng, dropFiles, goTo, LOGO, setField, settled } from "./shop.ts";

const MARKUP = '<b>pale</b> <img src=x onerror="document.title=1">';
const LONG = "long".repeat(60);

async function newJob(page: Page, name: string): Promise<void> {
  await page.goto("/");
  await dropFiles(page, { name, bytes: await drawPng(LOGO) });
  await page.waitForURL(/\/jobs\/[0-9a-f-]+\/artwork/);
  await settled(page);
}
const toProof = async (page: Page) => {
  await page.getByRole("navigation", { name: "Steps" }).getByRole("link", { name: /Proof/ }).click();
  await expect(page.getByRole("img", { name: /on the front of the garment/ })).toBeVisible({ timeout: 20_000 });
};
/** The board's line of the job says what it waits for. */
async function expectState(page: Page, title: string, state: RegExp): Promise<void> {
  await page.goto("/");
  await page.getByLabel("Search jobs").fill(title);
  await page.getByRole("radio", { name: "List" }).click();
  await expect(page.getByRole("row", { name: new RegExp(title) })).toContainText(state);
}

test("the shop sends, the client asks on a phone, the shop answers and changes a colour, the client says yes, and what changes since is told", async ({
  page,
  browser,
}) => {
  const title = `ferry ${Date.now()}`;
  await newJob(page, `${title}.png`);
  const job = page.url().replace(/\/artwork$/, "");
  await page.getByLabel("Client", { exact: true }).fill("Tern Island deckhands");
  await page.getByLabel("Client", { exact: true }).press("Enter");
  await toProof(page);
  await page.getByLabel("The client's mail address").fill("mate@ferry.example");
  await page.getByLabel("The client's mail address").press("Enter");
  await page.getByRole("button", { name: "Send the proof" }).click();
  await expect(page.getByRole("region", { name: "Version 1" })).toContainText("Waits for the client");
  await expectState(page, title, /Waits for the client/);

  // The mailbox has the message; its link opens on a phone, in a browser that knows nothing of the shop.
  await page.goto("/practice?at=mail");
  await page.getByRole("button", { name: new RegExp(title) }).click();
  const link = await page.getByRole("link", { name: "Open it as the client" }).getAttribute("href");
  const phone = await browser.newContext({ viewport: { width: 390, height: 800 }, hasTouch: true, isMobile: true });
  const client = await phone.newPage();
  await client.goto(link ?? "");
  await expect(client.getByRole("heading", { name: title })).toBeVisible();
  await client.getByRole("radio", { name: "Close up" }).click();
  const picture = client.getByRole("application");
  const box = await picture.boundingBox();
  if (!box) throw new Error("no picture");
  await client.touchscreen.tap(box.x + box.width * 0.4, box.y + box.height * 0.5);
  await expect(client.getByText("About the place that is marked.")).toBeVisible();
  await client.getByLabel("Your words").fill(`Is the ${MARKUP} blue meant? ${LONG}`);
  await client.getByLabel("Your name").fill("M. Ate");
  await client.getByRole("button", { name: "Send" }).click();
  const said = client.getByRole("list", { name: "What was said" });
  // Shown as it was typed, on a page that is no wider for it.
  await expect(said).toContainText(MARKUP);
  expect(await client.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await expectState(page, title, /Answered/);

  // The shop reads it as text, too, answers, changes a colour and sends the next version.
  await page.goto(`${job}/proof`);
  await page.getByLabel("Version", { exact: true }).selectOption({ index: 1 });
  await expect(page.getByRole("list", { name: "What was said" })).toContainText(MARKUP);
  await page.getByRole("button", { name: "Answer 1" }).click();
  await page.getByLabel("Your answer").fill("No, the scan made it. We make it navy.");
  await page.getByRole("button", { name: "Answer", exact: true }).click();
  await expect(page.getByText("The client is told.")).toBeVisible();
  await client.reload();
  await expect(said).toContainText("We make it navy.");
  expect(await page.title()).toContain(title);
  await page.goto(`${job}/colours`);
  await settled(page);
  await recolour(page, "#1d2a44");
  await toProof(page);
  await page.getByRole("button", { name: "Send version 2" }).click();
  await expect(page.getByRole("region", { name: "Version 2" })).toBeVisible();
  await client.reload();
  await expect(client.getByText("A newer version was sent to you")).toBeVisible();

  // The client opens the newest message and says yes, by keyboard alone.
  await page.goto("/practice?at=mail");
  const newest = await page.getByRole("link", { name: "Open it as the client" }).getAttribute("href");
  await client.goto(newest ?? "");
  const yes = client.getByRole("form", { name: "Say yes" });
  await yes.getByRole("checkbox").press("Space");
  await expect(yes.getByLabel("Name")).toHaveValue("M. Ate");
  await yes.getByLabel("Day").fill("2027-03-03");
  await yes.getByLabel("Name").press("Enter");
  await expect(client.getByText("M. Ate said yes on")).toBeVisible();
  await expectState(page, title, /Yes, March 3, 2027/);

  // A trap is still yes; a colour is not, and a click shows what is different.
  await page.goto(`${job}/shapes`);
  await settled(page);
  await goTo(page, "Separations");
  await setField(page, "Trap width", "0.5 mm");
  await expect(page.getByText("Yes, March 3, 2027")).toBeVisible();
  await page.goto(`${job}/colours`);
  await settled(page);
  await recolour(page, "#7a1f5c");
  await expect(page.getByText("Changed since the yes of March 3, 2027")).toBeVisible();
  await goTo(page, "Output");
  await page.getByRole("link", { name: "See the changes, or send a new proof" }).click();
  await expect(page.getByRole("status").filter({ hasText: "Changed since the yes of March 3, 2027" })).toBeVisible();
  await page.getByRole("radio", { name: "Changes since the yes" }).click();
  await expect(page.getByRole("region", { name: "Differences" })).toContainText("now #7a1f5c");
  await expect(page.getByText(/^Different: \d+\.\d % of the print$/)).toBeVisible();
  await expectState(page, title, /Changed since the yes/);
  await phone.close();
});

/** Gives the job's first ink another colour. */
async function recolour(page: Page, hex: string): Promise<void> {
  const field = page.getByLabel(/^Printed colour of /).first();
  await field.fill(hex);
  await settled(page);
}

test("a link that is withdrawn opens nothing, and the board finds, sorts and puts away", async ({ page, browser }) => {
  const title = `kite ${Date.now()}`;
  await newJob(page, `${title}.png`);
  await page.getByLabel("Due", { exact: true }).fill("2020-01-02");
  await toProof(page);
  await page.getByRole("button", { name: "Send the proof" }).click();
  const region = page.getByRole("region", { name: "Version 1" });
  const link = await region.getByLabel("The client's link").inputValue();
  await region.getByRole("button", { name: "Withdraw the link" }).click();
  await expect(region).toContainText("The link was withdrawn");
  const client = await browser.newPage();
  expect((await client.goto(link))?.status()).toBe(404);
  await expect(client.getByRole("alert")).toContainText("This link opens nothing");
  expect((await client.goto(`${link.slice(0, -3)}AAA`))?.status()).toBe(404);
  await expect(client.getByRole("alert")).toContainText("This link opens nothing");
  await client.close();
  await page.goto("/");
  await page.getByLabel("Order", { exact: true }).selectOption("due");
  await page.getByRole("radio", { name: "List" }).click();
  const first = page.getByRole("row").nth(1);
  await expect(first).toContainText(title);
  await expect(first).toContainText("days late");
  await page.getByRole("button", { name: /^Waits for the client/ }).click();
  await expect(page.getByRole("row", { name: new RegExp(title) })).toHaveCount(0);
});

test("the board is found again as it was looked at", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("radio", { name: "List" }).click();
  await page.getByLabel("Order", { exact: true }).selectOption("client");
  await page.reload();
  await expect(page.getByRole("columnheader", { name: "Waits for" })).toBeVisible();
  await expect(page.getByLabel("Order", { exact: true })).toHaveValue("client");
});
