// The shell's arguments, read once at the border. Every refusal is one line: the option, what was given, what is allowed.
import { readFileSync } from "node:fs";
import { parseArgs } from "node:util";
import { formatHex, parseHex } from "@plain-palette/core/colour";
import { SHAPE_FORMATS, type ShapeFormat } from "@plain-palette/core/formats";
import { formatLength, type Length, parseLength, toMm } from "@plain-palette/core/geometry";
import type { ShellOption } from "@plain-palette/core/process";
import { allProcesses } from "@plain-palette/core/processes";
import {
  bringOver,
  MAX_PRINT_MM,
  MIN_PRINT_MM,
  makeRecipe,
  RECIPE_LIMITS,
  type Recipe,
  recipeSchema,
  type ShapeWishes,
} from "@plain-palette/core/recipe";
import { MAX_FOUND } from "@plain-palette/core/reduce";

const PROCESSES = allProcesses();
/** What processes let the shell set. */
const PROCESS_OPTIONS = PROCESSES.flatMap(({ shellOptions }) => shellOptions);
const PROCESS_USAGE = PROCESS_OPTIONS.map((one) => `[--${one.name}${one.kind === "flag" ? "" : ` ${one.example}`}]`);

export const USAGE = `usage: npm run -s separate -- FILE... [--recipe FILE] [--background away|keep] [--colours N|auto] [--width 10.5in] [--garment '#1d2a44'] [--process ${PROCESSES.map(({ id }) => id).join("|")}] ${PROCESS_USAGE.join(" ")} [--tolerance 0.2] [--font FILE]... [--motif FILE]... [--shapes svg,pdf,eps,dxf] [--stacked] [--per-colour] [--out DIR]`;

/** A wrong call; the message says what is wrong with it. `needsUsage`: the call as a whole is not understood. */
export class UsageError extends Error {
  override readonly name = "UsageError";
  constructor(
    message: string,
    readonly needsUsage = false,
  ) {
    super(message);
  }
}

export interface SeparateArguments {
  readonly files: readonly string[];
  readonly out: string;
  readonly recipe: Recipe;
  /** Whether the background is taken away as the page would propose it. */
  readonly takesBackground: boolean;
  /** Font files that lettering is set in, beside those that are shipped. */
  readonly fonts: readonly string[];
  readonly motifs: readonly string[];
  readonly shapes: ShapeWishes;
}

const PARSED = {
  length: { type: "string" },
  words: { type: "string", multiple: true },
  flag: { type: "boolean" },
} as const;

const OPTIONS = {
  recipe: { type: "string" },
  background: { type: "string", default: "keep" },
  colours: { type: "string" },
  width: { type: "string" },
  garment: { type: "string" },
  process: { type: "string" },
  tolerance: { type: "string" },
  font: { type: "string", multiple: true, default: [] as string[] },
  motif: { type: "string", multiple: true, default: [] as string[] },
  shapes: { type: "string", default: "svg" },
  stacked: { type: "boolean", default: false },
  "per-colour": { type: "boolean", default: false },
  out: { type: "string", default: "." },
} as const;

/** Reads the arguments of `separate`. Throws a UsageError. */
export function readArguments(argv: readonly string[]): SeparateArguments {
  const { values, positionals } = parse(joinWords(joinNegatives(argv)));
  const recipe = applyOptions(values.recipe === undefined ? makeRecipe() : readRecipe(values.recipe), values);
  const takesBackground = readBackground(values.background);
  const formats = readFormats(values.shapes);
  if (values.out === "") throw new UsageError('--out takes a folder, not ""');
  if (positionals.length === 0) throw new UsageError("no file given", true);
  const stacking = values.stacked ? "stacked" : "abutting";
  return {
    files: positionals,
    out: values.out,
    recipe,
    takesBackground,
    fonts: values.font,
    motifs: values.motif,
    shapes: { formats, stacking, isPerColour: values["per-colour"] },
  };
}

function parse(argv: readonly string[]) {
  try {
    const options = {
      ...Object.fromEntries(PROCESS_OPTIONS.map(({ name, kind }) => [name, PARSED[kind]])),
      ...OPTIONS,
    };
    return parseArgs({ args: [...argv], allowPositionals: true, options });
  } catch (error) {
    // The library's advice is for programmers; its first sentence says what is wrong.
    const advice = error instanceof Error ? error.message : String(error);
    throw new UsageError(advice.replace(/(\.\s|\n)[\s\S]*/, ""), true);
  }
}

/** `--width -5in` as one word: a value that begins with a dash would be taken for an option. */
function joinNegatives(argv: readonly string[]): string[] {
  const joined: string[] = [];
  for (const word of argv) {
    const before = joined.at(-1);
    if (/^-[\d.,]/.test(word) && before?.startsWith("--") && !before.includes("="))
      joined[joined.length - 1] += `=${word}`;
    else joined.push(word);
  }
  return joined;
}

/** `--solid a b` as `--solid=a,b`: as many words follow as the option takes. */
function joinWords(argv: readonly string[]): string[] {
  const joined: string[] = [];
  for (const word of argv) {
    const [, name, begun] = /^--([^=]+)(=?)/.exec(joined.at(-1) ?? "") ?? [];
    const option = PROCESS_OPTIONS.find((one) => one.name === name);
    if (option?.kind === "words" && word.split(",").every((part) => option.isWord(part)))
      joined[joined.length - 1] += `${begun ? "," : "="}${word}`;
    else joined.push(word);
  }
  return joined;
}

