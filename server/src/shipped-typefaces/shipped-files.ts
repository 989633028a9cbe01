// Where the files of shipped typefaces lie, and what is in them.
import { readdirSync } from "node:fs";
import { readFile } from "node:fs/promises";
import { createRequire } from "node:module";
import { dirname, join } from "node:path";
import type { ListedTypeface } from "@plain-palette/contract";
import { unpackWoff } from "@plain-palette/core/typeface";
import { DEJAVU_FILES, FONTSOURCE_FAMILIES } from "./shipped.ts";

const require = createRequire(import.meta.url);

/** Parts into which families are split, the most used first, and the scripts they carry. */
const PARTS: Readonly<Record<string, readonly string[]>> = {
  latin: ["Latin", "Latin with accents"],
  "latin-ext": ["Central European"],
  greek: ["Greek"],
  "greek-ext": [],
  cyrillic: ["Cyrillic"],
  "cyrillic-ext": [],
  hebrew: ["Hebrew"],
  arabic: ["Arabic"],
  devanagari: ["Devanagari"],
  vietnamese: ["Vietnamese"],
};

const STYLES: Readonly<Record<number, string>> = {
  400: "Regular",
  500: "Medium",
  600: "Semibold",
  700: "Bold",
  800: "Extra bold",
  900: "Black",
};

interface Shipped {
  readonly listed: ListedTypeface;
  readonly paths: readonly string[];
}

let all: ReadonlyMap<string, Shipped> | null = null;

function shipped(): ReadonlyMap<string, Shipped> {
  all ??= new Map([...fontsource(), ...dejavu()].map((one) => [one.listed.id, one]));
  return all;
}

function fontsource(): Shipped[] {
  return FONTSOURCE_FAMILIES.flatMap(({ family, kind, weights }) => {
    const name = family.toLowerCase().replaceAll(" ", "-");
    const folder = join(dirname(require.resolve(`@fontsource/${name}/package.json`)), "files");
    const there = new Set(readdirSync(folder));
    return weights.map((weight) => {
      const parts = Object.keys(PARTS).filter((part) => there.has(`${name}-${part}-${weight}-normal.woff`));
      const listed: ListedTypeface = {
        id: `${name}-${weight}`,
        family,
        style: STYLES[weight] ?? String(weight),
        kind,
        scripts: parts.flatMap((part) => PARTS[part] ?? []),
        files: parts.length,
        origin: { kind: "shipped", licence: "SIL Open Font License 1.1" },
      };
      return { listed, paths: parts.map((part) => join(folder, `${name}-${part}-${weight}-normal.woff`)) };
    });
  });
}

function dejavu(): Shipped[] {
  return DEJAVU_FILES.map(({ file, ...one }) => ({
    listed: {
      ...one,
      style: "Bold",
      scripts: ["Latin", "Latin with accents", "Central European", "Greek", "Cyrillic", "Vietnamese"],
      files: 1,
      origin: { kind: "shipped", licence: "Bitstream Vera" },
    },
    paths: [require.resolve(`dejavu-fonts-ttf/ttf/${file}.ttf`)],
  }));
}

export function shippedTypefaces(): ListedTypeface[] {
  return [...shipped().values()].map(({ listed }) => listed);
}

/** Larger than any that is shipped. */
const MOST_BYTES = 2 ** 24;

/** Font files (sfnt) of a shipped typeface, the most important first; null for one that is not shipped. */
export async function readShippedFiles(id: string): Promise<Uint8Array[] | null> {
  const found = shipped().get(id);
  if (!found) return null;
  return Promise.all(found.paths.map(readOne));
}

/** One of them, by its number from 0; null where there is none. */
export async function readShippedFile(id: string, number: number): Promise<Uint8Array | null> {
  const path = shipped().get(id)?.paths[number];
  return path === undefined ? null : readOne(path);
}

async function readOne(path: string): Promise<Uint8Array> {
  const bytes = await readFile(path);
  return path.endsWith(".woff") ? unpackWoff(bytes, MOST_BYTES) : bytes;
}
