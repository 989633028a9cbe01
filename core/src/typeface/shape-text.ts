// A line of text as letters from left to right: directions by the Unicode Bidirectional Algorithm (UAX 9), scripts and files
// apart, each part shaped by itself.
import makeBidi from "bidi-js";
import type { PlacedGlyph, ShapedCluster, TextRun } from "./font.ts";
import type { Typeface } from "./typeface.ts";

/** A letter of a line, or a ligature; lengths are shares of the em. */
export interface Letter {
  /** Where in the text it begins, and what of it it shows. */
  readonly at: number;
  readonly text: string;
  readonly x: number;
  readonly advance: number;
  /** From its own left end on the baseline. */
  readonly glyphs: readonly PlacedGlyph[];
}

export interface ShapedLine {
  readonly letters: readonly Letter[];
  readonly width: number;
  /** What the typeface does not carry. */
  readonly missing: readonly string[];
}

const bidi = makeBidi();
const graphemes = new Intl.Segmenter("en", { granularity: "grapheme" });

/** Scripts that are shaped each for itself; what is of none goes with what is beside it. */
const SCRIPTS = [
  ...[
    "Latin",
    "Greek",
    "Cyrillic",
    "Armenian",
    "Georgian",
    "Hebrew",
    "Arabic",
    "Devanagari",
    "Bengali",
    "Tamil",
    "Thai",
  ],
  ...["Hangul", "Hiragana", "Katakana", "Han"],
].map((name) => new RegExp(`\\p{Script=${name}}`, "u"));

/** One line of text, set in a typeface. */
export function shapeText(text: string, typeface: Typeface, hasLigatures = true): ShapedLine {
  const missing: string[] = [];
  const runs = inVisualOrder(runsOf(text, typeface, missing));
  const letters: Letter[] = [];
  let x = 0;
  for (const { run } of runs) {
    const clusters = typeface.shape(text, run, hasLigatures);
    for (const cluster of clusters) {
      const glyphs = cluster.glyphs.filter(({ id }) => id !== 0);
      const shown = text.slice(cluster.at, endOf(cluster, clusters, run));
      letters.push({ at: cluster.at, text: shown, x, advance: cluster.advance, glyphs });
      x += cluster.advance;
    }
  }
  return { letters, width: x, missing: [...new Set(missing)] };
}

/** Where in the text the next cluster begins. */
function endOf({ at }: ShapedCluster, clusters: readonly ShapedCluster[], { to }: TextRun): number {
  return clusters.reduce((end, other) => (other.at > at && other.at < end ? other.at : end), to);
}

interface LevelledRun {
  readonly run: TextRun;
  readonly level: number;
}

/** Parts of one direction, script and file, in the order of reading. Pieces that no file carries are left out. */
function runsOf(text: string, typeface: Typeface, missing: string[]): LevelledRun[] {
  const { levels } = bidi.getEmbeddingLevels(text);
  const runs: { run: TextRun; level: number; script: number }[] = [];
  for (const { segment, index } of graphemes.segment(text)) {
    const last = runs.at(-1);
    const file = typeface.fileFor(segment, last?.run.file ?? 0);
    if (file < 0) {
      if (segment.trim() !== "") missing.push(segment);
      continue;
    }
    const level = levels[index];
    const script = SCRIPTS.findIndex((one) => one.test(segment));
    const to = index + segment.length;
    const isOne =
      last && last.run.to === index && last.level === level && last.run.file === file && alike(last.script, script);
    if (isOne) runs[runs.length - 1] = { ...last, run: { ...last.run, to }, script: Math.max(last.script, script) };
    else runs.push({ run: { from: index, to, isRightToLeft: level % 2 === 1, file }, level, script });
  }
  return runs;
}

function alike(a: number, b: number): boolean {
  return a === b || a < 0 || b < 0;
}

/** Parts from left to right (UAX 9, rule L2). */
function inVisualOrder(runs: readonly LevelledRun[]): LevelledRun[] {
  const out = [...runs];
  const highest = runs.reduce((most, { level }) => Math.max(most, level), 0);
  for (let level = highest; level > 0; level--)
    for (let i = 0; i < out.length; i++) {
      let end = i;
      while (end < out.length && out[end].level >= level) end++;
      if (end > i + 1) out.splice(i, end - i, ...out.slice(i, end).reverse());
      i = Math.max(i, end);
    }
  return out;
}
