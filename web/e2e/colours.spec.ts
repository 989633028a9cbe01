// The colours step as a person works through it: the number, the shelf, areas, what is judged.
import { expect, type Page, test } from "@playwright/test";
import { jobOf, NAVY, openSection, RED, WHITE } from "./artwork-step.ts";
import { goTo, newJob, setField, settled } from "./shop.ts";
import { Table } from "./table.ts";

const AMBER = [242, 177, 52] as const;
const spots = (page: Page) => page.getByRole("list", { name: "Spots" }).getByRole("listitem");
const spot = (page: Page, name: string) =>
  spots(page).filter({ has: page.getByLabel(`Name of ${name}`, { exact: true }) });

/** A new job of a picture, at its colours. */
async function coloursOf(page: Page, name?: string, svg?: string): Promise<void> {
  await newJob(page, name, svg);
  await goTo(page, "Colours");
}

test("the number: proposed with its reason, moved on the ladder; locks and merges by hand stay", async ({ page }) => {
  await coloursOf(page);
  await expect(page.getByTestId("proposal")).toHaveText(/^5 colours, sure/);
  // A click on the ladder's "3": five columns, from 1 on the left to 5.
  const ladder = page.getByRole("img", { name: /^Cost of going down/ });
  await expect(ladder.locator("svg")).toBeVisible();
  const box = await ladder.boundingBox();
  if (!box) throw new Error("no ladder");
  await page.mouse.click(box.x + box.width * 0.5, box.y + box.height / 2);
  await expect(spots(page)).toHaveCount(3);
  await page.getByRole("button", { name: "Find them" }).click();
  await expect(spots(page)).toHaveCount(5);
  // The two reds merge first, unless one is locked.
  await setField(page, "Number of colours", "4");
  await expect(page.getByLabel("Name of Red 2")).toHaveCount(0);
  await page.getByRole("button", { name: "Find them" }).click();
  await expect(spots(page)).toHaveCount(5);
  const small =
    (await spots(page)
      .filter({ hasText: "#e2604d" })
      .getByLabel(/^Name of/)
      .inputValue()) ?? "";
  await page.getByRole("button", { name: `Lock ${small}` }).click();
  await settled(page);
  await setField(page, "Number of colours", "4");
  await expect(spots(page).filter({ hasText: "#e2604d" })).toHaveCount(1);
  await expect(spots(page)).toHaveCount(4);
  await page.getByRole("button", { name: "Find them" }).click();
  // Merged by hand, it stays whatever the number; and it can be taken apart again.
  await page.getByRole("button", { name: `Merge ${small} into another` }).click();
  await page.getByRole("menuitem", { name: "Navy" }).click();
  await settled(page);
  await new Table(page, 400, 300).expectColour(120, 110, NAVY);
  await page.getByRole("button", { name: "Colour of Navy" }).click();
  await page.getByRole("menuitem", { name: "Take its merges apart" }).click();
  await settled(page);
  await expect(spots(page)).toHaveCount(5);
  // White is the garment's own colour: it needs no screen.
  await expect(page.getByText(/^4 inks come to £142.00; one more or fewer is £35.50/)).toBeVisible();
  await setField(page, "Pieces", "100");
  await expect(page.getByText(/one more or fewer is £53.00/)).toBeVisible();
});

test("a noisy low-resolution JPEG gets no colours from having its background cut away", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("link", { name: /Aprons/ }).click();
  await goTo(page, "Colours");
  // Paper, bread, crust, lettering.
  await expect(spots(page)).toHaveCount(4);
  await goTo(page, "Artwork");
  await openSection(page, "Background");
  await page.getByRole("button", { name: "Take the background away" }).click();
  await settled(page);
  await goTo(page, "Colours");
  // The paper inside the letters is still there: it is the person's to pick.
  await expect(spots(page)).toHaveCount(4);
  await page.getByRole("button", { name: "Undo" }).click();
  await settled(page);
});

