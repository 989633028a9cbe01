// films.pdf: one page per plate in print order, solid black at true size, marks and label the same on every page.
import { PDFName } from "pdf-lib";
import { trimNumber } from "../geometry/index.ts";
import { missingCharacters, spellOut } from "../labels/index.ts";
import { addPageMm, millimetreSpace, pathOperators, setContent, startDocument, textOperators } from "../pdf/index.ts";
import { type FilmSet, MARKS } from "./lay-out-films.ts";

/** Handle length of a quarter circle of radius 1. */
const KAPPA = 0.5522847498;

/**
 * Bytes of films.pdf. `labelFont` is a TrueType font with the label's characters; `date` goes into the document's facts.
 * `onFilm` is called before each film with its index, for progress.
 */
export async function writeFilmsPdf(
  set: FilmSet,
  labelFont: Uint8Array,
  date: Date,
  onFilm: (index: number) => void = () => {},
): Promise<Uint8Array> {
  const pdf = await startDocument("Films", date);
  const font = await pdf.embedFont(labelFont, { subset: true });
  const missing = missingCharacters(set.films.flatMap(({ label }) => label).join(""), labelFont);
  set.films.forEach((film, index) => {
    onFilm(index);
    const page = addPageMm(pdf, set.sheet.width, set.sheet.height);
    page.node.setFontDictionary(PDFName.of("F1"), font.ref);
    let content = millimetreSpace(set.sheet.height, set.sheet.width, set.isMirrored);
    content += `0 g 0 G ${MARKS.lineWidth} w\n`;
    content += `${pathOperators(film.plate.region, set.mmPerPx, set.art.x, set.art.y)}\nf*\n`;
    for (const { x, y } of set.targets) content += targetOperators(x, y);
    for (const { x1, y1, x2, y2 } of set.centreMarks) content += `${num(x1)} ${num(y1)} m ${num(x2)} ${num(y2)} l S\n`;
    film.label.forEach((written, i) => {
      const line = spellOut(written, missing);
      // A long client name makes the line smaller, never shorter.
      const natural = font.widthOfTextAtSize(line, MARKS.labelSize);
      const size = Math.min(MARKS.labelSize, (MARKS.labelSize * set.label.width) / natural);
      content += textOperators(font, "F1", line, set.label.x, set.label.y + (i + 1) * MARKS.labelLeading, size);
    });
    setContent(pdf, page, content);
  });
  return pdf.save();
}

function num(value: number): string {
  return trimNumber(value, 4);
}

function targetOperators(x: number, y: number): string {
  const r = MARKS.targetRadius;
  const k = r * KAPPA;
  const a = MARKS.targetArm;
  return (
    `${num(x - a)} ${num(y)} m ${num(x + a)} ${num(y)} l ${num(x)} ${num(y - a)} m ${num(x)} ${num(y + a)} l S\n` +
    `${num(x + r)} ${num(y)} m ` +
    `${num(x + r)} ${num(y + k)} ${num(x + k)} ${num(y + r)} ${num(x)} ${num(y + r)} c ` +
    `${num(x - k)} ${num(y + r)} ${num(x - r)} ${num(y + k)} ${num(x - r)} ${num(y)} c ` +
    `${num(x - r)} ${num(y - k)} ${num(x - k)} ${num(y - r)} ${num(x)} ${num(y - r)} c ` +
    `${num(x + k)} ${num(y - r)} ${num(x + r)} ${num(y - k)} ${num(x + r)} ${num(y)} c h S\n`
  );
}
