import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import * as fontkit from "fontkit";
import { describe, expect, it } from "vitest";
import { boundsOfAll, type CubicPath, pathArea } from "../geometry/index.ts";
import { FontError, fontContainer, openTypeface, readFontFacts, shapeText, unpackWoff } from "./index.ts";

/** One file of a typeface (npm @fontsource, SIL Open Font License). */
function readWoff(name: string): Uint8Array {
  const [family] = name.split(/-(?:latin|hebrew|arabic)/);
  return readFileSync(createRequire(import.meta.url).resolve(`@fontsource/${family}/files/${name}.woff`));
}
const MOST_BYTES = 2 ** 24;
const openFace = (...names: readonly string[]) =>
  openTypeface(
    names[0],
    names.map((name) => unpackWoff(readWoff(name), MOST_BYTES)),
  );

const LATIN = [
  ...["public-sans-latin-700-normal", "archivo-black-latin-400-normal", "oswald-latin-500-normal"],
  ...["anton-latin-400-normal", "krona-one-latin-400-normal", "nunito-latin-800-normal", "montserrat-latin-600-normal"],
  ...["zilla-slab-latin-600-normal", "eb-garamond-latin-600-normal", "playfair-display-latin-700-normal"],
  ...["stardos-stencil-latin-700-normal", "graduate-latin-400-normal", "rye-latin-400-normal"],
  ...["great-vibes-latin-400-normal", "lobster-latin-400-normal", "pacifico-latin-400-normal"],
  ...["unifrakturmaguntia-latin-400-normal", "courier-prime-latin-700-normal"],
];
const LATIN_WORDS = [
  ...["Harbour Bakery", "AVATAR To. We Ty", "Wärme für Öfen", "Crème brûlée", "officially fluffy", "fjord, first, Tf"],
  ...["1947 & 2026", "(Quay 5)", "ÅNGSTRÖM", "Kebab-Yacht!", "Ça va, Æsir?", "LAVA, P.A. Ye"],
];
/** Right to left: joined letters, letters with marks. */
const OTHERS = [
  [
    "amiri-arabic-700-normal",
    ["مخبز الميناء", "سلام", "الله", "بَيْت", "لا إله", "كتاب", "خبز", "قهوة", "شاي", "ملح", "سفينة", "ميناء"],
  ],
  [
    "rubik-hebrew-500-normal",
    ["מאפיית הנמל", "שלום", "לחם", "קפה", "תה", "מלח", "שָׁלוֹם", "בַּיִת", "ספינה", "נמל", "חלה", "עוגה"],
  ],
] as const;

describe("text in a typeface", () => {
  // Against fontkit (npm), a shaping and outline engine of its own.
  const all = [...LATIN.map((name) => [name, LATIN_WORDS] as const), ...OTHERS];
  it.each(all)("%s comes out as another font engine sets it: glyphs, places, outlines", async (name, words) => {
    const face = await openFace(name);
    const other = fontkit.create(Buffer.from(readWoff(name)));
    if (!("layout" in other)) throw new Error("a collection");
    const em = other.unitsPerEm;
    const seen = new Set<number>();
    for (const word of words) {
      const { letters, width } = shapeText(word, face);
      const ours = letters.flatMap(({ x, glyphs }) => glyphs.map((glyph) => ({ ...glyph, x: x + glyph.x })));
      const { glyphs, positions } = other.layout(word);
      let pen = 0;
      const theirs = positions.map(({ xAdvance, xOffset, yOffset }, k) => {
        pen += xAdvance;
        return { id: glyphs[k].id, x: (pen - xAdvance + xOffset) / em, y: -yOffset / em, path: glyphs[k].path };
      });
      // Several marks on one letter come in either order.
      const inPlace = <T extends { id: number; x: number }>(all: T[]) => all.sort((a, b) => a.id - b.id || a.x - b.x);
      expect([word, inPlace(ours).map(({ id }) => id)]).toEqual([word, inPlace(theirs).map(({ id }) => id)]);
      for (const [k, { x, y, path }] of theirs.entries()) {
        expect(Math.abs(ours[k].x - x)).toBeLessThan(0.001);
        expect(Math.abs(ours[k].y - y)).toBeLessThan(0.001);
        if (!seen.has(ours[k].id)) expectSameOutline(face.outline(0, ours[k].id), path, em);
        seen.add(ours[k].id);
      }
      expect(Math.abs(width - pen / em)).toBeLessThan(0.001);
    }
  });
  it("goes from file to file of its typeface, and in the directions of its scripts", async () => {
    const face = await openFace("amiri-latin-700-normal", "amiri-latin-ext-700-normal", "amiri-arabic-700-normal");
    const { letters, missing } = shapeText("Łódź سلام 27 א", face);
    expect(missing).toEqual(["א"]);
    // As it is seen from left to right (UAX 9): what is read first of the Arabic and Hebrew stands at their right.
    expect(letters.map(({ text }) => text).join("")).toBe("Łódź  27 مالس");
    const files = new Set(letters.flatMap(({ glyphs }) => glyphs.map(({ file }) => file)));
    expect([...files].sort()).toEqual([0, 1, 2]);
    letters.reduce((x, letter) => {
      expect(letter.x).toBeCloseTo(x, 9);
      return x + letter.advance;
    }, 0);
  });
  it("has a ligature for one letter, unless letters are spaced", async () => {
    const face = await openFace("eb-garamond-latin-600-normal");
    const joined = shapeText("officer", face).letters;
    expect(joined.map(({ text }) => text)).toContain("ffi");
    const apart = shapeText("officer", face, false).letters;
    expect(apart.map(({ text }) => text)).toEqual([..."officer"]);
  });
  it("measures its capitals", async () => {
    // Cap heights as the files state them in OS/2: 810 of 1000, 1409 of 2048 and so on differ from family to family.
    for (const name of ["oswald-latin-500-normal", "montserrat-latin-600-normal"]) {
      const face = await openFace(name);
      const other = fontkit.create(Buffer.from(readWoff(name)));
      if (!("layout" in other)) throw new Error("a collection");
      expect(face.capHeight).toBeCloseTo(other.capHeight / other.unitsPerEm, 2);
    }
  });
});

