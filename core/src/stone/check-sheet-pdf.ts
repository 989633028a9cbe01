// check-sheet.pdf: every stone at true size, and how many there are, for whoever sets them and whoever checks.
import type { Rgb } from "../colour/index.ts";
import type { OutputFacts } from "../output/index.ts";
import { addPageMm, makePen, type Pen, startDocument } from "../pdf/index.ts";
import type { Design } from "../process/index.ts";
import { diameterOf } from "../trade/index.ts";
import type { StoneCount } from "./count-stones.ts";
import type { Stone } from "./stones.ts";

/** A4 upright, mm (ISO 216), and the margin; the page is larger where the design is. */
const PAGE = { width: 210, height: 297, margin: 12 };
/** Where the picture begins, mm. */
const TOP_MM = 42;
const ROW_MM = 7;
/** Stones drawn as one path: a longer one takes its writer more than its share of time. */
const MOST_IN_PATH = 200;
const SOFT: Rgb = [95, 93, 86];
const EDGE: Rgb = [120, 118, 110];
/** Where the columns of the table begin, mm from its left. */
const COLUMNS = { swatch: 0, name: 12, size: 84, count: 104, needed: 124, kept: 152 };

export interface CheckSheet {
  readonly made: { readonly stones: readonly Stone[]; readonly widthMm: number; readonly heightMm: number };
  readonly design: Pick<Design, "spots" | "garment" | "pieces">;
  readonly nameOf: (spotId: string) => string;
  readonly counts: readonly StoneCount[];
}

/** Bytes of check-sheet.pdf. */
export async function writeCheckSheet(
  { made, design, nameOf, counts }: CheckSheet,
  facts: OutputFacts,
): Promise<Uint8Array> {
  const { stones, widthMm, heightMm } = made;
  const width = Math.max(PAGE.width, widthMm + 2 * PAGE.margin);
  const listTop = TOP_MM + heightMm + 14;
  const height = Math.max(PAGE.height, listTop + (counts.length + 2) * ROW_MM + PAGE.margin);
  const pdf = await startDocument("Check sheet", facts.date);
  const font = await pdf.embedFont(facts.labelFont, { subset: true });
  const pen = makePen(addPageMm(pdf, width, height), font, facts.labelFont, { ...PAGE, width, height });
  const left = PAGE.margin;
  pen.write("Check sheet", left, 20, 7);
  pen.write(
    [facts.job, facts.client, facts.date.toISOString().slice(0, 10)].filter(Boolean).join("  ·  "),
    ...[left, 28, 3.6],
  );
  const pieces = design.pieces === 1 ? "1 piece" : `${design.pieces} pieces`;
  pen.write(
    `${stones.length} stones on ${widthMm.toFixed(1)} × ${heightMm.toFixed(1)} mm; ${pieces}`,
    ...[left, 34, 3.6],
  );
  const x = (width - widthMm) / 2;
  pen.fill({ x, y: TOP_MM, width: widthMm, height: heightMm }, design.garment);
  for (const { id, rgb } of design.spots) {
    const own = stones.filter(({ spotId }) => spotId === id);
    for (let i = 0; i < own.length; i += MOST_IN_PATH) {
      const data = own.slice(i, i + MOST_IN_PATH).map(circleOf);
      pen.path(data.join(""), x, TOP_MM, 1, { fill: rgb, line: EDGE });
    }
  }
  pen.write("At true size", left, TOP_MM + heightMm + 6, 3.2, SOFT);
  writeTable(pen, { left, top: listTop, width: width - 2 * left }, { design, nameOf, counts });
  return pdf.save();
}

function circleOf({ x, y, size }: Stone): string {
  const r = diameterOf(size) / 2;
  const at = (mm: number) => Number(mm.toFixed(3));
  return `M${at(x - r)} ${at(y)}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0z`;
}

function writeTable(
  pen: Pen,
  { left, top, width }: { readonly left: number; readonly top: number; readonly width: number },
  { design: { spots }, nameOf, counts }: Omit<CheckSheet, "made">,
): void {
  const heads = [
    ["Stone", COLUMNS.name],
    ["Size", COLUMNS.size],
    ["Count", COLUMNS.count],
    ["With losses", COLUMNS.needed],
    ["On the shelf", COLUMNS.kept],
  ] as const;
  for (const [word, at] of heads) pen.write(word, left + at, top, 3.2, SOFT);
  counts.forEach(({ spotId, size, count, needed, kept }, i) => {
    const y = top + (i + 1) * ROW_MM;
    const tone = spots.find(({ id }) => id === spotId)?.rgb ?? [0, 0, 0];
    pen.rule(left, y - ROW_MM + 2, width);
    pen.fill({ x: left + COLUMNS.swatch, y: y - 3.6, width: 8, height: 4.4 }, tone);
    pen.write(nameOf(spotId), left + COLUMNS.name, y, 4);
    pen.write(size, left + COLUMNS.size, y, 4);
    pen.write(`${count}`, left + COLUMNS.count, y, 4);
    pen.write(`${needed}`, left + COLUMNS.needed, y, 4);
    pen.write(kept === null ? "not said" : `${kept}`, left + COLUMNS.kept, y, 4, kept !== null ? undefined : SOFT);
  });
  const y = top + (counts.length + 1) * ROW_MM;
  pen.rule(left, y - ROW_MM + 2, width);
  pen.write("All", left + COLUMNS.name, y, 4);
  pen.write(`${counts.reduce((sum, { count }) => sum + count, 0)}`, left + COLUMNS.count, y, 4);
}
