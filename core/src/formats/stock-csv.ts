// The shelf as a table: one line per stock, a heading line first (RFC 4180).
import Papa from "papaparse";
import { FACT_WORDS, factsOf, readFacts, type Stock, type StockKind } from "../shelf/index.ts";
import { type StockFile, startReading } from "./stock-file.ts";

const COLUMNS = [
  "kind",
  "code",
  "name",
  "hex",
  "L",
  "a",
  "b",
  "detail",
  ...FACT_WORDS.map((word) => word.toLowerCase()),
];

/** Text of a CSV file; colours are in `hex`, or in `L`, `a`, `b` (CIELAB, D50). */
export function writeStockCsv(shelf: readonly Stock[]): string {
  const rows = shelf.map(({ kind, code, name, colour, detail, ...facts }) => [
    ...[kind, code, name],
    ...(colour.space === "srgb" ? [colour.hex, "", "", ""] : ["", colour.l, colour.a, colour.b]),
    ...[detail, ...factsOf(facts).map((value) => value ?? "")],
  ]);
  return `${Papa.unparse({ fields: COLUMNS, data: rows }, { newline: "\r\n", escapeFormulae: true })}\r\n`;
}

/**
 * Reads a CSV file; separator and line ends as they come. The columns may stand in any order; `kind` may be missing if all
 * of the file is of one kind (`kind`). Nothing is taken over from a file with a bad line.
 */
export function readStockCsv(text: string, kind: StockKind): StockFile {
  const reading = startReading();
  // Line numbers as an editor counts them: a quoted field may hold line ends.
  let line = 1;
  let columns: Map<string, number> | null = null;
  let before = 0;
  const body = text.replace(/^\uFEFF/, "");
  Papa.parse<string[]>(body, {
    step: ({ data, errors, meta }) => {
      const at = line;
      line += body.slice(before, meta.cursor).split(/\r\n|\n|\r/).length - 1;
      before = meta.cursor;
      for (const error of errors) if (error.type !== "Delimiter") reading.fail(at, error.message);
      if (data.every((cell) => cell.trim() === "")) return;
      if (!columns) {
        columns = new Map(data.map((cell, i) => [cell.trim().toLowerCase(), i]));
        for (const wanted of ["code", "name"])
          if (!columns.has(wanted)) reading.fail(at, `the heading has no column "${wanted}"`);
        if (!columns.has("hex") && !columns.has("l"))
          reading.fail(at, 'the heading has neither a column "hex" nor "L", "a", "b"');
        return;
      }
      const cellOf = (name: string) => unescapeFormula(data[columns?.get(name.toLowerCase()) ?? -1]?.trim() ?? "");
      reading.take(at, {
        kind: cellOf("kind").toLowerCase() || kind,
        code: cellOf("code"),
        name: cellOf("name"),
        colour: cellOf("hex")
          ? { space: "srgb", hex: cellOf("hex").replace(/^#?/, "#").toLowerCase() }
          : { space: "lab", l: numberOf(cellOf("L")), a: numberOf(cellOf("a")), b: numberOf(cellOf("b")) },
        detail: cellOf("detail"),
        ...readFacts(cellOf),
      });
    },
  });
  return reading.finish();
}

/** A decimal comma is read, too. */
function numberOf(cell: string): number {
  return cell === "" ? Number.NaN : Number(cell.replace(",", "."));
}

/** Takes back what keeps spreadsheets from running a cell as a formula. */
function unescapeFormula(cell: string): string {
  return /^'[=+\-@\t\r]/.test(cell) ? cell.slice(1) : cell;
}
