// A recipe for the same picture at another size: the one place where places and lengths in the client's pixels grow.
import { pictureUnits, z } from "../zod/index.ts";
import { type Recipe, recipeSchema } from "./recipe.ts";

/** The recipe for the same picture `factor` times as wide: every place, length and area in the client's pixels grows with it. */
export function scaleRecipe(recipe: Recipe, factor: number): Recipe {
  // The same value but for some numbers: of the schema's type still. Parsing it again would be felt under the hand.
  return scaleValue(recipeSchema, recipe, factor) as Recipe;
}

/** A value of a schema with the numbers grown that the schema says are pixels. */
function scaleValue(schema: unknown, value: unknown, factor: number): unknown {
  if (value === null || value === undefined) return value;
  if (
    schema instanceof z.ZodDefault ||
    schema instanceof z.ZodPrefault ||
    schema instanceof z.ZodOptional ||
    schema instanceof z.ZodNullable ||
    schema instanceof z.ZodLazy
  )
    return scaleValue(schema.unwrap(), value, factor);
  if (schema instanceof z.ZodNumber) return typeof value === "number" ? scaleNumber(schema, value, factor) : value;
  if (schema instanceof z.ZodUnion)
    return scaleValue(
      schema.options.find((option) => takes(option, value)),
      value,
      factor,
    );
  if (schema instanceof z.ZodObject)
    return mapFields(value, (key, field) => scaleValue(schema.shape[key], field, factor));
  if (schema instanceof z.ZodRecord) return mapFields(value, (_, field) => scaleValue(schema.valueType, field, factor));
  if (!Array.isArray(value)) return value;
  if (schema instanceof z.ZodArray) return value.map((one) => scaleValue(schema.element, one, factor));
  if (schema instanceof z.ZodTuple) return value.map((one, i) => scaleValue(schema.def.items[i], one, factor));
  return value;
}

/** Whether a value is of this option of a union; entries are told apart by their kind. */
function takes(option: unknown, value: unknown): boolean {
  if (option instanceof z.ZodUnion) return option.options.some((one) => takes(one, value));
  const kind = option instanceof z.ZodObject ? option.shape.kind : null;
  if (!(kind instanceof z.ZodLiteral)) return option instanceof z.ZodType && option.safeParse(value).success;
  return typeof value === "object" && value !== null && "kind" in value && kind.value === value.kind;
}

function mapFields(value: unknown, change: (key: string, field: unknown) => unknown): unknown {
  return Object.fromEntries(Object.entries(value ?? {}).map(([key, field]) => [key, change(key, field)]));
}

/** Whole where it was, and within what is allowed. */
function scaleNumber(schema: z.ZodNumber, value: number, factor: number): number {
  const unit = pictureUnits.get(schema)?.unit;
  if (!unit) return value;
  const grown = value * (unit === "px" ? factor : factor * factor);
  const whole = schema.isInt || unit === "px2" ? Math.round(grown) : grown;
  return Math.min(schema.maxValue ?? whole, Math.max(schema.minValue ?? whole, whole));
}
