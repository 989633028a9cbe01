// The compiled loops over pixels and their neighbours (`core/kernel`, in AssemblyScript): four pixels at a time, and as fast
// the first time as the hundredth. They see nothing but their own memory: a picture is laid into it strip by strip.
import { CODE } from "./code.ts";

/** What of the platform they are run by (W3C, WebAssembly JavaScript Interface; WHATWG, HTML: base64). */
declare const WebAssembly: {
  readonly Module: new (bytes: Uint8Array) => object;
  readonly Instance: new (module: object) => { readonly exports: object };
};
declare function atob(text: string): string;

/** Where something lies in the loops' memory, bytes. */
export type Place = number;

/** The loops, as `core/kernel` describes each. */
export interface Loops {
  readonly memory: { readonly buffer: ArrayBuffer; grow(pages: number): number };
  freeFrom(): Place;
  smoothRows(pixels: Place, out: Place, width: number, rows: number, first: number, end: number, reach: number): void;
  markThin(pixels: Place, marks: Place, width: number, rows: number): number;
  markFlat(pixels: Place, marks: Place, width: number, rows: number, first: number, end: number, reach: number): number;
  decideFrom(
    labels: Place,
    width: number,
    rows: number,
    palette: Place,
    size: number,
    pureReach: number,
    mixReach: number,
  ): void;
  readonly decidePure: DecideLoop;
  readonly decideMixes: DecideLoop;
  collectSpans(pixels: Place, marks: Place, from: number, to: number, spans: Place, sums: Place): number;
}

/** A loop that decides what pixels are, told by their places in rows of labels and their words. */
export type DecideLoop = (places: Place, words: Place, count: number, decided: Place) => void;

let made: Loops | null = null;

/** This thread's. */
export function compiledLoops(): Loops {
  if (!made) {
    const bytes = Uint8Array.from(atob(CODE), (char) => char.charCodeAt(0));
    made = new WebAssembly.Instance(new WebAssembly.Module(bytes)).exports as Loops;
  }
  return made;
}

/** Memory comes in pages of so many bytes. */
const PAGE = 65536;
/** A vector's bytes; blocks begin at whole ones. */
const VECTOR = 16;

/** Room for blocks of so many bytes, from the beginning on: where each lies. What was there before is void, as are its views. */
export function makeRoom(...sizes: readonly number[]): Place[] {
  const { memory, freeFrom } = compiledLoops();
  let end = Math.ceil(freeFrom() / VECTOR) * VECTOR;
  const places = sizes.map((size) => {
    const place = end;
    end += Math.ceil(size / VECTOR) * VECTOR;
    return place;
  });
  const lacking = end - memory.buffer.byteLength;
  if (lacking > 0) memory.grow(Math.ceil(lacking / PAGE));
  return places;
}

/** Bytes of the loops' memory as they are, not a copy; valid until room is made again. */
export function bytesAt(place: Place, length: number): Uint8Array {
  return new Uint8Array(compiledLoops().memory.buffer, place, length);
}

/** The same as whole numbers of four bytes. */
export function wordsAt(place: Place, length: number): Int32Array {
  return new Int32Array(compiledLoops().memory.buffer, place, length);
}

/** The same as numbers of eight. */
export function doublesAt(place: Place, length: number): Float64Array {
  return new Float64Array(compiledLoops().memory.buffer, place, length);
}
