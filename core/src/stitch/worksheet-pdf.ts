// worksheet.pdf: one page for whoever stands at the machine.
import { LineCapStyle, LineJoinStyle, type PDFPage, rgb, setLineCap, setLineJoin } from "pdf-lib";
import type { Rgb } from "../colour/index.ts";
import type { OutputFacts } from "../output/index.ts";
import { addPageMm, makePen, type Pen, PT_PER_MM, startDocument } from "../pdf/index.ts";
import type { PlanCount } from "./count.ts";
import type { HoopChoice } from "./hoop.ts";
import type { StitchPlan } from "./plan.ts";
import { THREAD_MM, threadRuns } from "./stitches-svg.ts";

/** A4 upright, mm (ISO 216), and its margin. */
const PAGE = { width: 210, height: 297, margin: 12 };
/** Where the picture lies, and where the list of threads begins when it is as high as it can be, mm. */
const PICTURE = { top: 44, width: 186, height: 170 };
const ROW_MM = 7;
const SOFT: Rgb = [95, 93, 86];
const MARK: Rgb = [208, 0, 111];
/** Length of the marks by which the design is placed, mm. */
const MARK_MM = 6;

export interface Worksheet {
  readonly plan: StitchPlan;
  readonly count: PlanCount;
  readonly hoop: HoopChoice;
  /** Code and name of what each colour is sewn with, by spot id. */
  readonly threadOf: (spotId: string) => string | null;
  readonly fabric: string;
}

/** Bytes of worksheet.pdf. The picture is at true size where it fits the page. */
export async function writeWorksheet(sheet: Worksheet, facts: OutputFacts): Promise<Uint8Array> {
  const { plan, count, hoop, fabric } = sheet;
  const pdf = await startDocument("Worksheet", facts.date);
  const font = await pdf.embedFont(facts.labelFont, { subset: true });
  const page = addPageMm(pdf, PAGE.width, PAGE.height);
  const pen = makePen(page, font, facts.labelFont, PAGE);
  const date = facts.date.toISOString().slice(0, 10);
  pen.write("Worksheet", PAGE.margin, 20, 7);
  pen.write([facts.job, facts.client, date].filter(Boolean).join("  ·  "), PAGE.margin, 28, 3.6);
  const turned = hoop.isTurned ? ", turned by a quarter" : "";
  pen.write(
    `${plan.widthMm.toFixed(1)} × ${plan.heightMm.toFixed(1)} mm in a hoop of ${hoop.widthMm} × ${hoop.heightMm} mm${turned}; ${fabric}`,
    ...[PAGE.margin, 34, 3.6],
  );
  pen.write(
    `${many(count.stitches, "stitch", "stitches")}, ${many(count.changes, "change", "changes")}, ${many(count.trims, "trim", "trims")}; about ${Math.ceil(count.minutes)} min; bobbin ${count.bobbinM.toFixed(1)} m`,
    ...[PAGE.margin, 39.5, 3.6],
  );
  const list = { height: (count.colours.length + 1) * ROW_MM };
  const room = Math.min(PICTURE.height, PAGE.height - PAGE.margin - PICTURE.top - list.height - 10);
  const scale = Math.min(1, PICTURE.width / plan.widthMm, room / plan.heightMm);
  const corner = { x: (PAGE.width - plan.widthMm * scale) / 2, y: PICTURE.top + 4 };
  drawThread(page, plan, corner, scale);
  drawMarks(pen, plan, corner, scale);
  const under = corner.y + plan.heightMm * scale + MARK_MM + 6;
  pen.write(
    scale === 1 ? "At true size" : `At ${Math.round(scale * 100)} % of its size`,
    PAGE.margin,
    under,
    3.2,
    SOFT,
  );
  count.colours.forEach(({ spotId, name, stitches, threadM }, i) => {
    const y = under + 4 + (i + 1) * ROW_MM;
    const tone = plan.colours.find((colour) => colour.spotId === spotId)?.rgb ?? [0, 0, 0];
    pen.rule(PAGE.margin, y - ROW_MM + 2, PICTURE.width);
    pen.write(`${i + 1}`, PAGE.margin, y, 4.2);
    pen.fill({ x: PAGE.margin + 8, y: y - 3.6, width: 8, height: 4.4 }, tone);
    pen.write(name, PAGE.margin + 20, y, 4);
    pen.write(sheet.threadOf(spotId) ?? "no thread chosen on the shelf", PAGE.margin + 70, y, 3.4, SOFT);
    pen.write(`${stitches} stitches, ${threadM.toFixed(1)} m`, PAGE.margin + 132, y, 3.4);
  });
  return pdf.save();
}

function many(count: number, one: string, more: string): string {
  return `${count} ${count === 1 ? one : more}`;
}

function drawThread(page: PDFPage, plan: StitchPlan, corner: { x: number; y: number }, scale: number): void {
  page.pushOperators(setLineJoin(LineJoinStyle.Round), setLineCap(LineCapStyle.Round));
  for (const { colour, lines } of threadRuns(plan)) {
    const [r, g, b] = plan.colours[colour].rgb.map((value) => value / 255);
    page.drawSvgPath(lines.map((line) => `M${line.map((mm) => Number(mm.toFixed(2))).join(" ")}`).join(""), {
      ...{ x: corner.x * PT_PER_MM, y: (PAGE.height - corner.y) * PT_PER_MM, scale: scale * PT_PER_MM },
      ...{ borderColor: rgb(r, g, b), borderWidth: THREAD_MM },
    });
  }
}

/** Marks on the middle lines, outside the design: by them it is laid on the cloth. */
function drawMarks(
  pen: Pen,
  { widthMm, heightMm }: StitchPlan,
  { x, y }: { x: number; y: number },
  scale: number,
): void {
  const [w, h] = [widthMm * scale, heightMm * scale];
  const [mx, my] = [x + w / 2, y + h / 2];
  pen.line(mx, y - MARK_MM, mx, y - 1, MARK);
  pen.line(mx, y + h + 1, mx, y + h + MARK_MM, MARK);
  pen.line(x - MARK_MM, my, x - 1, my, MARK);
  pen.line(x + w + 1, my, x + w + MARK_MM, my, MARK);
}
