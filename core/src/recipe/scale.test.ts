import { describe, expect, it } from "vitest";
import { z } from "../zod/index.ts";
import { makeRecipe, recipeSchema, scaleRecipe } from "./index.ts";

/** Numbers of a recipe that stay as they are when its picture grows: counts, angles, shares, colours, sizes on the garment. */
const STAY = [
  "format",
  "artwork.width.value",
  "artwork.height.value",
  "artwork.placement.widthMm",
  "artwork.placement.areaWidthMm",
  "artwork.placement.areaHeightMm",
  "artwork.page",
  "artwork.drawnWidthPx",
  "artwork.actions.turn.quarters",
  "artwork.actions.straighten.angleDeg",
  "artwork.actions.keystone.ratio",
  "artwork.actions.line-art.cutOff",
  "artwork.actions.line-art.k",
  "artwork.actions.pick.tolerance",
  "colours.count",
  "colours.pieces",
  "colours.decided.one.stock.difference",
  "colours.decided.one.stock.film.rollWidthMm",
  "colours.decided.one.stock.film.pricePerMetre",
  "colours.decided.one.stock.film.tackS",
  "colours.decided.one.stock.film.finalS",
  "colours.decided.one.stock.film.celsius",
  ...["SS6", "SS8", "SS10", "SS12", "SS16", "SS20", "SS30", "SS34"].map(
    (size) => `colours.decided.one.stock.stones.${size}`,
  ),
  // How curves follow the prepared picture, whatever its size.
  "shapes.tolerancePx",
  "shapes.specksPx",
  "shapes.cornerDeg",
  "shapes.thinnestPx",
  "shapes.entries.simplify.tolerancePx",
  "shapes.entries.draw.figure.angleDeg",
  "shapes.entries.draw.figure.corners",
  "shapes.entries.draw.heldMm",
  "shapes.entries.lettering.baseline.angleDeg",
  "shapes.entries.lettering.baseline.share",
  "shapes.entries.lettering.widthPercent",
  "shapes.entries.lettering.slantDeg",
  "shapes.entries.lettering.letterSpacing",
  "shapes.entries.lettering.lineSpacing",
  "shapes.entries.lettering.nudges.at",
  "shapes.entries.lettering.nudges.right",
  "shapes.entries.lettering.nudges.down",
  "shapes.entries.lettering.nudges.angleDeg",
  "shapes.entries.lettering.nudges.scale",
  "proof.belowMm",
  "proof.asideMm",
  "shapes.entries.motif.motif.widthMm",
  "shapes.entries.motif.motif.heightMm",
  "shapes.entries.motif.places.angleDeg",
  "shapes.entries.motif.row.angleDeg",
  "shapes.entries.motif.row.columns",
  "shapes.entries.motif.row.rows",
  "shapes.entries.motif.row.count",
  "shapes.entries.motif.row.spanDeg",
  "shapes.entries.pieces.placed.angleDeg",
  "shapes.entries.pieces.placed.scaleX",
  "shapes.entries.pieces.placed.scaleY",
  "shapes.entries.round.diameterMm",
  "processes.screens.trapMm",
  "processes.screens.base.chokeMm",
  "processes.screens.base.thinnestMm",
  "processes.screens.films.sheetMm.width",
  "processes.screens.films.sheetMm.height",
  "processes.transfer.lapMm",
  "processes.transfer.toleranceMm",
  "processes.transfer.limits.stripMm",
  "processes.transfer.limits.gapMm",
  "processes.transfer.limits.islandMm",
  "processes.transfer.press.celsius",
  "processes.transfer.press.tackS",
  "processes.transfer.press.finalS",
  "processes.transfer.printed.distanceMm",
  "processes.transfer.printed.closesHolesMm",
  "processes.transfer.printed.bleedMm",
  "processes.transfer.sheets.rollWidthMm",
  "processes.transfer.sheets.pricePerMetre",
  "processes.transfer.sheets.gapMm",
  "processes.transfer.sheets.edgeMm",
  "processes.transfer.sheets.boxMm",
  "processes.transfer.sheets.weedLinesMm",
  "processes.stitches.everywhere.angleDeg",
  "processes.stitches.everywhere.spacingMm",
  "processes.stitches.everywhere.stitchMm",
  "processes.stitches.everywhere.pullMm",
  "processes.stitches.everywhere.passes",
  "processes.stitches.everywhere.border.widthMm",
  "processes.stitches.decided.one.angleDeg",
  "processes.stitches.decided.one.spacingMm",
  "processes.stitches.decided.one.stitchMm",
  "processes.stitches.decided.one.pullMm",
  "processes.stitches.decided.one.passes",
  "processes.stitches.decided.one.border.widthMm",
  "processes.stitches.areas.angleDeg",
  "processes.stitches.areas.spacingMm",
  "processes.stitches.areas.stitchMm",
  "processes.stitches.areas.pullMm",
  "processes.stitches.areas.passes",
  "processes.stitches.areas.border.widthMm",
  "processes.stitches.hoop.widthMm",
  "processes.stitches.hoop.heightMm",
  "processes.stitches.machine.stitchesPerMinute",
  "processes.stitches.machine.changeS",
  "processes.stitches.machine.trimS",
  "processes.stitches.machine.perThousand",
  "processes.stitches.machine.mostPerMm2",
  "processes.stitches.machine.mostLayers",
  ...["everywhere", "decided.one", "areas"].flatMap((place) =>
    ["angleDeg", "thinning"].map((key) => `processes.stones.${place}.${key}`),
  ),
  "processes.stones.gapMm",
  "processes.stones.overShare",
  "processes.stones.hand.shift.halfGaps",
  "processes.stones.shop.gapMm",
  "processes.stones.shop.leastMm",
  "processes.stones.shop.lossPercent",
];

