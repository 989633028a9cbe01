import { createHash } from "node:crypto";
import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import {
  type ListedTypeface,
  listedTypefaceSchema,
  problemSchema,
  runSchema,
  typefaceListSchema,
} from "@plain-palette/contract";
import { makeRecipe } from "@plain-palette/core/recipe";
import { fontContainer, readFontFacts } from "@plain-palette/core/typeface";
import * as fontkit from "fontkit";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type Bench, createJob, drawPicture, readReport, send, startBench, untilRun } from "./bench.test.support.ts";
import { mutate } from "./mutate.test.support.ts";

let bench: Bench;
beforeAll(async () => {
  bench = await startBench();
});
afterAll(() => bench.stop());

const require = createRequire(import.meta.url);
const TTF = readFileSync(require.resolve("dejavu-fonts-ttf/ttf/DejaVuSans-Oblique.ttf"));
// A family that is shipped, in a style that is not.
const ITALIC = "@fontsource/public-sans/files/public-sans-latin-300-italic";
const WOFF = readFileSync(require.resolve(`${ITALIC}.woff`));
const WOFF2 = readFileSync(require.resolve(`${ITALIC}.woff2`));

const list = async (): Promise<ListedTypeface[]> =>
  typefaceListSchema.parse((await send(bench.url(), "GET", "/typefaces")).body);
const add = (bytes: Buffer, name: string) => send(bench.url(), "POST", `/typefaces?name=${name}&kind=hand`, bytes);
async function fileOf({ id }: ListedTypeface, number = 0): Promise<Buffer> {
  return Buffer.from(await (await fetch(`${bench.url()}/api/typefaces/${id}/files/${number}`)).arrayBuffer());
}

describe("typefaces that are shipped", () => {
  it("are at least 36 families under free licences, of every kind, and their files say what they are", async () => {
    const shipped = await list();
    expect(new Set(shipped.map(({ family }) => family)).size).toBeGreaterThanOrEqual(36);
    expect(new Set(shipped.map(({ kind }) => kind)).size).toBe(18);
    for (const one of shipped) {
      expect(one.origin).toMatchObject({ kind: "shipped", licence: expect.stringMatching(/SIL Open Font|Vera/) });
      const first = await fileOf(one);
      expect(fontContainer(first)).toBe("sfnt");
      const { family, scripts } = await readFontFacts(first);
      // Files call a weight a family: "Oswald SemiBold".
      expect(family.toLowerCase()).toContain(one.family.toLowerCase().split(" ")[0]);
      for (const script of scripts)
        if (one.files > 1 && script.startsWith("Latin")) expect(one.scripts).toContain(script);
      expect((await fetch(`${bench.url()}/api/typefaces/${one.id}/files/${one.files}`)).status).toBe(404);
    }
  });
});

