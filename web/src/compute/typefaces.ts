// Typefaces in a worker: fetched and opened when lettering first needs them, then kept.
import { typefaceListSchema } from "@plain-palette/contract";
import { openTypeface, type Typeface, type Typefaces } from "@plain-palette/core/typeface";

/** A typeface by its id and over how many files it is spread. */
export interface TypefaceRef {
  readonly id: string;
  readonly files: number;
}

export interface LoadedTypefaces extends Typefaces {
  /** Has these at hand; those that the shop does not have are left out. */
  need(ids: readonly string[]): Promise<void>;
}

/** Fetches and opens one. Rejects where it is not there or cannot be read. */
export async function fetchTypeface({ id, files }: TypefaceRef): Promise<Typeface> {
  const numbers = Array.from({ length: files }, (_, k) => k);
  const bytes = await Promise.all(
    numbers.map(async (k) => {
      const response = await fetch(`/api/typefaces/${id}/files/${k}`);
      if (!response.ok) throw new Error(`typeface ${id} is not here`);
      return new Uint8Array(await response.arrayBuffer());
    }),
  );
  return openTypeface(id, bytes);
}

export function makeLoadedTypefaces(): LoadedTypefaces {
  const opened = new Map<string, Typeface>();
  let listed: Promise<readonly TypefaceRef[]> | null = null;
  // What was put away is not listed, and has one file as all of the shop's own.
  const refOf = async (id: string): Promise<TypefaceRef> => {
    listed ??= fetch("/api/typefaces").then(async (response) => typefaceListSchema.parse(await response.json()));
    return (await listed.catch(() => [])).find((one) => one.id === id) ?? { id, files: 1 };
  };
  return {
    get: (id) => opened.get(id) ?? null,
    async need(ids) {
      await Promise.all(
        ids.map(async (id) => {
          if (opened.has(id)) return;
          const typeface = await fetchTypeface(await refOf(id)).catch(() => null);
          if (typeface) opened.set(id, typeface);
          else listed = null;
        }),
      );
    },
  };
}
