import { randomUUID } from "node:crypto";
import {
  placementListSchema,
  problemSchema,
  type ShopStock,
  shelfSchema,
  shopPlacementSchema,
  shopStockSchema,
  stockImportSchema,
} from "@plain-palette/contract";
import { writeStockCsv } from "@plain-palette/core/formats";
import { STOCK_KINDS } from "@plain-palette/core/shelf";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { DEMO_STOCK } from "../../tools/demo/stock.ts";
import { type Bench, send, startBench } from "./bench.test.support.ts";

let bench: Bench;
beforeAll(async () => {
  bench = await startBench();
});
afterAll(() => bench.stop());

const list = async (): Promise<ShopStock[]> => shelfSchema.parse((await send(bench.url(), "GET", "/shelf")).body);
const fileOf = async (format: string) => (await fetch(`${bench.url()}/api/shelf/file?format=${format}`)).text();
const takeIn = (text: string, kind = "ink") => send(bench.url(), "POST", `/shelf/file?kind=${kind}`, Buffer.from(text));

const PLUM = { kind: "ink", code: "P-1", name: "Plum", colour: { space: "srgb", hex: "#5b2a5e" }, detail: "" } as const;

describe("the shelf", () => {
  it("starts empty; the demo's shop fills it with every kind", async () => {
    expect(await list()).toEqual([]);
    const { body } = await takeIn(writeStockCsv(DEMO_STOCK));
    expect(stockImportSchema.parse(body)).toEqual({ added: DEMO_STOCK.length, changed: 0, same: 0 });
    expect(new Set((await list()).map(({ kind }) => kind))).toEqual(new Set(STOCK_KINDS));
  });

  it("takes what a file of before calls film for transfer film", async () => {
    await takeIn("kind,code,name,hex\nfilm,F-90,Sea mist,#c8d4d2\n");
    expect((await list()).find(({ code }) => code === "F-90")?.kind).toBe("transfer-film");
  });

  it("keeps how many stones of a colour there are, size by size, from a table and given out again", async () => {
    await takeIn("kind,code,name,hex,ss6,ss10\nstone,C-90,Sea glass,#c8d4d2,720,0\n");
    const kept = (await list()).find(({ code }) => code === "C-90")?.stones;
    expect(kept).toMatchObject({ SS6: 720, SS8: null, SS10: 0 });
    const refused = await takeIn("kind,code,name,hex,ss6\nstone,C-91,Sea glass,#c8d4d2,many\n");
    expect(refused.status).toBe(422);
    const text = await fileOf("csv");
    expect(text).toMatch(/stone,C-90,Sea glass,#c8d4d2,.*,720,,0,/);
  });

  it("is added to, changed and taken from; a stale change and a code that is there already are refused", async () => {
    const added = await send(bench.url(), "POST", "/shelf", PLUM);
    expect(added.status).toBe(201);
    const { id, version } = added.body as ShopStock;
    expect((await send(bench.url(), "POST", "/shelf", PLUM)).status).toBe(409);
    const darker = { ...PLUM, colour: { space: "lab", l: 20, a: 30, b: -15 }, version };
    expect((await send(bench.url(), "PUT", `/shelf/${id}`, darker)).body).toMatchObject({
      version: 2,
      colour: { l: 20 },
    });
    const stale = await send(bench.url(), "PUT", `/shelf/${id}`, { ...darker, detail: "Last tin" });
    expect(stale.status).toBe(409);
    expect(problemSchema.parse(stale.body).kept).toMatch(/Theirs is kept/);
    const taken = await send(bench.url(), "PUT", `/shelf/${id}`, { ...darker, code: "Q-001", version: 2 });
    expect(problemSchema.parse(taken.body).title).toMatch(/has ink Q-001 already/);
    expect((await send(bench.url(), "DELETE", `/shelf/${id}?version=2`)).status).toBe(200);
    expect((await list()).some((stock) => stock.id === id)).toBe(false);
  });

  it("goes out as CSV and CxF3 and comes in again as the same shelf", async () => {
    const before = await list();
    for (const format of ["csv", "cxf3"]) {
      const { body } = await takeIn(await fileOf(format));
      expect(stockImportSchema.parse(body)).toEqual({ added: 0, changed: 0, same: before.length });
    }
    expect(await list()).toEqual(before);
  });

  it("takes over a file as a whole: new stock is added, known stock changed", async () => {
    const { body } = await takeIn("code,name,hex\nQ-001,Bone,#f4f0e6\nZ-9,Zinc,#8a9196\n");
    expect(body).toEqual({ added: 1, changed: 1, same: 0 });
    const shelf = await list();
    expect(shelf.find(({ code }) => code === "Q-001")).toMatchObject({ name: "Bone", version: 2 });
  });

  it("takes over nothing of a file with a bad line, and names the line", async () => {
    const before = await list();
    const { status, body } = await takeIn("code,name,hex\nY-1,Yew,#2c4a2e\nY-2,,#123456\n");
    expect(status).toBe(422);
    expect(problemSchema.parse(body).lines).toMatchObject([{ line: 3 }]);
    expect(await list()).toEqual(before);
  });
});

describe("a file of stock that is too much", () => {
  it("is refused by its bytes or its things, with what to do; the server goes on", async () => {
    const lines = Array.from({ length: 5001 }, (_, i) => `M-${i},Many,#123456`);
    const many = await takeIn(`code,name,hex\n${lines.join("\n")}\n`);
    expect(many.status).toBe(413);
    expect(problemSchema.parse(many.body).cure).toMatch(/Split/);
    const large = await takeIn("x".repeat(5_000_000));
    expect(problemSchema.parse(large.body)).toMatchObject({ status: 413, title: "The file is larger than 4 MB" });
    expect((await takeIn("\u0000\u0001<cc:CxF")).status).toBe(422);
    expect((await list()).some(({ code }) => code.startsWith("M-"))).toBe(false);
  });
});

describe("the shop's settings", () => {
  it("are read with the trade's defaults; each is changed for itself, at once or after another", async () => {
    const read = async () => (await send(bench.url(), "GET", "/settings")).body;
    expect(await read()).toMatchObject({ sameDifference: 2, thinnestLineMm: 0.35 });
    const patch = (part: object) => send(bench.url(), "PATCH", "/settings", part);
    await Promise.all([patch({ perScreen: 25 }), patch({ sameDifference: 3 }), patch({ thinnestGapMm: 0.4 })]);
    expect(await read()).toMatchObject({ perScreen: 25, sameDifference: 3, thinnestGapMm: 0.4, nearDifference: 5 });
    expect((await patch({ perScreen: -1 })).status).toBe(400);
    expect(await read()).toMatchObject({ perScreen: 25 });
  });
});

describe("what is sent again because its answer was lost", () => {
  const TEAL = { kind: "ink", code: "R-1", name: "Teal", colour: { space: "srgb", hex: "#1f7a8c" }, detail: "" };

  it("is on the shelf once, and changed once; what somebody else did since is not undone", async () => {
    const id = randomUUID();
    const add = () => send(bench.url(), "POST", "/shelf", { ...TEAL, film: null, stones: null, id });
    expect([await add(), await add()]).toMatchObject(Array(2).fill({ status: 201, body: { id, version: 1 } }));
    const change = (detail: string, version: number) =>
      send(bench.url(), "PUT", `/shelf/${id}`, { ...TEAL, film: null, stones: null, detail, version });
    for (let i = 0; i < 2; i++)
      expect(await change("one tin", 1)).toMatchObject({ status: 200, body: { version: 2, detail: "one tin" } });
    expect((await change("two tins", 2)).status).toBe(200);
    expect((await change("one tin", 1)).status).toBe(409);
    expect((await list()).filter(({ code }) => code === "R-1")).toMatchObject([{ detail: "two tins", version: 3 }]);
  });

  it("is one placement, changed once", async () => {
    const id = randomUUID();
    const placement = { name: "Hem", widthMm: 60, areaWidthMm: 80, areaHeightMm: 40 };
    for (let i = 0; i < 2; i++)
      expect((await send(bench.url(), "POST", "/placements", { ...placement, id })).status).toBe(201);
    const change = { ...placement, name: "Hem, left", version: 1 };
    for (let i = 0; i < 2; i++)
      expect((await send(bench.url(), "PUT", `/placements/${id}`, change)).body).toMatchObject({ version: 2 });
    const all = placementListSchema.parse((await send(bench.url(), "GET", "/placements")).body);
    expect(all.filter(({ name }) => name.startsWith("Hem")).map(({ name }) => name)).toEqual(["Hem, left"]);
  });

  it("is a setting that somebody else has changed meanwhile: refused, and said what it is now", async () => {
    const patch = (perScreen: number, seen: number) =>
      send(bench.url(), "PATCH", "/settings", { perScreen, seen: { perScreen: seen } });
    await send(bench.url(), "PATCH", "/settings", { perScreen: 20 });
    for (let i = 0; i < 2; i++) expect((await patch(21, 20)).status).toBe(200);
    expect((await patch(30, 21)).status).toBe(200);
    const late = await patch(22, 21);
    expect([late.status, problemSchema.parse(late.body).detail]).toEqual([409, "It is 30 now."]);
  });
});

describe("what is taken off the shelf", () => {
  const add = async (code: string): Promise<ShopStock> =>
    shopStockSchema.parse((await send(bench.url(), "POST", "/shelf", { ...INK, code, name: `Ink ${code}` })).body);
  const INK = { kind: "ink", colour: { space: "srgb", hex: "#305070" }, detail: "", film: null, stones: null };
  const listed = async (path: string) =>
    shelfSchema.parse((await send(bench.url(), "GET", path)).body).map(({ id }) => id);

  it("is put back as it was, and not taken by somebody who has not seen its last change", async () => {
    const stock = await add("OFF-1");
    const { id, ...facts } = stock;
    const changed = await send(bench.url(), "PUT", `/shelf/${id}`, { ...facts, detail: "Two tins left" });
    expect(changed.status).toBe(200);
    const refused = await send(bench.url(), "DELETE", `/shelf/${id}?version=1`);
    expect(refused.status).toBe(409);
    expect(problemSchema.parse(refused.body).title).toContain("Ink OFF-1");
    expect(await listed("/shelf")).toContain(id);
    expect((await send(bench.url(), "DELETE", `/shelf/${id}`)).status).toBe(400);
    const off = shopStockSchema.parse((await send(bench.url(), "DELETE", `/shelf/${id}?version=2`)).body);
    expect([await listed("/shelf"), await listed("/shelf/put-away")]).toEqual([
      expect.not.arrayContaining([id]),
      expect.arrayContaining([id]),
    ]);
    const back = await send(bench.url(), "POST", `/shelf/${id}/return?version=${off.version}`);
    expect(back.body).toEqual({ ...stock, detail: "Two tins left", version: 4 });
    expect(await listed("/shelf")).toContain(id);
  });

  it("gives its code to a new one", async () => {
    const { id, version } = await add("OFF-2");
    await send(bench.url(), "DELETE", `/shelf/${id}?version=${version}`);
    const again = await add("OFF-2");
    expect(again.id).not.toBe(id);
    expect(await listed("/shelf/put-away")).not.toContain(id);
  });

  it("placements likewise", async () => {
    const placement = { name: "Hem", widthMm: 80, areaWidthMm: 90, areaHeightMm: 60 };
    const made = shopPlacementSchema.parse((await send(bench.url(), "POST", "/placements", placement)).body);
    expect((await send(bench.url(), "DELETE", `/placements/${made.id}?version=9`)).status).toBe(409);
    expect((await send(bench.url(), "DELETE", `/placements/${made.id}?version=1`)).status).toBe(200);
    const names = async (path: string) =>
      placementListSchema.parse((await send(bench.url(), "GET", path)).body).map(({ name }) => name);
    expect([await names("/placements"), await names("/placements/put-away")]).toEqual([
      expect.not.arrayContaining(["Hem"]),
      ["Hem"],
    ]);
    await send(bench.url(), "POST", `/placements/${made.id}/return?version=2`);
    expect(await names("/placements")).toContain("Hem");
  });
});
