// The shell's arguments, read once at the border.
import { parseArgs } from "node:util";
import { formatHex, parseHex } from "@plain-palette/core/colour";
import { SHAPE_FORMATS, type ShapeFormat } from "@plain-palette/core/formats";
import { type Length, parseLength, toMm } from "@plain-palette/core/geometry";
import { makeRecipe, type Recipe } from "@plain-palette/core/recipe";
import { MAX_FOUND } from "@plain-palette/core/reduce";
import type { ShapeFilesWanted } from "./separate-file.ts";

export const USAGE = `usage: npm run -s separate -- FILE... [--colours N|auto] [--width 10.5in] [--garment '#1d2a44'] [--trap 0.3mm] [--tolerance 0.2] [--shapes svg,pdf,eps,dxf] [--stacked] [--per-colour] [--out DIR]`;

/** A wrong call; the message says what is wrong with it. */
export class UsageError extends Error {
  override readonly name = "UsageError";
}

export interface SeparateArguments {
  readonly files: readonly string[];
  readonly out: string;
  readonly recipe: Recipe;
  readonly shapes: ShapeFilesWanted;
}

/** Reads the arguments of `separate`. Throws a UsageError. */
export function readArguments(argv: readonly string[]): SeparateArguments {
  try {
    const { values, positionals } = parseArgs({
      args: [...argv],
      allowPositionals: true,
      options: {
        colours: { type: "string", default: "auto" },
        width: { type: "string", default: "10.5in" },
        garment: { type: "string", default: "#ffffff" },
        trap: { type: "string", default: "0.3mm" },
        tolerance: { type: "string", default: "0.2" },
        shapes: { type: "string", default: "svg" },
        stacked: { type: "boolean", default: false },
        "per-colour": { type: "boolean", default: false },
        out: { type: "string", default: "." },
      },
    });
    if (positionals.length === 0) throw new RangeError("no file given");
    const width: Length = parseLength(values.width, "in");
    return {
      files: positionals,
      out: values.out,
      shapes: {
        formats: readFormats(values.shapes),
        stacking: values.stacked ? "stacked" : "abutting",
        isPerColour: values["per-colour"],
      },
      recipe: makeRecipe({
        artwork: { width, garment: formatHex(parseHex(values.garment)) },
        colours: { count: readCount(values.colours) },
        shapes: { tolerancePx: Number(values.tolerance) },
        separations: { trapMm: toMm(parseLength(values.trap, "mm")) },
      }),
    };
  } catch (error) {
    throw new UsageError(explain(error));
  }
}

function readFormats(text: string): ShapeFormat[] {
  return text.split(",").map((name) => {
    const format = SHAPE_FORMATS.find((known) => known === name.trim().toLowerCase());
    if (!format) throw new RangeError(`--shapes takes ${SHAPE_FORMATS.join(", ")}, not "${name}"`);
    return format;
  });
}

function readCount(text: string): number | null {
  if (text === "auto") return null;
  const count = Number(text);
  if (!Number.isInteger(count) || count < 1 || count > MAX_FOUND)
    throw new RangeError(`--colours takes "auto" or a number from 1 to ${MAX_FOUND}, not "${text}"`);
  return count;
}

function explain(error: unknown): string {
  if (typeof error === "object" && error !== null && "issues" in error && Array.isArray(error.issues))
    return error.issues.map((issue: { message: string }) => issue.message).join("; ");
  return error instanceof Error ? error.message : String(error);
}
