import { readFileSync } from "node:fs";
import { chromium } from "@playwright/test";

const url = readFileSync("/tmp/start.log", "utf8")
  .match(/http:\/\/[0-9.:a-z]+/g)!
  .at(-1)!;
const b = await chromium.launch({
  executablePath: "/usr/bin/chromium",
  args: "--headless --no-sandbox --disable-gpu --disable-quic --no-first-run --disable-background-networking --disable-component-update --disable-sync".split(
    " ",
  ),
});
const page = await b.newPage({ viewport: { width: 1280, height: 800 } });
page.on("console", (m) => {
  if (m.type() === "error") console.log("console:", m.text());
});
page.on("pageerror", (e) => console.log("pageerror:", e.message));
const jobs = await (await page.request.get(url + "/api/jobs")).json();
export const ready = async () => {
  await page.waitForTimeout(250);
  await page.getByTestId("busy").waitFor({ state: "detached", timeout: 60000 });
};
export const open = async (title: string, step = "artwork") => {
  const j = jobs.find((x: any) => x.title.includes(title) || x.client.includes(title));
  await page.goto(`${url}/jobs/${j.id}/${step}`);
  await page.getByText(/^Saved/).waitFor();
  await ready();
  return j;
};
export const shoot = (n: string) => page.screenshot({ path: `/tmp/shots/${n}.png` });
export { b, jobs, page, url };
