// A job that is opened again is not found, traced and separated again: what was computed outlives the page.
import { expect, type Page, test } from "@playwright/test";
import { goTo, newJob } from "./shop.ts";

/** Runs in the page: `change` is done to all that is kept, `entries` and `readings`, as soon as there is any. */
const changeKept = (page: Page, change: string) =>
  page.evaluate(`new Promise((resolve, reject) => {
    const opening = indexedDB.open("plain-palette readings");
    opening.onerror = reject;
    opening.onsuccess = () => {
      const database = opening.result;
      const look = () => {
        const transaction = database.transaction(["readings", "entries"], "readwrite");
        const readings = transaction.objectStore("readings");
        const entries = transaction.objectStore("entries");
        entries.getAll().onsuccess = ({ target: { result: all } }) => {
          for (const entry of all)
            readings.get(entry.artwork).onsuccess = ({ target: { result: kept } }) => {
              ${change};
              entries.put(entry);
              readings.put(kept, entry.artwork);
            };
          transaction.oncomplete = () => {
            if (all.length === 0) return setTimeout(look, 200);
            database.close();
            resolve();
          };
        };
      };
      look();
    };
  })`);

test("what was computed while the hand rested is found after a reload, and made anew by another code", async ({
  page,
}) => {
  await newJob(page);
  // Nobody has looked at colours yet. The name can only come from there. A page that is left writes no more.
  const job = page.url();
  await changeKept(page, "");
  await page.goto("/");
  await changeKept(page, 'kept.steps.reduce.result.spots[0].name = "Kept before"');
  await page.goto(job);
  await goTo(page, "Colours");
  const keptBefore = page.getByLabel("Name of Kept before");
  await expect(keptBefore).toHaveCount(1);
  await page.goto("/");
  await changeKept(page, 'entry.code = "older"');
  await page.goto(job);
  await goTo(page, "Colours");
  await expect(page.getByLabel(/^Name of /).first()).toBeVisible();
  await expect(keptBefore).toHaveCount(0);
});
