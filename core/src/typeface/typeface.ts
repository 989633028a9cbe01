// A typeface: one style of a family, opened by HarfBuzz, which shapes its text and gives its outlines.
import type { CubicPath } from "../geometry/index.ts";
import { type PairKerning, readPairKerning } from "./pair-kerning.ts";
import { FontError } from "./woff.ts";

/** A glyph where shaping puts it; em, y down. */
export interface PlacedGlyph {
  readonly file: number;
  readonly id: number;
  readonly x: number;
  readonly y: number;
}

/** Glyphs of one cluster: a letter, one with its accents, or a ligature of several. */
export interface ShapedCluster {
  /** Where in the text it begins. */
  readonly at: number;
  /** From where the cluster begins. */
  readonly glyphs: readonly PlacedGlyph[];
  readonly advance: number;
}

/** Part of a text that is shaped at once. */
export interface TextRun {
  readonly from: number;
  readonly to: number;
  readonly isRightToLeft: boolean;
  /** Of the files a typeface may be spread over, the one that carries it. */
  readonly file: number;
}

/** Lengths are shares of the em. */
export interface Typeface {
  readonly id: string;
  /** Height of a capital H over the baseline. */
  readonly capHeight: number;
  /** Which of its files carries all of a piece of text; -1: none. `preferred` is asked first. */
  fileFor(text: string, preferred: number): number;
  /** Clusters from left to right. Ligatures that are not needed to read it are left out if letters are spaced. */
  shape(text: string, run: TextRun, hasLigatures: boolean): ShapedCluster[];
  /** Outlines of a glyph, y down; where they overlap, what any of them winds round is the glyph. */
  outline(file: number, glyph: number): readonly CubicPath[];
}

/** Where typefaces are taken from while a recipe is computed. */
export interface Typefaces {
  get(id: string): Typeface | null;
}

export const NO_TYPEFACES: Typefaces = { get: () => null };

/** What a font file says of itself. */
export interface FontFacts {
  readonly family: string;
  readonly style: string;
  /** Embedding permissions (OpenType OS/2, fsType); null where it says nothing. */
  readonly fsType: number | null;
  /** Characters that it carries, and scripts of which it has letters. */
  readonly characters: number;
  readonly scripts: readonly string[];
}

type HarfBuzz = typeof import("harfbuzzjs");

/** Loaded with the first typeface: nobody waits for it who sets no lettering. */
const loadHarfBuzz = (): Promise<HarfBuzz> => import("harfbuzzjs");

/** What most typefaces have, where one says nothing. */
const USUAL_CAP_HEIGHT = 0.7;

/** Letters that tell which scripts a font is made for. */
const SCRIPT_LETTERS = [
  ["Latin", "AGag"],
  ["Latin with accents", "ÄÉßñ"],
  ["Central European", "ŁřőŻ"],
  ["Greek", "ΑΩαω"],
  ["Cyrillic", "АЖая"],
  ["Hebrew", "אבת"],
  ["Arabic", "ابي"],
  ["Devanagari", "अकह"],
  ["Thai", "กขฮ"],
  ["Vietnamese", "ăệơ"],
] as const;

/** Of a font, so many characters are looked at for one that is drawn. */
const MOST_TRIED = 400;

/** Opens a typeface from its font files (sfnt), the most important first. Throws a FontError. */
export async function openTypeface(id: string, files: readonly Uint8Array[]): Promise<Typeface> {
  const hb = await loadHarfBuzz();
  const fonts = files.map((bytes) => openFont(hb, bytes));
  const capHeight = fonts.map((font) => font.heightOf("H")).find((value) => value !== null && value > 0);
  return {
    id,
    capHeight: capHeight ?? USUAL_CAP_HEIGHT,
    fileFor(text, preferred) {
      if (fonts[preferred]?.carries(text)) return preferred;
      return fonts.findIndex((font) => font.carries(text));
    },
    shape: (text, run, hasLigatures) => fonts[run.file].shape(text, run, hasLigatures),
    outline: (file, glyph) => fonts[file].outline(glyph),
  };
}

/** Reads what a font file says of itself. Throws a FontError for one that sets no text. */
export async function readFontFacts(sfnt: Uint8Array): Promise<FontFacts> {
  const hb = await loadHarfBuzz();
  const { facts } = openFont(hb, sfnt);
  return facts();
}

interface Font {
  carries(text: string): boolean;
  heightOf(char: string): number | null;
  shape(text: string, run: TextRun, hasLigatures: boolean): ShapedCluster[];
  outline(glyph: number): readonly CubicPath[];
  facts(): FontFacts;
}

