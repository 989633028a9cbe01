// press-sheet.pdf: one page for whoever stands at the press.
import type { Rgb } from "../colour/index.ts";
import { type Silhouette, silhouetteFor } from "../garment/index.ts";
import { pathToSvg } from "../geometry/index.ts";
import type { OutputFacts } from "../output/index.ts";
import { addPageMm, type Box, makePen, type Pen, startDocument } from "../pdf/index.ts";
import type { Design } from "../process/index.ts";
import type { Layering } from "./layers.ts";
import type { PressPlan, PressStep } from "./press-plan.ts";

/** A4 upright, mm (ISO 216), and its margin. */
const PAGE = { width: 210, height: 297, margin: 12 };
/** Where the rows begin and end, and how high one is at most, mm. */
const ROWS = { top: 46, bottom: 285, most: 34 };
/** The column of rows, and the one with the whole shirt beside it, mm. */
const LEFT = { x: PAGE.margin, width: 122 };
const RIGHT = { x: 142, width: 56 };
/** Shirt shown round the design in a row's picture, as a share of the design. */
const ROUND = 0.12;
const DIGITS = 2;
const SOFT: Rgb = [95, 93, 86];
const MEASURE: Rgb = [208, 0, 111];

/** What a press sheet shows of the job. */
export interface PressSheet {
  readonly layering: Layering;
  readonly plan: PressPlan;
  readonly design: Pick<Design, "garment" | "placement">;
}

/** Bytes of press-sheet.pdf. */
export async function writePressSheet({ layering, plan, design }: PressSheet, facts: OutputFacts): Promise<Uint8Array> {
  const pdf = await startDocument("Press sheet", facts.date);
  const font = await pdf.embedFont(facts.labelFont, { subset: true });
  const page = addPageMm(pdf, PAGE.width, PAGE.height);
  const pen = makePen(page, font, facts.labelFont, PAGE);
  const shirt = silhouetteFor(design.placement);
  const date = facts.date.toISOString().slice(0, 10);
  pen.write("Press sheet", PAGE.margin, 20, 7);
  pen.write([facts.job, facts.client, date].filter(Boolean).join("  ·  "), PAGE.margin, 28, 3.6);
  pen.write(saysOfTimes(plan), PAGE.margin, 36, 3.6);
  plan.notes.forEach((note, i) => {
    pen.write(note, PAGE.margin, 41 + i * 4.5, 3.2, SOFT);
  });
  const height = Math.min(ROWS.most, (ROWS.bottom - ROWS.top) / (plan.steps.length + 1));
  plan.steps.forEach((step, k) => {
    const top = ROWS.top + k * height;
    pen.rule(LEFT.x, top, LEFT.width);
    drawShirt(
      pen,
      { shirt, layering, garment: design.garment, upTo: k + 1, isWhole: false },
      box(LEFT.x, top + 1.5, height - 3),
    );
    writeStep(pen, step, LEFT.x + height + 2, top, height);
  });
  const last = ROWS.top + plan.steps.length * height;
  pen.rule(LEFT.x, last, LEFT.width);
  pen.write(`Press the whole: ${plan.finalS} s at ${plan.celsius} °C`, LEFT.x + height + 2, last + 8, 4.2);
  drawShirt(
    pen,
    { shirt, layering, garment: design.garment, upTo: layering.layers.length, isWhole: true },
    box(RIGHT.x, ROWS.top, RIGHT.width),
  );
  saysOfPlace(shirt, layering).forEach((line, i) => {
    pen.write(line, RIGHT.x, ROWS.top + RIGHT.width + 8 + i * 5, 3.4);
  });
  return pdf.save();
}

function saysOfTimes({ steps, finalS, perPieceS, pieces }: PressPlan): string {
  const layers = steps.length === 1 ? "1 layer" : `${steps.length} layers`;
  return `${layers}, then ${finalS} s for the whole: ${clock(perPieceS)} under the press for a piece, ${clock(perPieceS * pieces)} for ${pieces}`;
}

