// All files of a job: what its process gives out, its shapes, its report and its recipe.
import { layShapes, type ShapeFormat, type Stacking, writeShapeFiles } from "../formats/index.ts";
import type { OutputFacts } from "../output/index.ts";
import type { Outputs } from "../process/index.ts";
import { orderSpots } from "../reduce/index.ts";
import type { Results } from "./pipeline.ts";
import { mmPerPixel, type Recipe } from "./recipe.ts";
import { makeReport, type Report } from "./report.ts";

/** How shapes are given out. */
export interface ShapeWishes {
  readonly formats: readonly ShapeFormat[];
  readonly stacking: Stacking;
  readonly isPerColour: boolean;
}

export interface MadeFile {
  readonly name: string;
  readonly mediaType: string;
  readonly bytes: Uint8Array;
}

const SHAPE_TYPES: Readonly<Record<ShapeFormat, string>> = {
  svg: "image/svg+xml",
  pdf: "application/pdf",
  eps: "application/postscript",
  dxf: "image/vnd.dxf",
};

/** The files of the job's processes, and what a person should know of them. */
export async function listOutputs({ made }: Results, facts: OutputFacts): Promise<Outputs> {
  const all = await Promise.all(made.map((product) => product.outputs(facts)));
  return { outputs: all.flatMap(({ outputs }) => outputs), notes: all.flatMap(({ notes }) => notes) };
}

/**
 * The files that every job has beside them: shapes, report and recipe, and the report itself. `timingsMs` is measured by the
 * caller; `notes` are warnings of what core does not see.
 */
export async function makeCommonFiles(
  recipe: Recipe,
  results: Results,
  shapes: ShapeWishes,
  date: Date,
  timingsMs: Record<string, number>,
  notes: readonly string[],
): Promise<{ readonly files: readonly MadeFile[]; readonly report: Report }> {
  const { map, prepared, reduction } = results;
  const mmPerPx = mmPerPixel(recipe, prepared.raster);
  const drawing = layShapes(map, orderSpots(reduction.spots, recipe.colours.order), mmPerPx, shapes.stacking);
  const drawn = await Promise.all(
    shapes.formats.map(async (format) => {
      const written = await writeShapeFiles(drawing, format, shapes.isPerColour, date);
      return written.map((file) => ({ ...file, mediaType: SHAPE_TYPES[format] }));
    }),
  );
  const report = makeReport(recipe, results, timingsMs, notes);
  return {
    files: [...drawn.flat(), jsonFile("report.json", report), jsonFile("recipe.json", recipe)],
    report,
  };
}

function jsonFile(name: string, value: unknown): MadeFile {
  const bytes = new TextEncoder().encode(`${JSON.stringify(value, null, 2)}\n`);
  return { name, mediaType: "application/json", bytes };
}
