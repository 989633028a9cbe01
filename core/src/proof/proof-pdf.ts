// proof.pdf: the proof on two pages, on the garment and at true size where that fits a page.
import type { PDFPage } from "pdf-lib";
import { LineCapStyle, LineJoinStyle, rgb, setLineCap, setLineJoin } from "pdf-lib";
import { parseHex, type Rgb } from "../colour/index.ts";
import { silhouetteOf } from "../garment/index.ts";
import { formatLength } from "../geometry/index.ts";
import { addPageMm, type Box, makePen, type Pen, PT_PER_MM, startDocument } from "../pdf/index.ts";
import { discs } from "./discs.ts";
import type { Proof } from "./proof.ts";

/** A4 upright, mm (ISO 216), and its margin. */
const PAGE = { width: 210, height: 297, margin: 12 };
const INSIDE = PAGE.width - 2 * PAGE.margin;
const GARMENT: Box = { x: PAGE.margin, y: 42, width: INSIDE, height: 118 };
const SOFT: Rgb = [95, 93, 86];
const LINE: Rgb = [120, 118, 110];
const ROW_MM = 6;
/** Under abutting shapes, so that no hairline shows between them, mm. */
const SEAM_MM = 0.08;
/** Round a place that a remark is about, mm. */
const RING = "M-4 0a4 4 0 1 0 8 0a4 4 0 1 0 -8 0Z";
const MARK: Rgb = [208, 0, 111];
/** Words to a line of the remarks. */
const LINE_LETTERS = 112;

export interface ProofPdfFacts {
  readonly date: Date;
  readonly labelFont: Uint8Array;
}

/** Bytes of proof.pdf: the same proof and date give the same bytes. */
export async function writeProofPdf(proof: Proof, { date, labelFont }: ProofPdfFacts): Promise<Uint8Array> {
  const pdf = await startDocument(`Proof ${proof.jobNumber}-${proof.number}`, date);
  const font = await pdf.embedFont(labelFont, { subset: true });
  const open = () => {
    const page = addPageMm(pdf, PAGE.width, PAGE.height);
    return { page, pen: makePen(page, font, labelFont, PAGE) };
  };
  const first = open();
  writeHead(first.pen, proof, date);
  drawGarment(first.page, first.pen, proof);
  writeFacts(first.pen, proof);
  const second = open();
  drawLarge(second.page, second.pen, proof);
  return pdf.save();
}

function writeHead(pen: Pen, { shop, jobNumber, number, title, client }: Proof, date: Date): void {
  pen.write(title, PAGE.margin, 20, 7);
  pen.write(
    [`Proof No. ${jobNumber}, version ${number}`, client, shop, date.toISOString().slice(0, 10)]
      .filter(Boolean)
      .join("  ·  "),
    ...[PAGE.margin, 28, 3.6],
  );
  pen.rule(PAGE.margin, 33, INSIDE);
}

/** The print on its garment, as large as the room for it. */
function drawGarment(page: PDFPage, pen: Pen, proof: Proof): void {
  const { placement, garment, widthMm } = proof;
  const { box, outline, seams } = silhouetteOf(placement.shownOn);
  const scale = Math.min(GARMENT.width / box.width, GARMENT.height / box.height);
  const left = GARMENT.x + (GARMENT.width - box.width * scale) / 2 - box.x * scale;
  const top = GARMENT.y - box.y * scale;
  pen.path(outline, left, top, scale, { fill: parseHex(garment.hex), line: LINE });
  pen.path(seams, left, top, scale, { line: LINE });
  const corner = {
    x: left + (placement.asideMm - widthMm / 2) * scale,
    y: top + placement.belowMm * scale,
  };
  drawPicture(page, proof.picture, corner, scale);
}

