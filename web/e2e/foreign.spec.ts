// Pages of others, open in the same browser: under another name that leads here, on another port of this machine, in a frame.
// Whatever they try, nothing in the shop changes and nothing is read.
import { createServer } from "node:http";
import type { AddressInfo } from "node:net";
import { chromium, expect, test } from "@playwright/test";
import { CHROMIUM } from "../../tools/browser.ts";
import { drawPng, LOGO } from "./shop.ts";

/** All that a page can send without being asked back, and what it would like to. Returns what it could read. */
const ATTEMPTS = `async (shop) => {
  const read = [];
  const ask = async (path, init) => {
    try {
      const answer = await fetch(shop + path, init);
      const text = await answer.text();
      if (answer.type !== "opaque" && answer.ok) read.push(path + " " + text.slice(0, 80));
    } catch {}
  };
  const stock = JSON.stringify({ kind: "ink", code: "F-9", name: "Foreign", colour: { space: "srgb", hex: "#123456" }, detail: "", film: null, stones: null });
  const picture = Uint8Array.from(atob(window.picture), (c) => c.charCodeAt(0));
  const own = { "Plain-Palette-Window": "x" };
  const json = { "Content-Type": "application/json" };
  for (const mode of ["no-cors", "cors"]) {
    await ask("/api/jobs?name=foreign.png", { method: "POST", mode, body: picture });
    await ask("/api/jobs?name=foreign.png", { method: "POST", mode, body: new Blob([picture], { type: "text/plain" }) });
    await ask("/api/shelf", { method: "POST", mode, body: stock });
    await ask("/api/shelf", { method: "POST", mode, body: new Blob([stock], { type: "text/plain" }) });
    await ask("/api/shelf/file?kind=ink", { method: "POST", mode, body: "kind,code,name,hex,detail\\\\nink,F-9,Foreign,#123456," });
    await ask("/api/settings", { method: "PATCH", mode, body: '{"shopName":"Foreign"}' });
    await ask("/api/board", { mode });
    await ask("/api/shelf", { mode });
  }
  await ask("/api/shelf", { method: "POST", body: stock, headers: { ...own, ...json } });
  await ask("/api/settings", { method: "PATCH", body: '{"shopName":"Foreign"}', headers: { ...own, ...json } });
  navigator.sendBeacon(shop + "/api/shelf", new Blob([stock], { type: "text/plain" }));
  for (const enctype of ["text/plain", "multipart/form-data", "application/x-www-form-urlencoded"]) {
    const frame = document.createElement("iframe");
    frame.name = "f" + enctype.length;
    document.body.append(frame);
    const form = document.createElement("form");
    Object.assign(form, { action: shop + "/api/shelf", method: "post", enctype, target: frame.name });
    const field = document.createElement("input");
    field.name = stock.slice(0, -1) + ',"x":"';
    field.value = '"}';
    form.append(field);
    document.body.append(form);
    form.submit();
    await new Promise((done) => { frame.onload = done; setTimeout(done, 1500); });
  }
  return read;
}`;

test("pages of other names and ports change nothing and read nothing, our own page still does", async ({ baseURL }) => {
  const shop = baseURL ?? "";
  const { port } = new URL(shop);
  const png = (await drawPng(LOGO)).toString("base64");
  const page = `<!doctype html><title>Tides</title><script>window.picture = "${png}"</script>`;
  const tides = createServer((_request, response) => response.setHeader("Content-Type", "text/html").end(page));
  await new Promise<void>((resolve) => tides.listen(0, "127.0.0.1", resolve));
  const other = (tides.address() as AddressInfo).port;
  const browser = await chromium.launch({
    ...CHROMIUM,
    args: [...(CHROMIUM.args ?? []), "--host-resolver-rules=MAP tides.example.org 127.0.0.1"],
  });
  const state = async () => {
    const read = async (path: string) => (await fetch(`${shop}/api${path}`)).json();
    const { jobs }: { jobs: { id: string }[] } = await read("/board?most=500");
    return { jobs: jobs.map(({ id }) => id), shelf: await read("/shelf"), settings: await read("/settings") };
  };
  try {
    const before = await state();
    const window = await browser.newPage();
    for (const address of [
      `http://127.0.0.1:${other}/`,
      `http://localhost:${other}/`,
      `http://tides.example.org:${other}/`,
    ]) {
      await window.goto(address);
      expect(await window.evaluate(`(${ATTEMPTS})(${JSON.stringify(shop)})`), address).toEqual([]);
    }
    // A name of theirs that leads to the shop itself: there is nothing there, so no page of ours acts under it.
    const answer = await window.goto(`http://tides.example.org:${port}/`);
    expect(answer?.status()).toBe(421);
    expect(await window.evaluate(`(${ATTEMPTS.replace("window.picture", `"${png}"`)})("")`)).toEqual([]);
    expect(await state()).toEqual(before);

    await window.goto(`${shop}/settings`);
    await window.getByLabel("A screen", { exact: true }).fill("17");
    await window.getByLabel("A screen", { exact: true }).press("Enter");
    await expect.poll(async () => (await state()).settings.perScreen).toBe(17);
  } finally {
    await browser.close();
    tides.close();
  }
});
