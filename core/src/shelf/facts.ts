// What is to be known of stock besides its colour, as words and values: columns of tables, tags of files.
import { STONE_SIZES } from "../trade/index.ts";
import { FILM_FACT_KEYS, FILM_FACTS, readFilm } from "./film.ts";
import { readKeptStones } from "./kept-stones.ts";
import type { Stock } from "./stock.ts";

/** Of films first, then how many stones there are of each size. */
export const FACT_WORDS: readonly string[] = [...FILM_FACT_KEYS.map((key) => FILM_FACTS[key].word), ...STONE_SIZES];

/** Values in the order of their words; null where nothing is known. */
export function factsOf({ film, stones }: Pick<Stock, "film" | "stones">): readonly (number | null)[] {
  return [...FILM_FACT_KEYS.map((key) => film?.[key] ?? null), ...STONE_SIZES.map((size) => stones?.[size] ?? null)];
}

/** What cells or tags say. A cell that is no number is left for the schema to refuse. */
export function readFacts(cellOf: (word: string) => string | undefined) {
  return { film: readFilm(cellOf), stones: readKeptStones(cellOf) };
}
