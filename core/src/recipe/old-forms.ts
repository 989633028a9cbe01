// Recipes are kept for years: those of an earlier form are brought over when they are read, one form after the other.
import { FIRST_PROCESS } from "../processes/index.ts";

/** The form in which recipes are written. */
export const FORMAT = 3;

type Parts = Readonly<Record<string, unknown>>;

/** A recipe of any form, or parts of one, in today's form; what is no recipe at all is left for the schema to refuse. */
export function bringOver(value: unknown): unknown {
  if (!isRecord(value)) return value;
  const second = isOfForm(1, value, hasFirstForm) ? toSecondForm(value) : value;
  return isOfForm(2, second, hasSecondForm) ? toThirdForm(second) : second;
}

/** Parts of a recipe need not say their form, if nothing in them has another in a later one. */
function isOfForm(form: number, parts: Parts, looksLikeIt: (parts: Parts) => boolean): boolean {
  return parts.format === form || (parts.format === undefined && looksLikeIt(parts));
}

function hasFirstForm({ shapes, separations, output }: Parts): boolean {
  return separations !== undefined || output !== undefined || (isRecord(shapes) && "simplify" in shapes);
}

/** Form 1 had screens' settings beside the others', and the order of spots among them. */
function toSecondForm({ format: _, shapes, colours, separations, output, ...rest }: Parts): Parts {
  const { order, ...plates } = isRecord(separations) ? separations : {};
  return {
    ...rest,
    format: 2,
    ...thoseThere({
      shapes: isRecord(shapes) ? withEntries(shapes) : shapes,
      colours: order === undefined ? colours : { ...(isRecord(colours) ? colours : {}), order },
      processes:
        separations === undefined && output === undefined
          ? undefined
          : { [FIRST_PROCESS.id]: { ...plates, ...thoseThere({ films: output }) } },
    }),
  };
}

/** Form 1 had a list of simplifications alone; since then they are entries among others. */
function withEntries({ simplify, ...rest }: Parts): Parts {
  if (simplify === undefined) return rest;
  const entries = Array.isArray(simplify)
    ? simplify.map((one: unknown) => (isRecord(one) ? { ...one, kind: "simplify" } : one))
    : simplify;
  return { ...rest, entries };
}

function hasSecondForm({ colours, processes }: Parts): boolean {
  return (isRecord(colours) && "spots" in colours) || "spots" in baseIn(processes);
}

/** Form 2 said `spots` where it meant what was decided on each. */
function toThirdForm({ colours, processes, ...rest }: Parts): Parts {
  const screens = isRecord(processes) ? processes[FIRST_PROCESS.id] : undefined;
  const base = baseIn(processes);
  return {
    ...rest,
    format: FORMAT,
    ...thoseThere({
      colours: isRecord(colours) ? withDecided(colours) : colours,
      processes:
        isRecord(processes) && isRecord(screens) && "spots" in base
          ? { ...processes, [FIRST_PROCESS.id]: { ...screens, base: withDecided(base) } }
          : processes,
    }),
  };
}

function baseIn(processes: unknown): Parts {
  const screens = isRecord(processes) ? processes[FIRST_PROCESS.id] : undefined;
  return isRecord(screens) && isRecord(screens.base) ? screens.base : {};
}

function withDecided({ spots, ...rest }: Parts): Parts {
  return { ...rest, ...thoseThere({ decided: spots }) };
}

function thoseThere(parts: Parts): Parts {
  return Object.fromEntries(Object.entries(parts).filter(([, part]) => part !== undefined));
}

function isRecord(value: unknown): value is Parts {
  return typeof value === "object" && value !== null && !Array.isArray(value);
}
