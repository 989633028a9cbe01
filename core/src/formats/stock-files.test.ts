import { execFileSync } from "node:child_process";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type KeptStones, STOCK_KINDS, type Stock } from "../shelf/index.ts";
import { STONE_SIZES } from "../trade/index.ts";
import { readCxf3, readStockCsv, writeCxf3, writeStockCsv } from "./index.ts";

const SHELF: Stock[] = [
  {
    kind: "ink",
    code: "Q-104",
    name: "Harbour blue",
    colour: { space: "srgb", hex: "#14304f" },
    detail: "mesh 156",
    film: null,
    stones: null,
  },
  {
    kind: "thread",
    code: "T7",
    name: 'Kite "signal" red',
    colour: { space: "lab", l: 48.2, a: 61.5, b: 40 },
    detail: "",
    film: null,
    stones: null,
  },
  {
    kind: "stone",
    code: "=1+1",
    name: "Tern, clear",
    colour: { space: "srgb", hex: "#e9eef0" },
    detail: "2.8 mm, foiled",
    film: null,
    stones: null,
  },
];

/** Text as shops write it, control characters aside. */
const text = (most: number) =>
  fc
    .string({ unit: "grapheme", minLength: 1, maxLength: most })
    .map((s) => s.replace(/[\p{Cc}\p{Cn}\p{Cs}\uFEFF]/gu, "").trim())
    .filter((s) => s !== "" && s.length <= most && !s.startsWith("'"));

const stock = fc.record({
  kind: fc.constantFrom(...STOCK_KINDS),
  code: text(12),
  name: text(20),
  colour: fc.oneof(
    fc.record({
      space: fc.constant("srgb" as const),
      hex: fc.integer({ min: 0, max: 0xffffff }).map((v) => `#${v.toString(16).padStart(6, "0")}`),
    }),
    fc.record({
      space: fc.constant("lab" as const),
      l: fc.integer({ min: 0, max: 1000 }).map((v) => v / 10),
      a: fc.integer({ min: -1280, max: 1270 }).map((v) => v / 10),
      b: fc.integer({ min: -1280, max: 1270 }).map((v) => v / 10),
    }),
  ),
  detail: fc.oneof(fc.constant(""), text(30)),
  film: fc.oneof(
    fc.constant(null),
    fc.record({
      rollWidthMm: fc.integer({ min: 50, max: 2000 }),
      pricePerMetre: fc.option(fc.integer({ min: 0, max: 9999 }).map((pence) => pence / 100)),
      tackS: fc.option(fc.integer({ min: 0, max: 60 })),
      finalS: fc.option(fc.integer({ min: 0, max: 60 })),
      celsius: fc.option(fc.integer({ min: 100, max: 200 })),
    }),
  ),
  stones: fc
    .record(Object.fromEntries(STONE_SIZES.map((size) => [size, fc.option(fc.integer({ min: 0, max: 99_999 }))])))
    // Where nothing is said there is nothing to say.
    .map((kept) => (Object.values(kept).some((pieces) => pieces !== null) ? (kept as KeptStones) : null)),
});

const shelves = fc.uniqueArray(stock, { minLength: 1, maxLength: 6, selector: ({ kind, code }) => `${kind} ${code}` });

