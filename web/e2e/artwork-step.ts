// What the tests of the artwork step share.
import type { Job } from "@plain-palette/contract";
import type { Page } from "@playwright/test";
import { newJob, settled } from "./shop.ts";
import { Table } from "./table.ts";

/** Colours of the logo (shop.ts), and the garment it lies on in these tests. */
export const RED = [216, 65, 47] as const;
export const NAVY = [20, 48, 79] as const;
export const WHITE = [255, 255, 255] as const;
export const GARMENT = [31, 122, 140] as const;

export async function openSection(page: Page, name: string): Promise<void> {
  await page.getByRole("tab", { name }).click();
}

/** A new job of the logo (400 x 300) on a teal garment, so that what is clear shows. */
export async function logoOnTeal(page: Page): Promise<Table> {
  await newJob(page);
  await page.getByLabel("Garment colour").fill("#1f7a8c");
  await settled(page);
  return new Table(page, 400, 300);
}

export const done = (page: Page) => page.getByRole("region", { name: "Done to the artwork" }).getByRole("listitem");

export async function jobOf(page: Page): Promise<Job> {
  const id = /jobs\/([0-9a-f-]+)/.exec(page.url())?.[1];
  return (await page.request.get(`/api/jobs/${id}`)).json();
}
