// What a person in the shop does, in the words of the interface.
import { expect, type Page } from "@playwright/test";
import sharp from "sharp";

/** A client's logo: white background, four inks, two of them near each other. */
export const LOGO = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 400 300" width="400" height="300"><rect width="400" height="300" fill="#ffffff"/><circle cx="150" cy="150" r="110" fill="#d8412f"/><path d="M60 60L340 120L200 280Z" fill="#14304f"/><rect x="250" y="30" width="110" height="70" fill="#f2b134"/><circle cx="120" cy="110" r="22" fill="#e2604d"/></svg>`;

export function drawPng(svg: string): Promise<Buffer> {
  return sharp(Buffer.from(svg)).png().toBuffer();
}

export interface PictureFile {
  readonly name: string;
  readonly bytes: Buffer;
}

/** Files as the browser hands them over, from a drop or the clipboard. */
function handOver(page: Page, files: readonly PictureFile[]) {
  return page.evaluateHandle(
    (all) => {
      const data = new DataTransfer();
      for (const { name, base64 } of all) {
        const array = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
        data.items.add(new File([array], name, { type: "image/png" }));
      }
      return data;
    },
    files.map(({ name, bytes }) => ({ name, base64: bytes.toString("base64") })),
  );
}

/** Lets files fall on the page, as from the desktop. */
export async function dropFiles(page: Page, ...files: PictureFile[]): Promise<void> {
  const dataTransfer = await handOver(page, files);
  const target = page.getByRole("main");
  await target.dispatchEvent("dragenter", { dataTransfer });
  await target.dispatchEvent("drop", { dataTransfer });
}

/** Pastes a picture, as from a screen grab. */
export async function pasteFile(page: Page, file: PictureFile): Promise<void> {
  const clipboardData = await handOver(page, [file]);
  await page.evaluate(
    (data) => document.body.dispatchEvent(new ClipboardEvent("paste", { clipboardData: data, bubbles: true })),
    clipboardData,
  );
}

/** From the board: a new job of the picture, at its first step. */
export async function newJob(page: Page, name = "tern logo.png", svg = LOGO): Promise<void> {
  await page.goto("/");
  await dropFiles(page, { name, bytes: await drawPng(svg) });
  await page.waitForURL(/\/jobs\/[0-9a-f-]+\/artwork/);
  await settled(page);
}

export async function goTo(page: Page, step: string): Promise<void> {
  await page
    .getByRole("navigation", { name: "Steps" })
    .getByRole("link", { name: new RegExp(step) })
    .click();
  await expect(page.getByRole("heading", { name: step, exact: true })).toBeVisible();
  await settled(page);
}

/** Everything shown is of the current recipe, and that is saved. */
export async function settled(page: Page): Promise<void> {
  await page.waitForTimeout(60);
  await expect(page.getByTestId("busy")).toHaveCount(0);
  await expect(page.getByTestId("save-state")).toHaveText(/^Saved/);
}

export async function setField(page: Page, label: string, text: string): Promise<void> {
  const field = page.getByLabel(label, { exact: true });
  await field.fill(text);
  await field.press("Enter");
  await settled(page);
}
