import { b, open, page, ready, shoot } from "./look.tmp.mts";

page.on("console", (m) => console.log(m.type(), m.text().slice(0, 600)));
await open("Kite");
await page.getByRole("tab", { name: "Upright" }).click();
await page.getByRole("button", { name: "Look for the sheet" }).click();
await page.getByRole("button", { name: "Straighten and crop" }).click();
await ready();
await shoot("k3");
await page.getByRole("tab", { name: "Background" }).click();
await page.waitForTimeout(1200);
await shoot("k4");
await b.close();
