// By keyboard alone: after whatever takes away what was pressed, the focus is where the work goes on, and what came of it is said.
import { expect, type Locator, type Page, test } from "@playwright/test";
import { goTo, newJob, settled } from "./shop.ts";
import { Table } from "./table.ts";

const said = (page: Page) => page.getByTestId("said");

async function press(target: Locator, key = "Enter"): Promise<void> {
  await target.focus();
  await target.page().keyboard.press(key);
}

test("the background goes, comes back, and what was done is taken out", async ({ page }) => {
  await newJob(page);
  await page.getByRole("tab", { name: "Background" }).click();
  await press(page.getByRole("button", { name: "Take the background away" }));
  await expect(page.getByRole("slider", { name: "Tolerance, slide" })).toBeFocused();
  await expect(said(page)).toContainText("#ffffff away, tolerance");
  await settled(page);
  await press(page.getByRole("button", { name: "Undo" }));
  await expect(said(page)).toContainText("Undone.");
  await expect(page.getByRole("button", { name: "Undo" })).toBeFocused();
  await press(page.getByRole("button", { name: "Redo" }));
  await settled(page);
  await expect(page.getByRole("button", { name: "Redo" })).toBeFocused();
  await press(page.getByRole("button", { name: /^Take out "#ffffff away/ }));
  await expect(page.getByText("Nothing done to the picture yet.", { exact: false })).toBeVisible();
  await expect(page.getByRole("main").locator(":focus")).toBeVisible();
});

test("a colour becomes the garment's and is merged; its row keeps the focus or hands it on", async ({ page }) => {
  await newJob(page);
  await goTo(page, "Colours");
  const names = await page
    .getByLabel(/^Name of /)
    .evaluateAll((all: HTMLInputElement[]) => all.map((one) => one.value));
  const [first, second] = names.slice(-3);
  const ink = page.getByRole("radiogroup", { name: `What ${first} is` });
  await ink.getByRole("radio", { name: "Ink" }).focus();
  await page.keyboard.press("ArrowRight");
  await expect(ink.getByRole("radio", { name: "Garment" })).toBeFocused();
  await page.keyboard.press("Space");
  await settled(page);
  await expect(said(page)).toContainText(`${first} is the garment's.`);
  await expect(ink.getByRole("radio", { name: "Garment" })).toBeFocused();
  await press(page.getByRole("button", { name: `Merge ${second} into another` }));
  await press(page.getByRole("menuitem", { name: first, exact: true }));
  await expect(page.getByLabel(`Name of ${second}`, { exact: true })).toHaveCount(0);
  await expect(said(page)).toContainText(`No longer a colour: ${second}.`);
  await expect(page.getByLabel(`Name of ${first}`, { exact: true })).toBeFocused();
});

test("the first plate moves, and the grip that moved it has the focus", async ({ page }) => {
  await newJob(page);
  await goTo(page, "Separations");
  const grips = page.getByRole("list", { name: "Plates" }).getByRole("button", { name: /^Move / });
  const name = (await grips.first().getAttribute("aria-label")) ?? "";
  await grips.first().focus();
  for (const key of ["Space", "ArrowDown", "Space"]) {
    await page.keyboard.press(key);
    await page.waitForTimeout(300);
  }
  await settled(page);
  await expect(grips.nth(1)).toHaveAccessibleName(name);
  await expect(grips.nth(1)).toBeFocused();
});

test("what is put on the shelf comes into view, to be named", async ({ page }) => {
  await page.goto("/shelf");
  await press(page.getByRole("button", { name: "Add an ink" }));
  const name = page.getByLabel("Name of Not named yet", { exact: true });
  await expect(name).toBeFocused();
  await expect(name).toBeInViewport();
  await page.keyboard.press("ControlOrMeta+a");
  await page.keyboard.type("Kiln red");
  await page.keyboard.press("Enter");
  await press(page.getByRole("button", { name: "Take Kiln red off the shelf" }));
  await expect(page.getByRole("main").locator(":focus")).toBeVisible();
  await press(page.getByRole("button", { name: "Put it back" }));
  await expect(page.getByLabel("Name of Kiln red", { exact: true })).toBeFocused();
});

test("a placement and a motif that are added have the focus, where they are named and moved", async ({ page }) => {
  await newJob(page);
  await press(page.getByRole("button", { name: "Change the shop's placements" }));
  await press(page.getByRole("button", { name: "Add a placement" }));
  const rows = page.getByRole("dialog").locator("li");
  const added = rows.locator(":focus");
  await expect(added).toHaveAccessibleName(/^Name of /);
  await expect(added).toBeInViewport();
  await press(page.getByRole("dialog").getByRole("button", { name: /^Remove New/ }));
  await page.keyboard.press("Escape");
  await goTo(page, "Shapes");
  await page.getByRole("tab", { name: "Motifs" }).click();
  await press(page.getByRole("button", { name: "Place Anchor" }));
  const change = page.getByRole("list", { name: "Placed motifs" }).getByRole("button", { name: /^Change "Anchor/ });
  await expect(change).toBeFocused();
  await expect(change).toBeInViewport();
});

test("a new line of lettering is typed at once, and Escape leaves its text for the table", async ({ page }) => {
  await newJob(page);
  await goTo(page, "Shapes");
  await page.getByRole("tab", { name: "Lettering" }).click();
  await press(page.getByRole("button", { name: "New line" }));
  const words = page.getByLabel("Words", { exact: true });
  await expect(words).toBeFocused();
  await page.keyboard.type("Mind the gull");
  await page.keyboard.press("Escape");
  await expect(page.getByRole("region", { name: /^Light table/ })).toBeFocused();
  await expect(words).toHaveValue("Mind the gull");
});

test("what takes long says how far it is, is stopped, and gone on with", async ({ page }) => {
  await newJob(page);
  let wait = 6000;
  await page.route("**/pixels?*", async (route) => {
    await new Promise((resolve) => setTimeout(resolve, wait));
    await route.continue();
  });
  await page.reload();
  await expect(page.getByTestId("busy")).toContainText("Fetching the artwork");
  await expect(page.getByRole("progressbar", { name: "How far it is" })).toBeVisible();
  await press(page.getByRole("button", { name: "Stop" }));
  const goOn = page.getByRole("button", { name: "Go on computing" });
  await expect(goOn).toBeFocused();
  await expect(page.getByText("all that you decided is kept", { exact: false })).toBeVisible();
  wait = 0;
  await page.keyboard.press("Enter");
  await settled(page);
  await expect(goOn).toHaveCount(0);
  // The red circle of the logo lies on the table.
  await new Table(page, 400, 300).expectColour(75, 175, [0xd8, 0x41, 0x2f]);
});