/** Seconds as a person reads them. */
function clock(seconds: number): string {
  if (seconds < 120) return `${Math.round(seconds)} s`;
  const minutes = Math.round(seconds / 60);
  return minutes < 120 ? `${minutes} min` : `${Math.floor(minutes / 60)} h ${minutes % 60} min`;
}

/** Where the print lies, as it is measured on a shirt. */
function saysOfPlace({ name, printAt }: Silhouette, { widthPx, heightPx, mmPerPx }: Layering): string[] {
  const size = `${(widthPx * mmPerPx).toFixed(1)} × ${(heightPx * mmPerPx).toFixed(1)} mm`;
  const down = name === "sleeve" ? `${printAt.y} mm under the crown of the sleeve` : `${printAt.y} mm under the collar`;
  const across = printAt.x === 0 ? "Centred on the garment" : `Its middle ${Math.abs(printAt.x)} mm from the garment's`;
  return [`Design ${size}`, `Upper edge ${down}`, across];
}

function writeStep(
  pen: Pen,
  { order, name, film, mode, tackS, celsius, rgb: colour }: PressStep,
  x: number,
  top: number,
  height: number,
) {
  const middle = top + height / 2;
  pen.write(`${order}`, x, middle + 2, 8);
  pen.fill({ x: x + 9, y: middle - 4.5, width: 5, height: 9 }, colour);
  pen.write(name, x + 17, middle - 1, 4.2);
  pen.write(film ?? "no film chosen on the shelf", x + 17, middle + 4, 3.2, SOFT);
  pen.write(`${mode}; tack ${tackS} s at ${celsius} °C`, x + 17, middle + 8.5, 3.2);
}

const box = (x: number, y: number, side: number): Box => ({ x, y, width: side, height: side });

interface ShirtView {
  readonly shirt: Silhouette;
  readonly layering: Layering;
  readonly garment: Rgb;
  /** So many layers are pressed. */
  readonly upTo: number;
  /** The whole shirt with measures, or what is round the design. */
  readonly isWhole: boolean;
}

/** A shirt with its first layers, as large as a box on the page allows. */
function drawShirt(pen: Pen, { shirt, layering, garment, upTo, isWhole }: ShirtView, on: Box): void {
  const { widthPx, heightPx, mmPerPx, layers } = layering;
  const art = { width: widthPx * mmPerPx, height: heightPx * mmPerPx };
  const { printAt } = shirt;
  const longest = Math.max(art.width, art.height);
  const seen = isWhole
    ? shirt.box
    : {
        x: printAt.x - longest * (0.5 + ROUND),
        y: printAt.y + art.height / 2 - longest * (0.5 + ROUND),
        width: longest * (1 + 2 * ROUND),
        height: longest * (1 + 2 * ROUND),
      };
  const scale = Math.min(on.width / seen.width, on.height / seen.height);
  const at = (x: number, y: number) => ({ x: on.x + (x - seen.x) * scale, y: on.y + (y - seen.y) * scale });
  const origin = at(0, 0);
  pen.within(on, () => {
    pen.path(shirt.outline, origin.x, origin.y, scale, { fill: garment, line: SOFT });
    pen.path(shirt.seams, origin.x, origin.y, scale, { line: SOFT });
    const corner = at(printAt.x - art.width / 2, printAt.y);
    for (const { region, rgb: film } of layers.slice(0, upTo)) {
      const outline = region.map((path) => pathToSvg(path, DIGITS)).join("");
      pen.path(outline, corner.x, corner.y, scale * mmPerPx, { fill: film });
    }
    if (!isWhole) return;
    // From the collar down to the print, and from the garment's middle across to the print's.
    const [collar, edge, middle] = [at(printAt.x, 0), at(printAt.x, printAt.y), at(0, printAt.y)];
    pen.line(collar.x, collar.y, edge.x, edge.y, MEASURE);
    pen.line(middle.x, middle.y, edge.x, edge.y, MEASURE);
  });
}