describe("the shelf as CSV", () => {
  it("property: comes back as it went out", () => {
    fc.assert(
      fc.property(shelves, (shelf) => {
        expect(readStockCsv(writeStockCsv(shelf), "ink")).toEqual({ stock: shelf, problems: null });
      }),
      { numRuns: 200 },
    );
  });

  it("is read as shops write it: any order, semicolons, decimal commas, hex without #, one kind for all", () => {
    const { stock } = readStockCsv("\uFEFFName;code;L;a;b\r\nGull grey;G1;52,5;-1,25;-3\r\n\r\n", "transfer-film");
    expect(stock).toEqual([
      {
        kind: "transfer-film",
        code: "G1",
        name: "Gull grey",
        colour: { space: "lab", l: 52.5, a: -1.25, b: -3 },
        detail: "",
        film: null,
        stones: null,
      },
    ]);
    expect(readStockCsv("code,name,hex\n1,Sand,E8D8B0\n", "ink").stock?.[0].colour).toEqual({
      space: "srgb",
      hex: "#e8d8b0",
    });
  });

  it("names every bad line, and takes nothing over from such a file", () => {
    const { stock, problems } = readStockCsv(
      'kind,code,name,hex,L,a,b,note\nink,1,Good,#112233,,,,"two\nlines"\nink,2,,#112233\npaint,3,Odd,#112233\nink,4,Pale,#12345\nink,5,Far,,140,0,0\nink,1,Twice,#445566\n',
      "ink",
    );
    expect(stock).toBeNull();
    expect(problems?.map(({ line }) => line)).toEqual([4, 5, 6, 7, 8]);
    expect(problems?.[0].message).toMatch(/name/);
    expect(problems?.[1].message).toMatch(/kind/);
    expect(problems?.[4].message).toMatch(/ink 1 is on line 2 already/);
    expect(problems?.[2].message).toMatch(/hex.*not a colour/);
    expect(readStockCsv("colour,who\nred,me\n", "ink").problems?.[0]).toMatchObject({ line: 1 });
    expect(readStockCsv("", "ink").problems).toHaveLength(1);
  });

  it("never hands a spreadsheet a formula", () => {
    expect(writeStockCsv(SHELF)).toContain("'=1+1");
  });
});

describe("the shelf as CxF3 (ISO 17972-1, from memory)", () => {
  it("property: comes back as it went out", () => {
    fc.assert(
      fc.property(shelves, (shelf) => {
        expect(readCxf3(writeCxf3(shelf, "2026-01-02T03:04:05Z"), "ink")).toEqual({ stock: shelf, problems: null });
      }),
      { numRuns: 200 },
    );
  });

  it("is well-formed (asked of libxml2's xmllint)", () => {
    const xml = writeCxf3(SHELF, "2026-01-02T03:04:05Z");
    expect(execFileSync("xmllint", ["--noout", "--nonet", "-"], { input: xml }).toString()).toBe("");
  });

  it("takes what was measured where sRGB is given, too, in either order", () => {
    const file = (values: string) =>
      `<cc:CxF xmlns:cc="http://colorexchangeformat.com/CxF3-core"><cc:Resources><cc:ObjectCollection><cc:Object ObjectType="Standard" Name="Kelp" Id="k1"><cc:ColorValues>${values}</cc:ColorValues></cc:Object></cc:ObjectCollection></cc:Resources></cc:CxF>`;
    const lab = "<cc:ColorCIELab><cc:L>40</cc:L><cc:A>-20</cc:A><cc:B>12</cc:B></cc:ColorCIELab>";
    const srgb = "<cc:ColorSRGB><cc:R>1</cc:R><cc:G>2</cc:G><cc:B>3</cc:B></cc:ColorSRGB>";
    const kelp = {
      kind: "transfer-film",
      code: "k1",
      name: "Kelp",
      colour: { space: "lab", l: 40, a: -20, b: 12 },
      detail: "",
      film: null,
      stones: null,
    };
    expect(readCxf3(file(lab + srgb), "transfer-film").stock).toEqual([kelp]);
    expect(readCxf3(file(srgb + lab), "transfer-film").stock).toEqual([kelp]);
  });

  it("names the line of every bad object, and refuses what is no CxF3 or tries to reach outside", () => {
    const bad = writeCxf3(SHELF, "2026-01-02T03:04:05Z").replace("<cc:L>48.2</cc:L>", "<cc:L>480</cc:L>");
    const { stock, problems } = readCxf3(bad, "ink");
    expect(stock).toBeNull();
    const line = bad.split("\n").findIndex((text) => text.includes("signal")) + 1;
    expect(problems).toHaveLength(1);
    expect(problems?.[0].line).toBe(line);
    expect(readCxf3("<a/>", "ink").problems?.[0].message).toMatch(/not a CxF3/);
    expect(readCxf3(bad.slice(0, 900), "ink").problems).not.toBeNull();
    const outside = `<!DOCTYPE x [<!ENTITY e SYSTEM "file:///etc/passwd">]>${bad.replace("Harbour blue", "&e;")}`;
    expect(JSON.stringify(readCxf3(outside, "ink"))).not.toContain("root:");
  });
});