/** Outlines alike within a thousandth of an em: as many, each with its area and box. */
function expectSameOutline(ours: readonly CubicPath[], other: fontkit.Path, em: number): void {
  const theirs = contoursOf(other, em);
  expect(ours.length).toBe(theirs.length);
  ours.forEach((path, k) => {
    expect(Math.abs(pathArea(path) - pathArea(theirs[k]))).toBeLessThan(0.001);
    const [a, b] = [boundsOfAll([path]), boundsOfAll([theirs[k]])];
    for (const side of ["left", "top", "right", "bottom"] as const)
      expect(Math.abs(a[side] - b[side])).toBeLessThan(0.001);
  });
}

/** As cubics, y down, em. */
function contoursOf({ commands }: fontkit.Path, em: number): CubicPath[] {
  const contours: number[][] = [];
  for (const { command, args } of commands) {
    const p = args.map((v, i) => (i % 2 === 0 ? v : -v) / em);
    const line = contours.at(-1) ?? [];
    const [x, y] = line.slice(-2);
    if (command === "moveTo") contours.push([p[0], p[1]]);
    else if (command === "lineTo") line.push(x, y, p[0], p[1], p[0], p[1]);
    else if (command === "bezierCurveTo") line.push(...p);
    else if (command === "quadraticCurveTo")
      line.push(
        x + ((p[0] - x) * 2) / 3,
        y + ((p[1] - y) * 2) / 3,
        p[2] + ((p[0] - p[2]) * 2) / 3,
        p[3] + ((p[1] - p[3]) * 2) / 3,
        p[2],
        p[3],
      );
    else if (command === "closePath" && (x !== line[0] || y !== line[1]))
      line.push(x, y, line[0], line[1], line[0], line[1]);
  }
  return contours.filter((line) => line.length > 8).map((line) => Float64Array.from(line));
}

describe("a font file", () => {
  it("is known by its first bytes", () => {
    const woff = readWoff("oswald-latin-500-normal");
    expect(fontContainer(woff)).toBe("woff");
    expect(fontContainer(unpackWoff(woff, MOST_BYTES))).toBe("sfnt");
    expect(fontContainer(new TextEncoder().encode("OTTO....."))).toBe("sfnt");
    expect(fontContainer(new TextEncoder().encode("%PDF-1.7"))).toBeNull();
  });
  it("says what it is called and what may be done with it", async () => {
    const facts = await readFontFacts(unpackWoff(readWoff("oswald-latin-500-normal"), MOST_BYTES));
    expect(facts).toMatchObject({ family: "Oswald Medium", fsType: 0, scripts: ["Latin", "Latin with accents"] });
    expect(facts.characters).toBeGreaterThan(200);
  });
  it("that is cut off, or too large unpacked, is refused with the reason", async () => {
    const woff = readWoff("oswald-latin-500-normal");
    expect(() => unpackWoff(woff.subarray(0, 30), MOST_BYTES)).toThrow("cut off");
    expect(() => unpackWoff(woff.subarray(0, woff.length / 2), MOST_BYTES)).toThrow("cut off");
    expect(() => unpackWoff(woff, 10_000)).toThrow("larger than");
    await expect(readFontFacts(new Uint8Array(5000))).rejects.toBeInstanceOf(FontError);
  });
});
