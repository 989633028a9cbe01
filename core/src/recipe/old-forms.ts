// Recipes are kept for years: those of an earlier form are brought over when they are read.

/** The form in which recipes are written. */
export const FORMAT = 2;

/** A recipe of any form, or parts of one, in today's form; what is no recipe at all is left for the schema to refuse. */
export function bringOver(value: unknown): unknown {
  if (!isRecord(value)) return value;
  const { format, shapes, ...rest } = value;
  if (format === FORMAT || (format === undefined && !(isRecord(shapes) && "simplify" in shapes))) return value;
  return format === undefined || format === 1 ? { ...rest, format: FORMAT, shapes: withEntries(shapes) } : value;
}

/** Form 1 had a list of simplifications alone; now they are entries among others. */
function withEntries(shapes: unknown): unknown {
  if (!isRecord(shapes)) return shapes;
  const { simplify, ...rest } = shapes;
  if (!Array.isArray(simplify)) return rest;
  return { ...rest, entries: simplify.map((one: unknown) => (isRecord(one) ? { ...one, kind: "simplify" } : one)) };
}

function isRecord(value: unknown): value is Readonly<Record<string, unknown>> {
  return typeof value === "object" && value !== null && !Array.isArray(value);
}