function writeFacts(pen: Pen, proof: Proof): void {
  const { widthMm, heightMm, unit, placement, garment, madeWith, counts, pieces, price, spots, remarks, message } =
    proof;
  const { edge } = silhouetteOf(placement.shownOn);
  const length = (mm: number) => formatLength(mm, unit);
  let y = GARMENT.y + GARMENT.height + 8;
  const aside =
    placement.asideMm === 0
      ? "in the middle"
      : `${length(Math.abs(placement.asideMm))} to the ${placement.asideMm > 0 ? "right" : "left"} of the middle`;
  const facts: [string, string][] = [
    ["Size", `${length(widthMm)} × ${length(heightMm)}`],
    ["Where", `${placement.name}, ${length(placement.belowMm)} under ${edge}, ${aside}`],
    ["Garment", garment.name],
    ["Made with", [madeWith, ...counts].join(", ")],
    ["Pieces", price ? `${pieces}; ${price}` : `${pieces}`],
  ];
  for (const [name, said] of facts) {
    pen.write(name, PAGE.margin, y, 3.4, SOFT);
    pen.write(said, PAGE.margin + 24, y, 3.6);
    y += ROW_MM;
  }
  y += 2;
  spots.forEach(({ name, hex, stock }, k) => {
    const [x, row] = [PAGE.margin + (k % 2) * (INSIDE / 2), y + (k >> 1) * ROW_MM];
    pen.path("M0 0H9V4.2H0Z", x, row - 3.4, 1, { fill: parseHex(hex), line: LINE });
    pen.write([name, stock].filter(Boolean).join(", "), x + 12, row, 3.4);
  });
  y += Math.ceil(spots.length / 2) * ROW_MM + 3;
  for (const text of [message, ...remarks.map((remark) => remark.text)].filter(Boolean).flatMap(inLines)) {
    if (y > PAGE.height - PAGE.margin) return;
    pen.write(text, PAGE.margin, y, 3.2);
    y += 4.6;
  }
}

/** A text in lines of whole words; a word that is longer than a line is cut. */
function inLines(text: string): string[] {
  const lines: string[] = [""];
  for (const word of text.split(/\s+/).flatMap((one) => one.match(new RegExp(`.{1,${LINE_LETTERS}}`, "gu")) ?? [])) {
    const last = lines[lines.length - 1];
    if (last.length + word.length < LINE_LETTERS) lines[lines.length - 1] = last ? `${last} ${word}` : word;
    else lines.push(word);
  }
  return lines;
}

/** The print alone on its cloth: at true size where it fits. */
function drawLarge(page: PDFPage, pen: Pen, { widthMm, heightMm, picture, garment, remarks }: Proof): void {
  const room = PAGE.height - 2 * PAGE.margin - 12;
  const scale = Math.min(1, INSIDE / widthMm, room / heightMm);
  const corner = { x: (PAGE.width - widthMm * scale) / 2, y: PAGE.margin + 8 };
  pen.write(
    scale === 1 ? "At true size" : `At ${Math.round(scale * 100)} % of its size`,
    PAGE.margin,
    PAGE.margin + 3,
    3.6,
    SOFT,
  );
  pen.fill({ ...corner, width: widthMm * scale, height: heightMm * scale }, parseHex(garment.hex));
  drawPicture(page, picture, corner, scale);
  for (const { at } of remarks)
    if (at) pen.path(RING, corner.x + at.x * scale, corner.y + at.y * scale, 1, { line: MARK });
}

function drawPicture(page: PDFPage, parts: Proof["picture"], { x, y }: { x: number; y: number }, scale: number): void {
  page.pushOperators(setLineJoin(LineJoinStyle.Round), setLineCap(LineCapStyle.Round));
  const place = { x: x * PT_PER_MM, y: (PAGE.height - y) * PT_PER_MM, scale: scale * PT_PER_MM };
  for (const part of parts) {
    const [r, g, b] = parseHex(part.hex).map((value) => value / 255);
    const colour = rgb(r, g, b);
    if (part.kind === "thread") page.drawSvgPath(part.d, { ...place, borderColor: colour, borderWidth: part.widthMm });
    else if (part.kind === "fill")
      page.drawSvgPath(part.d, { ...place, color: colour, borderColor: colour, borderWidth: SEAM_MM });
    else page.drawSvgPath(discs(part.places, part.diameterMm / 2), { ...place, color: colour });
  }
}
