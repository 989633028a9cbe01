// What the reading processes do: everything that opens a file somebody sent. Bytes come in and plain facts go out.
import { type FiledMotif, readCxf3, readStockCsv, type StockFile } from "@plain-palette/core/formats";
import type { StockKind } from "@plain-palette/core/shelf";
import {
  type ArtworkFacts,
  type ArtworkView,
  decodeArtwork,
  makeThumbnail,
  prepareIntake,
  type ReadFont,
  readFont,
  readMotifFile,
} from "../intake/index.ts";
import type { Tasks } from "./hand.ts";
import { type Outcome, orBadFile } from "./outcome.ts";
import { type PackedPixels, packPixels } from "./pixels.ts";

/** A file and what it is called. */
export interface NamedFile {
  readonly bytes: Uint8Array;
  readonly fileName: string;
}

export interface Inspection {
  readonly facts: ArtworkFacts;
  /** WebP. */
  readonly thumbnail: Uint8Array;
  readonly pixels: PackedPixels;
}

const READING = {
  /** A new artwork. */
  inspect: ({ bytes }: { bytes: Uint8Array }): Promise<Outcome<Inspection>> =>
    orBadFile(async () => {
      const { raster, facts, notes } = await decodeArtwork(bytes);
      return { facts, thumbnail: await makeThumbnail(raster), pixels: await packPixels(raster, notes) };
    }),
  /** The pixels of an artwork's page. */
  pixels: ({ bytes, view }: { bytes: Uint8Array; view: ArtworkView }): Promise<Outcome<PackedPixels>> =>
    orBadFile(async () => {
      const { raster, notes } = await decodeArtwork(bytes, view);
      return packPixels(raster, notes);
    }),
  /** A font file that the shop adds. */
  font: ({ bytes }: { bytes: Uint8Array }): Promise<Outcome<ReadFont>> => orBadFile(() => readFont(bytes)),
  /** A file of motifs. */
  motifs: ({ bytes, fileName }: NamedFile): Promise<Outcome<FiledMotif[]>> =>
    orBadFile(() => readMotifFile(bytes, fileName)),
  /** A file of stock. */
  stock({ bytes, kind }: { bytes: Uint8Array; kind: StockKind }): Promise<Outcome<StockFile>> {
    const text = new TextDecoder().decode(bytes);
    // By what is in it: names of files say little. A byte order mark is gone already.
    return orBadFile(() => (/^\s*</.test(text.slice(0, 4096)) ? readCxf3(text, kind) : readStockCsv(text, kind)));
  },
};
export type Reading = typeof READING;

export const prepare: Tasks["prepare"] = prepareIntake;
export const run: Tasks["run"] = (name, input) => READING[name as keyof Reading](input as never);
