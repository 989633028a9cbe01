// The worker that looks for a typeface: lays one after the other on the old letters and tells of the best so far.
import type { CubicPath } from "@plain-palette/core/geometry";
import { type FoundTypeface, setLettering, tryOn } from "@plain-palette/core/lettering";
import { fetchTypeface, type TypefaceRef } from "./typefaces.ts";

export interface FindRequest {
  /** The old letters, pixels of the prepared picture, and what they say. */
  readonly paths: readonly CubicPath[];
  readonly text: string;
  readonly typefaces: readonly (TypefaceRef & { readonly family: string })[];
}

/** With its outlines, to be looked at on the old letters. */
export interface Proposal extends FoundTypeface {
  readonly paths: readonly CubicPath[];
}

export interface FindProgress {
  readonly done: number;
  /** The best of each family, the best first. */
  readonly best: readonly Proposal[];
}

const MOST = 5;
/** So many are fetched before they are needed. */
const AHEAD = 4;

self.onmessage = async ({ data: { paths, text, typefaces } }: MessageEvent<FindRequest>) => {
  const tell = (progress: FindProgress) => self.postMessage(progress);
  const fit = tryOn(paths, text);
  const coming = typefaces.slice(0, AHEAD).map((one) => fetchTypeface(one).catch(() => null));
  const byFamily = new Map<string, Proposal>();
  for (const [k, { family }] of typefaces.entries()) {
    const ahead = typefaces[k + AHEAD];
    if (ahead) coming.push(fetchTypeface(ahead).catch(() => null));
    const typeface = await coming[k];
    const found = typeface && fit ? fit(typeface) : null;
    if (typeface && found && found.overlap > (byFamily.get(family)?.overlap ?? 0)) {
      const paths = setLettering(found.lettering, typeface).letters.flatMap((letter) => letter.paths);
      byFamily.set(family, { ...found, paths });
    }
    const best = [...byFamily.values()].sort((a, b) => b.overlap - a.overlap).slice(0, MOST);
    tell({ done: k + 1, best });
  }
};