function openFont(hb: HarfBuzz, sfnt: Uint8Array): Font {
  const face = new hb.Face(new hb.Blob(sfnt));
  const carried = new Set(face.collectUnicodes());
  if (carried.size === 0) throw new FontError("The font file is damaged: it has no letters.");
  const font = new hb.Font(face);
  const em = face.upem;
  const pen = makePen(hb);
  const outlines = new Map<number, readonly CubicPath[]>();
  const kern = face.getTableFeatureTags("GPOS").includes("kern") ? undefined : face.referenceTable("kern");
  const pairs = kern ? readPairKerning(kern) : null;
  const plain = ["liga", "clig"].flatMap((tag) => hb.Feature.fromString(`-${tag}`) ?? []);
  const hasOutlines = () =>
    [...carried].slice(0, MOST_TRIED).some((char) => {
      const glyph = font.nominalGlyph(char);
      return glyph !== undefined && pen(() => font.drawGlyph(glyph, pen.funcs), em).length > 0;
    });
  return {
    carries: (text) => Array.from(text).every((char) => carried.has(char.codePointAt(0) ?? 0) || isUnseen(char)),
    heightOf(char) {
      const glyph = font.nominalGlyph(char.codePointAt(0) ?? 0);
      const extents = glyph === undefined ? undefined : font.glyphExtents(glyph);
      return extents ? extents.yBearing / em : null;
    },
    shape(text, { from, to, isRightToLeft, file }, hasLigatures) {
      const buffer = new hb.Buffer();
      buffer.addText(text, from, to - from);
      buffer.guessSegmentProperties();
      buffer.setDirection(isRightToLeft ? hb.Direction.RTL : hb.Direction.LTR);
      hb.shape(font, buffer, hasLigatures ? [] : plain);
      const shaped = buffer.getGlyphInfosAndPositions();
      if (pairs && !isRightToLeft) kernPairs(shaped, pairs);
      return clustersOf(shaped, file, em);
    },
    outline(glyph) {
      const known = outlines.get(glyph);
      if (known) return known;
      const made = pen(() => font.drawGlyph(glyph, pen.funcs), em);
      outlines.set(glyph, made);
      return made;
    },
    facts() {
      const coverage = () => ({
        characters: carried.size,
        scripts: SCRIPT_LETTERS.flatMap(([script, letters]) =>
          Array.from(letters).every((char) => carried.has(char.codePointAt(0) ?? 0)) ? [script] : [],
        ),
      });
      if (!hasOutlines()) throw new FontError("The font has no outlines: a font of pictures cannot be set as shapes.");
      const name = (ids: readonly number[]) =>
        ids.map((nameId) => face.getName(nameId, "en").trim()).find(Boolean) ?? "";
      const os2 = face.referenceTable("OS/2");
      const fsType = os2 && os2.length >= 10 ? os2[8] * 256 + os2[9] : null;
      // Names of typographic families go before those of four styles each.
      return { family: name([16, 1]), style: name([17, 2]), fsType, ...coverage() };
    },
  };
}

/** Characters that shape others and show nothing themselves: joiners, marks of direction, variation selectors. */
function isUnseen(char: string): boolean {
  return /^\p{Default_Ignorable_Code_Point}$/u.test(char);
}

type Shaped = ReturnType<InstanceType<HarfBuzz["Buffer"]>["getGlyphInfosAndPositions"]>;

function kernPairs(shaped: Shaped, pairs: PairKerning): void {
  for (let k = 0; k + 1 < shaped.length; k++) {
    const { codepoint, xAdvance = 0 } = shaped[k];
    shaped[k].xAdvance = xAdvance + pairs(codepoint, shaped[k + 1].codepoint);
  }
}

function clustersOf(shaped: Shaped, file: number, em: number): ShapedCluster[] {
  const clusters: { at: number; glyphs: PlacedGlyph[]; advance: number }[] = [];
  for (const { codepoint: id, cluster, xAdvance = 0, xOffset = 0, yOffset = 0 } of shaped) {
    let last = clusters.at(-1);
    if (last?.at !== cluster) {
      last = { at: cluster, glyphs: [], advance: 0 };
      clusters.push(last);
    }
    last.glyphs.push({ file, id, x: last.advance + xOffset / em, y: -yOffset / em });
    last.advance += xAdvance / em;
  }
  return clusters;
}

/** Collects what HarfBuzz draws. */
function makePen(hb: HarfBuzz) {
  let paths: CubicPath[] = [];
  let current: number[] = [];
  let scale = 1;
  const finish = () => {
    const [x0, y0] = current;
    const [x, y] = current.slice(-2);
    if (x !== x0 || y !== y0) current.push(x, y, x0, y0, x0, y0);
    if (current.length >= 14) paths.push(Float64Array.from(current));
    current = [];
  };
  const funcs = new hb.DrawFuncs();
  funcs.setMoveToFunc((x, y) => {
    current = [x / scale, -y / scale];
  });
  funcs.setLineToFunc((x, y) => {
    const [fromX, fromY] = current.slice(-2);
    const [toX, toY] = [x / scale, -y / scale];
    if (toX !== fromX || toY !== fromY) current.push(fromX, fromY, toX, toY, toX, toY);
  });
  funcs.setCubicToFunc((ax, ay, bx, by, x, y) => {
    current.push(ax / scale, -ay / scale, bx / scale, -by / scale, x / scale, -y / scale);
  });
  funcs.setClosePathFunc(finish);
  const collect = (draw: () => void, em: number): CubicPath[] => {
    [paths, current, scale] = [[], [], em];
    draw();
    return paths;
  };
  return Object.assign(collect, { funcs });
}
