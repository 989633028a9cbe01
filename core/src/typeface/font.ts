// One font file, opened by HarfBuzz, which shapes text and gives outlines.

import type { CubicPath } from "../geometry/index.ts";
import { later } from "../later/index.ts";
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

type HarfBuzz = typeof import("harfbuzzjs");

/** Loaded with the first typeface: nobody waits for it who sets no lettering. */
export const loadHarfBuzz = later<HarfBuzz>(() => import("harfbuzzjs"));

export interface Font {
  carries(text: string): boolean;
  heightOf(char: string): number | null;
  shape(text: string, run: TextRun, hasLigatures: boolean): ShapedCluster[];
  outline(glyph: number): readonly CubicPath[];
  /** Characters that it carries. */
  readonly carried: ReadonlySet<number>;
  /** One of its names (OpenType, name table) in English, and one of its tables. */
  nameOf(id: number): string;
  table(tag: string): Uint8Array | undefined;
  glyphOf(char: number): number | undefined;
}

/** Opens a font file (sfnt). Throws a FontError for one that has no letters. */
export function openFont(hb: HarfBuzz, sfnt: Uint8Array): Font {
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
    carried,
    nameOf: (id) => face.getName(id, "en").trim(),
    table: (tag) => face.referenceTable(tag),
    glyphOf: (char) => font.nominalGlyph(char),
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