/** Values of a schema that together have every field of it: one for each option of a union. */
function examples(schema: unknown): unknown[] {
  if (schema instanceof z.ZodDefault || schema instanceof z.ZodPrefault || schema instanceof z.ZodOptional)
    return examples(schema.unwrap());
  if (schema instanceof z.ZodNullable || schema instanceof z.ZodLazy) return examples(schema.unwrap());
  if (schema instanceof z.ZodUnion) return schema.options.flatMap(examples);
  if (schema instanceof z.ZodArray) return [examples(schema.element)];
  if (schema instanceof z.ZodTuple) return [schema.def.items.map((item) => examples(item)[0])];
  if (schema instanceof z.ZodRecord) return [{ one: examples(schema.valueType)[0] }];
  if (schema instanceof z.ZodLiteral) return [schema.value];
  if (schema instanceof z.ZodNumber) return [exampleNumber(schema)];
  if (!(schema instanceof z.ZodObject)) return [undefined];
  // Fields of several examples: as many objects as the longest has, shorter ones from their beginning again.
  const fields = Object.entries(schema.shape).map(([key, field]) => ({ key, values: examples(field) }));
  const most = Math.max(1, ...fields.map(({ values }) => values.length));
  return Array.from({ length: most }, (_, i) =>
    Object.fromEntries(fields.map(({ key, values }) => [key, values[i % values.length]])),
  );
}

function exampleNumber({ minValue, maxValue }: z.ZodNumber): number {
  const [least, most] = [Math.max(minValue ?? 0, 0), maxValue ?? 1000];
  return Math.min(most, Math.max(least, 8));
}

/** Every number of a value with its place; entries of a list are named by their kind. */
function numbersOf(value: unknown, at = ""): [string, number][] {
  if (typeof value === "number") return [[at, value]];
  if (Array.isArray(value)) return value.flatMap((one) => numbersOf(one, kindOf(one) ? `${at}.${kindOf(one)}` : at));
  if (typeof value !== "object" || value === null) return [];
  return Object.entries(value).flatMap(([key, field]) => numbersOf(field, at ? `${at}.${key}` : key));
}

function kindOf(value: unknown): unknown {
  return typeof value === "object" && value !== null && "kind" in value ? value.kind : null;
}

describe("a recipe for a larger picture", () => {
  it("has every place and length of the schema grown, and nothing else", () => {
    const everything = examples(recipeSchema) as Parameters<typeof scaleRecipe>[0][];
    const stayed = new Set<string>();
    const grown = new Set<string>();
    for (const recipe of everything) {
      const before = numbersOf(recipe);
      numbersOf(scaleRecipe(recipe, 2)).forEach(([at, value], i) => {
        expect(at).toBe(before[i][0]);
        (value === before[i][1] ? stayed : grown).add(at);
      });
    }
    expect([...stayed].sort()).toEqual([...STAY].sort());
    expect([...grown]).toEqual(
      expect.arrayContaining(["artwork.actions.crop.width", "colours.corrections.divide.line"]),
    );
    expect([...grown].filter((at) => STAY.includes(at))).toEqual([]);
  });

  it("has areas grown with their sides, whole windows, and nothing beyond what is allowed", () => {
    const recipe = makeRecipe({
      artwork: {
        actions: [
          { id: "a", kind: "specks", maxPx: 9 },
          { id: "b", kind: "line-art", windowPx: 51 },
          { id: "c", kind: "crop", x: 10, y: 20, width: 150_000, height: 30 },
        ],
      },
    });
    const [specks, lineArt, crop] = scaleRecipe(recipe, 1.5).artwork.actions;
    expect(specks).toMatchObject({ maxPx: 20 });
    expect(lineArt).toMatchObject({ windowPx: 77 });
    expect(crop).toMatchObject({ x: 15, y: 30, width: 200_000, height: 45 });
    expect(recipeSchema.safeParse(scaleRecipe(recipe, 1e-6)).success).toBe(true);
  });
});
