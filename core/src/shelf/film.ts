// What is to be known of a transfer film besides its colour.
import { z } from "../zod/index.ts";

/** Each with the word that tables and files have for it, and within which limits it is believed. */
export const FILM_FACTS = {
  rollWidthMm: { word: "Roll mm", min: 50, max: 2000 },
  pricePerMetre: { word: "Price a metre", min: 0, max: 10_000 },
  tackS: { word: "Tack s", min: 0, max: 600 },
  finalS: { word: "Final s", min: 0, max: 600 },
  celsius: { word: "Press C", min: 0, max: 300 },
} as const;
export type FilmFact = keyof typeof FILM_FACTS;
export const FILM_FACT_KEYS = Object.keys(FILM_FACTS) as FilmFact[];

const fact = (key: FilmFact) => z.number().min(FILM_FACTS[key].min).max(FILM_FACTS[key].max).nullable().default(null);

/** Null: the shop's number for all of its films. */
export const filmSchema = z.object({
  rollWidthMm: fact("rollWidthMm"),
  pricePerMetre: fact("pricePerMetre"),
  tackS: fact("tackS"),
  finalS: fact("finalS"),
  celsius: fact("celsius"),
} satisfies Record<FilmFact, z.ZodType>);
export type Film = z.infer<typeof filmSchema>;

/** What is known of a film from cells of a table; null where nothing is. A cell that is no number is left for the schema to refuse. */
export function readFilm(cellOf: (word: string) => string | undefined): Record<FilmFact, number | null> | null {
  const facts = FILM_FACT_KEYS.map((key) => {
    const cell = cellOf(FILM_FACTS[key].word)?.trim() ?? "";
    return [key, cell === "" ? null : Number(cell.replace(",", "."))] as const;
  });
  return facts.some(([, value]) => value !== null)
    ? (Object.fromEntries(facts) as Record<FilmFact, number | null>)
    : null;
}
