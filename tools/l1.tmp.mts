import { b, open, page, ready, shoot } from "./look.tmp.mts";

await open("Kite");
await shoot("k1");
await page.getByRole("tab", { name: "Upright" }).click();
await page.getByRole("button", { name: "Look for the sheet" }).click();
await page.getByRole("button", { name: "Straighten and crop" }).waitFor();
await shoot("k2");
await b.close();