test("the shelf: taken in one go, another chosen, seen at once; a colour taken from the picture", async ({ page }) => {
  await coloursOf(page);
  const table = new Table(page, 400, 300);
  await page.getByRole("button", { name: /^Take the \d that the shelf has/ }).click();
  await settled(page);
  await expect(page.getByLabel("Name of Signal red")).toHaveValue("Signal red");
  await page.getByRole("button", { name: "Shelf for Signal red" }).click();
  await page.getByRole("menuitem", { name: /^Brick quay, Q-204/ }).click();
  await settled(page);
  await table.expectColour(60, 150, [156, 51, 40]);
  await expect(spot(page, "Brick quay")).toContainText(/another colour/);
  await page.getByRole("button", { name: "Colour of Brick quay" }).click();
  await page.getByRole("menuitem", { name: "Take it from the picture" }).click();
  await table.click(300, 60);
  await settled(page);
  await table.expectColour(60, 150, AMBER);
  await page.keyboard.press("Control+z");
  await settled(page);
  await table.expectColour(60, 150, [156, 51, 40]);
  await page.getByLabel("Printed colour of Brick quay").fill("#2f5d3a");
  await settled(page);
  await table.expectColour(60, 150, [47, 93, 58]);
  await page.getByRole("button", { name: "Undo" }).click();
  await settled(page);
  await goTo(page, "Separations");
  await expect(page.getByRole("list", { name: "Plates" })).toContainText("Brick quay");
});

test("the print order is set on the strips, from the keyboard as by dragging; roles stand apart", async ({ page }) => {
  await coloursOf(page);
  await page.getByRole("radiogroup", { name: "What White is" }).getByText("Garment").click();
  await settled(page);
  const names = () =>
    spots(page)
      .getByLabel(/^Name of/)
      .evaluateAll((all) => all.map((one) => (one as HTMLInputElement).value));
  const before = await names();
  expect(before.at(-1)).toBe("White");
  await page.getByRole("button", { name: `Move ${before[0]}` }).focus();
  await page.keyboard.press("Space");
  await page.waitForTimeout(100);
  await page.keyboard.press("ArrowDown");
  await page.waitForTimeout(100);
  await page.keyboard.press("Space");
  await settled(page);
  expect((await names()).slice(0, 2)).toEqual([before[1], before[0]]);
  await goTo(page, "Separations");
  await expect(page.getByRole("list", { name: "Plates" }).getByRole("listitem").first()).toContainText(
    before[1] ?? "two spots",
  );
});

const DRAWING = `<svg xmlns="http://www.w3.org/2000/svg" width="400" height="300"><g fill="none" stroke="#101014" stroke-width="9"><circle cx="120" cy="150" r="80"/><path d="M250 80H370V220H250Z"/></g></svg>`;

test("areas: a line drawing's cells are poured full, under the lines to their middle", async ({ page }) => {
  await newJob(page, "drawing.png", DRAWING);
  await page.getByLabel("Garment colour").fill("#1f7a8c");
  await goTo(page, "Colours");
  await openSection(page, "Areas");
  const table = new Table(page, 400, 300);
  await page.getByRole("button", { name: "Pour into an area" }).click();
  await table.click(120, 150);
  await settled(page);
  await table.expectColour(120, 150, AMBER);
  // The new spot goes on into the next cell.
  await table.click(310, 150);
  await settled(page);
  await table.expectColour(310, 150, AMBER);
  await page.getByRole("button", { name: "Stop: pour into an area" }).click();
  const list = page.getByRole("list", { name: "Done to areas" }).getByRole("listitem");
  await expect(list).toHaveCount(2);
  // One fill under the line: its plate is wider than the hole by half the line on either side.
  const job = await jobOf(page);
  expect(job.recipe.colours.added).toMatchObject([{ hex: "#f2b134" }]);
  await goTo(page, "Separations");
  await page
    .getByRole("checkbox", { name: "Ink black ink on the table" })
    .or(page.getByRole("checkbox", { name: /black/i }))
    .first()
    .uncheck();
  await table.expectColour(120 - 77, 150, AMBER);
  await table.expectColour(120 - 87, 150, [31, 122, 140]);
  await goTo(page, "Colours");
  await openSection(page, "Areas");
  await list.first().getByRole("checkbox").uncheck();
  await settled(page);
  await table.expectColour(120, 150, [31, 122, 140]);
  await page.getByRole("button", { name: "Undo" }).click();
  await settled(page);
  await table.expectColour(120, 150, AMBER);
});