type Values = ReturnType<typeof parse>["values"];

/** The recipe with what the other options say. */
function applyOptions(recipe: Recipe, values: Values): Recipe {
  const { width, garment, colours, tolerance, process } = values;
  const { artwork } = recipe;
  const applied = {
    ...recipe,
    process: process === undefined ? recipe.process : readProcess(process),
    artwork: {
      ...artwork,
      ...(width === undefined ? {} : { width: readWidth(width), height: null }),
      ...(garment === undefined ? {} : { garment: readGarment(garment) }),
    },
    colours: colours === undefined ? recipe.colours : { ...recipe.colours, count: readCount(colours) },
    shapes: tolerance === undefined ? recipe.shapes : { ...recipe.shapes, tolerancePx: readTolerance(tolerance) },
  };
  const said = new Map<string, unknown>(Object.entries(values));
  return PROCESSES.reduce(
    (next, process) =>
      process.shellOptions.reduce((so, option) => {
        const part = readProcessOption(option, said.get(option.name), process.settingsIn(so));
        return part === null ? so : process.withSettings(so, part);
      }, next),
    applied,
  );
}

/** What an option changes of its process's settings; null where it was not said. */
function readProcessOption(option: ShellOption<unknown>, said: unknown, settings: unknown): object | null {
  if (option.kind === "flag") return said === true ? option.set() : null;
  if (option.kind === "length") return typeof said === "string" ? option.set(readMm(option, said)) : null;
  if (!Array.isArray(said)) return null;
  const words = said.flatMap((text: string) => text.split(",")).map((word) => word.trim());
  const wrong = words.find((word) => !option.isWord(word));
  if (wrong !== undefined) throw new UsageError(`--${option.name} takes ${option.takes}, not "${wrong}"`);
  return option.set(words, settings);
}

/** A whole recipe from a file, as the Output step gives it out. */
function readRecipe(file: string): Recipe {
  const refuse = (reason: string) =>
    new UsageError(`--recipe takes a recipe.json as the Output step gives it out; ${file} ${reason}`);
  let text: string;
  try {
    text = readFileSync(file, "utf8");
  } catch (error) {
    throw refuse((error as NodeJS.ErrnoException).code === "ENOENT" ? "does not exist" : "cannot be read");
  }
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    throw refuse("is not JSON");
  }
  const parsed = recipeSchema.safeParse(bringOver(json));
  if (parsed.success) return parsed.data;
  const [first] = parsed.error.issues;
  throw refuse(`is wrong at ${first?.path.join(".") || "its top"}: ${first?.message}`);
}

function readBackground(text: string): boolean {
  if (text !== "away" && text !== "keep") throw new UsageError(`--background takes away or keep, not "${text}"`);
  return text === "away";
}

function readWidth(text: string): Length {
  const allowed = `${MIN_PRINT_MM} to ${MAX_PRINT_MM} mm (${formatLength(MIN_PRINT_MM, "in")} to ${formatLength(MAX_PRINT_MM, "in")})`;
  return readLength("--width", text, "in", MIN_PRINT_MM, MAX_PRINT_MM, allowed);
}

function readProcess(text: string): string {
  if (PROCESSES.some(({ id }) => id === text)) return text;
  throw new UsageError(`--process takes ${PROCESSES.map(({ id }) => id).join(" or ")}, not "${text}"`);
}

function readMm(
  { name, min, max }: { readonly name: string; readonly min: number; readonly max: number },
  text: string,
): number {
  return toMm(readLength(`--${name}`, text, "mm", min, max, `${min} to ${max} mm`));
}

function readLength(
  option: string,
  text: string,
  unit: Length["unit"],
  min: number,
  max: number,
  allowed: string,
): Length {
  const refusal = new UsageError(`${option} takes ${allowed}, not "${text}"`);
  let length: Length;
  try {
    length = parseLength(text, unit);
  } catch {
    throw refusal;
  }
  // Rounding in a unit's own digits must not refuse the limit itself.
  const mm = toMm(length);
  if (mm < min - 1e-9 || mm > max + 1e-9) throw refusal;
  return length;
}

function readGarment(text: string): string {
  try {
    return formatHex(parseHex(text));
  } catch {
    throw new UsageError(`--garment takes a colour as #rrggbb, not "${text}"`);
  }
}

function readTolerance(text: string): number {
  const { min, max } = RECIPE_LIMITS.tolerancePx;
  const value = text.trim() === "" ? Number.NaN : Number(text.replace(/\s*px$/, ""));
  if (!(value >= min && value <= max)) throw new UsageError(`--tolerance takes ${min} to ${max} px, not "${text}"`);
  return value;
}

function readFormats(text: string): ShapeFormat[] {
  return text.split(",").map((name) => {
    const format = SHAPE_FORMATS.find((known) => known === name.trim().toLowerCase());
    if (!format) throw new UsageError(`--shapes takes ${SHAPE_FORMATS.join(", ")}, not "${name}"`);
    return format;
  });
}

function readCount(text: string): number | null {
  if (text === "auto") return null;
  const count = Number(text);
  if (text.trim() === "" || !Number.isInteger(count) || count < 1 || count > MAX_FOUND)
    throw new UsageError(`--colours takes auto or 1 to ${MAX_FOUND}, not "${text}"`);
  return count;
}