describe("the shop's own typefaces", () => {
  it.each([
    ["slanted.ttf", TTF],
    ["light.woff", WOFF],
    ["light.woff2", WOFF2],
  ])("%s is taken in, listed and given out as another font engine reads it", async (name, bytes) => {
    const { status, body } = await add(bytes, name);
    expect(status).toBe(201);
    const added = listedTypefaceSchema.parse(body);
    const other = fontkit.create(bytes);
    if (!("layout" in other)) throw new Error("a collection");
    expect(added).toMatchObject({ kind: "hand", files: 1, id: createHash("sha256").update(bytes).digest("hex") });
    expect(other.fullName).toContain(added.family.split(" ")[0]);
    expect(added.origin).toMatchObject({ kind: "shop", fileName: name, fsType: 0 });
    expect((await list()).map(({ id }) => id)).toContain(added.id);
    const out = fontkit.create(await fileOf(added));
    if (!("layout" in out)) throw new Error("a collection");
    const word = "Harbour fi";
    expect(out.layout(word).positions.map(({ xAdvance }) => xAdvance)).toEqual(
      other.layout(word).positions.map(({ xAdvance }) => xAdvance),
    );
  });
  it("may be of another kind, and put away without being lost to jobs that are set in it", async () => {
    const own = (await list()).find(({ origin }) => origin.kind === "shop");
    if (!own) throw new Error("none there");
    expect((await send(bench.url(), "PATCH", `/typefaces/${own.id}`, { kind: "slab" })).body).toMatchObject({
      kind: "slab",
    });
    expect((await send(bench.url(), "PATCH", "/typefaces/oswald-400", { kind: "slab" })).status).toBe(404);
    expect((await send(bench.url(), "DELETE", `/typefaces/${own.id}`)).status).toBe(204);
    expect((await list()).map(({ id }) => id)).not.toContain(own.id);
    expect((await fileOf(own)).length).toBeGreaterThan(1000);
  });
  it("say what the file forbids (OpenType OS/2, fsType: bit 1 is restricted licence embedding)", async () => {
    const restricted = Buffer.from(TTF);
    const tables = restricted.readUInt16BE(4);
    for (let k = 0; k < tables; k++)
      if (restricted.toString("latin1", 12 + k * 16, 16 + k * 16) === "OS/2")
        restricted.writeUInt16BE(2, restricted.readUInt32BE(12 + k * 16 + 8) + 8);
    const { body } = await add(restricted, "restricted.ttf");
    expect(listedTypefaceSchema.parse(body).origin).toMatchObject({ fsType: 2 });
  });
  it("are what lettering of a run is set in, in the films too", async () => {
    const { body } = await add(WOFF2, "light.woff2");
    const { id, family } = listedTypefaceSchema.parse(body);
    const job = await createJob(bench.url(), await drawPicture(3));
    const warned = async (typeface: { id: string; name: string }, basedOn: number) => {
      const recipe = makeRecipe({ shapes: { entries: [{ ...WORDS, typeface }] } });
      expect((await send(bench.url(), "POST", `/jobs/${job.id}/recipes`, { basedOn, recipe })).status).toBe(201);
      const { body: ordered } = await send(bench.url(), "POST", `/jobs/${job.id}/runs`, { recipeVersion: basedOn + 1 });
      const run = await untilRun(bench.url(), runSchema.parse(ordered).id, ["done", "failed"]);
      expect(run.state).toBe("done");
      const { warnings } = await readReport(bench.url(), run);
      return warnings.filter((text) => text.includes("by hand"));
    };
    expect(await warned({ id, name: family }, 1)).toEqual([]);
    expect(await warned({ id: "nobody-has-it", name: "Nobody" }, 2)).toHaveLength(1);
  });
});

/** Three letters in the garment's colour. */
const WORDS = {
  kind: "lettering",
  ...{ id: "w", text: "ILI", capPx: 20, spotId: null },
  baseline: { kind: "straight", at: { x: 60, y: 70 } },
} as const;

describe("a font file that cannot be used", () => {
  it.each([
    ["nothing", Buffer.alloc(0), "no font file"],
    ["a text", Buffer.from("no font at all"), "no font file"],
    ["half a font", WOFF.subarray(0, WOFF.length >> 1), "cut off"],
    ["half a WOFF2", WOFF2.subarray(0, WOFF2.length >> 1), "damaged or cut off"],
    ["a head alone", TTF.subarray(0, 300), "no letters"],
    ["a collection", Buffer.concat([Buffer.from("ttcf"), TTF]), "collection"],
  ])("is refused with the reason: %s", async (_, bytes, reason) => {
    const { status, body } = await add(bytes, "bad.ttf");
    expect(status).toBe(422);
    expect(problemSchema.parse(body)).toMatchObject({
      detail: expect.stringContaining(reason),
      kept: "Nothing was changed.",
    });
  });
  it("is refused before it is read where it has 200 MB", async () => {
    const { status, body } = await add(Buffer.alloc(200 * 2 ** 20), "huge.ttf");
    expect(status).toBe(413);
    expect(problemSchema.parse(body).title).toContain("larger than 24 MB");
  });
  it("gets its cause told, 500 times damaged, and the threads stay alive", { timeout: 300_000 }, async () => {
    const sources = [TTF.subarray(0), WOFF, WOFF2];
    const seeds = Array.from({ length: 500 }, (_, k) => k + 1);
    const outcomes = new Set<number>();
    for (let from = 0; from < seeds.length; from += 10)
      await Promise.all(
        seeds.slice(from, from + 10).map(async (seed) => {
          const { status, body } = await add(mutate(sources[seed % 3], seed), `m${seed}.ttf`);
          outcomes.add(status);
          if (status !== 201) {
            expect(status, `${seed}: ${JSON.stringify(body)}`).toBe(422);
            expect(problemSchema.parse(body).detail).toBeTruthy();
          }
        }),
      );
    expect([...outcomes].sort()).toEqual([201, 422]);
    expect((await add(TTF, "slanted.ttf")).status).toBe(201);
  });
});