const TOUCHING = `<svg xmlns="http://www.w3.org/2000/svg" width="400" height="300"><rect width="400" height="300" fill="#ffffff"/><path d="M40 60H180V130H240V60H360V240H240V170H180V240H40Z" fill="#d8412f"/><circle cx="300" cy="150" r="30" fill="#14304f"/></svg>`;

test("areas: touching parts are divided by a line, the other side chosen, one area given another spot", async ({
  page,
}) => {
  await coloursOf(page, "touching.png", TOUCHING);
  await openSection(page, "Areas");
  const table = new Table(page, 400, 300);
  await page.getByLabel("Colour of the new spot").fill("#2f5d3a");
  const KELP = [47, 93, 58] as const;
  await page.getByRole("button", { name: "Draw a dividing line" }).click();
  await page.keyboard.down("Shift");
  await table.drag([210, 90], [200, 150], [210, 220]);
  await page.keyboard.up("Shift");
  await settled(page);
  await table.expectColour(340, 100, KELP);
  await table.expectColour(80, 100, RED);
  await page.getByRole("button", { name: "Other side" }).click();
  await settled(page);
  await table.expectColour(80, 100, KELP);
  await table.expectColour(340, 100, RED);
  await page.getByRole("button", { name: "Stop: draw a dividing line" }).click();
  // Too short a line divides nothing, and that is said.
  await page.getByRole("button", { name: "Draw a dividing line" }).click();
  await table.drag([300, 70], [300, 90]);
  await settled(page);
  await expect(page.getByText(/does not run all the way through the area/)).toBeVisible();
  await page.getByRole("button", { name: "Undo" }).click();
  await settled(page);
  await page.getByLabel("Spot", { exact: true }).selectOption("White");
  await page.getByRole("button", { name: "Recolour an area" }).click();
  await table.click(300, 150);
  await settled(page);
  await table.expectColour(300, 150, WHITE);
  await page.getByRole("button", { name: 'Take out "Area to White"' }).click();
  await settled(page);
  await table.expectColour(300, 150, NAVY);
});

test("judging: what is too thin is listed and shown, near inks are named, the difference has its scale", async ({
  page,
}) => {
  const art = `<svg xmlns="http://www.w3.org/2000/svg" width="400" height="300"><rect width="400" height="300" fill="#ffffff"/><rect x="40" y="60" width="150" height="150" fill="#1f7a8c"/><rect x="200" y="60" width="150" height="150" fill="#2a8496"/><rect x="40" y="250" width="300" height="3" fill="#d8412f"/></svg>`;
  await newJob(page, "thin.png", art);
  await setField(page, "Print width", "40 mm");
  await goTo(page, "Colours");
  await page.getByRole("radiogroup", { name: "What White is" }).getByText("Drop").click();
  await openSection(page, "Checks");
  await settled(page);
  // 40 mm over 400 px: the line of 3 px is 0.3 mm.
  const places = page.getByRole("list", { name: "Thin places" }).getByRole("listitem");
  await expect(places).toHaveCount(1);
  await expect(places).toContainText(/Red.*0\.(29|30|31) mm/);
  const before = await page.getByLabel(/^Light table/).screenshot();
  await places.getByRole("button").click();
  await expect.poll(async () => (await page.getByLabel(/^Light table/).screenshot()).equals(before)).toBe(false);
  await expect(page.getByRole("list", { name: "Near inks" }).getByRole("listitem")).toHaveCount(1);
  await expect(page.getByText("Flat spots carry all of the picture.")).toBeVisible();
  await page.getByRole("radio", { name: "Difference" }).click();
  await expect(page.getByRole("img", { name: /^Scale of the difference map/ }).locator("svg")).toBeVisible();
});
