// The two pictures everything starts from: pixels, and which colour each pixel is.

/** A picture. `data` holds RGBA bytes, encoded sRGB, alpha not multiplied in, row by row from the top left. */
export interface Raster {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8ClampedArray;
}

/** Which colour each pixel belongs to, as an index into a list that travels with it; NONE where there is nothing. */
export interface LabelMap {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8Array;
}

/** The label of a pixel that belongs to no colour: transparent, dropped, or outside the picture. */
export const NONE = 255;

/** Alpha below this is "nothing there"; at and above it the pixel belongs to a colour. Half coverage, as for every edge. */
export const OPAQUE_ALPHA = 128;

/** A picture of its own memory; throws a RangeError if the bytes do not fit the size. */
export function makeRaster(width: number, height: number, data: Uint8ClampedArray): Raster {
  if (!Number.isInteger(width) || !Number.isInteger(height) || width < 1 || height < 1)
    throw new RangeError(`a picture needs whole pixels, got ${width} x ${height}`);
  if (data.length !== width * height * 4)
    throw new RangeError(`${width} x ${height} pixels need ${width * height * 4} bytes, got ${data.length}`);
  return { width, height, data };
}

/** Calls `visit` with every pixel that has another label in `b` than in `a`, two maps of one size and their own memory. */
export function eachDifference({ data: a }: LabelMap, { data: b }: LabelMap, visit: (p: number) => void): void {
  // Four pixels at a time: nearly all are alike.
  const words = a.length >> 2;
  const [fours, others] = [
    new Uint32Array(a.buffer, a.byteOffset, words),
    new Uint32Array(b.buffer, b.byteOffset, words),
  ];
  for (let w = 0; w < words; w++) {
    if (fours[w] === others[w]) continue;
    for (let p = w * 4; p < w * 4 + 4; p++) if (a[p] !== b[p]) visit(p);
  }
  for (let p = words * 4; p < a.length; p++) if (a[p] !== b[p]) visit(p);
}

/** A label map of its own memory with every label `l` as `table[l]`; the map lies in its own memory, too. */
export function relabel({ width, height, data }: LabelMap, table: Uint8Array): LabelMap {
  const out = new Uint8Array(data.length);
  for (let p = 0; p < data.length; p += STRETCH)
    relabelStretch(data, out, table, p, Math.min(data.length, p + STRETCH));
  return { width, height, data: out };
}

/** Pixels in one go, a multiple of four: engines compile what is called often, and one long loop late. */
const STRETCH = 1 << 14;
/** Puts a byte into all four of a word. */
const FOUR_TIMES = 0x01010101;

function relabelStretch(data: Uint8Array, out: Uint8Array, table: Uint8Array, from: number, to: number): void {
  // Four pixels at a time: nearly all lie beside their like.
  const words = (to - from) >> 2;
  const fours = new Int32Array(data.buffer, data.byteOffset + from, words);
  const outFours = new Int32Array(out.buffer, from, words);
  for (let w = 0; w < words; w++) {
    const four = fours[w];
    const label = four & 0xff;
    if (four === Math.imul(label, FOUR_TIMES)) outFours[w] = Math.imul(table[label], FOUR_TIMES);
    else for (let p = from + w * 4; p < from + w * 4 + 4; p++) out[p] = table[data[p]];
  }
  for (let p = from + words * 4; p < to; p++) out[p] = table[data[p]];
}

/** Pixels of every label. */
export function countLabels({ data }: LabelMap): Uint32Array {
  const counts = new Uint32Array(256);
  for (let p = 0; p < data.length; p += STRETCH) countStretch(data, counts, p, Math.min(data.length, p + STRETCH));
  return counts;
}

function countStretch(data: Uint8Array, counts: Uint32Array, from: number, to: number): void {
  for (let p = from; p < to; ) {
    const label = data[p];
    const start = p++;
    while (p < to && data[p] === label) p++;
    counts[label] += p - start;
  }
}
