// Typefaces that a recipe is set in, opened before it is computed.
import { openTypeface, type Typeface, type Typefaces } from "./typeface.ts";

/** A typeface's files (sfnt), the most important first. */
export interface FontFiles {
  readonly id: string;
  readonly files: readonly Uint8Array[];
}

export async function openTypefaces(fonts: readonly FontFiles[]): Promise<Typefaces> {
  const opened = new Map<string, Typeface>();
  for (const { id, files } of fonts) opened.set(id, await openTypeface(id, files));
  return { get: (id) => opened.get(id) ?? null };
}
