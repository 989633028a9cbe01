// Laying the artwork upright, as a person does.
import { expect, test } from "@playwright/test";
import { done, jobOf, logoOnTeal, openSection, WHITE } from "./artwork-step.ts";
import { goTo, newJob, setField, settled } from "./shop.ts";
import { Table } from "./table.ts";

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
  ] as const)
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
  ] as const)
    await table.expectColour(table.width * x, table.height * y, WHITE);
});
