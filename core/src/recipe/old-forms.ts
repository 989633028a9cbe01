// Recipes are kept for years: those of an earlier form are brought over when they are read.
import { FIRST_PROCESS } from "../processes/index.ts";

/** The form in which recipes are written. */
export const FORMAT = 2;

/** A recipe of any form, or parts of one, in today's form; what is no recipe at all is left for the schema to refuse. */
export function bringOver(value: unknown): unknown {
  if (!isRecord(value) || !(value.format === 1 || (value.format === undefined && isOfFirstForm(value)))) return value;
  const { format: _, shapes, colours, separations, output, ...rest } = value;
  const { order, ...plates } = isRecord(separations) ? separations : {};
  const parts = {
    shapes: isRecord(shapes) ? withEntries(shapes) : shapes,
    colours: order === undefined ? colours : { ...(isRecord(colours) ? colours : {}), order },
    processes:
      separations === undefined && output === undefined
        ? undefined
        : { [FIRST_PROCESS.id]: { ...plates, ...(output === undefined ? {} : { films: output }) } },
  };
  const there = Object.entries(parts).filter(([, part]) => part !== undefined);
  return { ...rest, format: FORMAT, ...Object.fromEntries(there) };
}

/** Parts of a recipe need not say their form. */
function isOfFirstForm({ shapes, separations, output }: Readonly<Record<string, unknown>>): boolean {
  return separations !== undefined || output !== undefined || (isRecord(shapes) && "simplify" in shapes);
}

/** Form 1 had a list of simplifications alone; now they are entries among others. */
function withEntries({ simplify, ...rest }: Readonly<Record<string, unknown>>): unknown {
  if (simplify === undefined) return rest;
  const entries = Array.isArray(simplify)
    ? simplify.map((one: unknown) => (isRecord(one) ? { ...one, kind: "simplify" } : one))
    : simplify;
  return { ...rest, entries };
}

function isRecord(value: unknown): value is Readonly<Record<string, unknown>> {
  return typeof value === "object" && value !== null && !Array.isArray(value);
}
