// Which of the colours around it a pixel is, or lies between. `core/src/reduce/assign.ts` says what that is for.
//
// Pixels are told by their places in rows of labels, and their words. A palette is a block of doubles: MOST reds, greens and
// blues, the MOST x MOST squared distances between colours, and MOST more to write to.

/** Most colours, as in `core/src/reduce`; labels from here on are none. */
const MOST: i32 = 96;
const UNKNOWN: u8 = 254;
const UNEXPLAINED: u8 = 255;

const APART: usize = 3 * MOST * 8;
const TO: usize = APART + MOST * MOST * 8;

/** How far around a pixel its colours are looked for; and where none of those explains it. */
const NEAR: i32 = 2;
const FAR: i32 = 4;

/** The colours around the pixel at hand, in the order they are met. */
const nearby = memory.data(MOST);
let nearCount: i32 = 0;
/** The labels of a block of five by five, row by row, filled up to two vectors. */
const block = memory.data(32);
/** What explains it best: one colour twice, or a mix of two; and how far it is from that. */
let first: i32 = 0;
let second: i32 = 0;
let distance: f64 = 0;

/** First pass: what plainly is one colour. Labels of `count` pixels, a byte each, from `decided` on. */
export function decidePure(
  labels: usize,
  width: i32,
  rows: i32,
  places: usize,
  words: usize,
  count: i32,
  palette: usize,
  size: i32,
  pureReach: f64,
  mixReach: f64,
  decided: usize,
): void {
  for (let k = 0; k < count; k++) {
    const word = load<u32>(words + (k << 2));
    gather(labels, width, rows, load<i32>(places + (k << 2)), NEAR);
    explain(palette, word);
    let label = UNKNOWN;
    if (distance <= mixReach) {
      if (first === second && distance <= pureReach) label = <u8>first;
    } else {
      const nearest = nearestColour(palette, size, word);
      label = nearest >= 0 && distance2(palette, nearest, word) <= pureReach * pureReach ? <u8>nearest : UNEXPLAINED;
    }
    store<u8>(decided + k, label);
  }
}

/** Second pass: the larger share of the best mix. */
export function decideMixes(
  labels: usize,
  width: i32,
  rows: i32,
  places: usize,
  words: usize,
  count: i32,
  palette: usize,
  size: i32,
  _pureReach: f64,
  mixReach: f64,
  decided: usize,
): void {
  for (let k = 0; k < count; k++) {
    const word = load<u32>(words + (k << 2));
    const place = load<i32>(places + (k << 2));
    gather(labels, width, rows, place, NEAR);
    explain(palette, word);
    if (distance > mixReach) {
      gather(labels, width, rows, place, FAR);
      explain(palette, word);
    }
    if (distance > mixReach) explainWithKnown(palette, size, word);
    let label = nearCount === 0 ? nearestColour(palette, size, word) : first;
    if (nearCount > 0 && mixShare(toOf(palette, first), toOf(palette, second), apart2(palette, first, second)) < 0.5)
      label = second;
    store<u8>(decided + k, <u8>label);
  }
}

/** Gathers the colours within `radius` of a place, row by row. */
function gather(labels: usize, width: i32, rows: i32, place: i32, radius: i32): void {
  nearCount = 0;
  const x = place % width;
  const y = place / width;
  if (radius === NEAR && x >= NEAR && x + NEAR < width && y >= NEAR && y + NEAR < rows) {
    gatherBlock(labels + place - NEAR - NEAR * width, width);
    return;
  }
  const x0 = max(0, x - radius);
  const x1 = min(width - 1, x + radius);
  for (let v = max(0, y - radius); v <= min(rows - 1, y + radius); v++)
    for (let u = x0; u <= x1; u++) meet(load<u8>(labels + v * width + u));
}

/** The same for a whole block of five by five: the next label that was not met yet is found at once. */
function gatherBlock(corner: usize, width: i32): void {
  const none = i8x16.splat(<i8>UNEXPLAINED);
  const a = v128.load64_zero(corner);
  const b = v128.load64_zero(corner + width);
  const c = v128.load64_zero(corner + 2 * width);
  const d = v128.load64_zero(corner + 3 * width);
  const e = v128.load64_zero(corner + 4 * width);
  const ab = i8x16.shuffle(a, b, 0, 1, 2, 3, 4, 16, 17, 18, 19, 20, 0, 0, 0, 0, 0, 0);
  const upper = i8x16.shuffle(ab, c, 0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 16, 17, 18, 19, 20, 0);
  const de = i8x16.shuffle(d, e, 0, 1, 2, 3, 4, 16, 17, 18, 19, 20, 0, 0, 0, 0, 0, 0);
  const lower = i8x16.shuffle(de, none, 0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 16, 16, 16, 16, 16, 16);
  v128.store(block, upper);
  v128.store(block + 16, lower);
  const most = i8x16.splat(<i8>MOST);
  let open = <u32>i8x16.bitmask(i8x16.lt_u(upper, most)) | ((<u32>i8x16.bitmask(i8x16.lt_u(lower, most))) << 16);
  while (open !== 0) {
    const label = load<u8>(block + ctz<u32>(open));
    store<u8>(nearby + nearCount++, label);
    const same = i8x16.splat(label);
    const met = <u32>i8x16.bitmask(i8x16.eq(upper, same)) | ((<u32>i8x16.bitmask(i8x16.eq(lower, same))) << 16);
    open &= ~met;
  }
}

function meet(label: u8): void {
  if (label >= <u8>MOST) return;
  for (let k = 0; k < nearCount; k++) if (load<u8>(nearby + k) === label) return;
  store<u8>(nearby + nearCount++, label);
}

/** Explains a pixel by the colours around it. */
function explain(palette: usize, word: u32): void {
  distance = Infinity;
  for (let k = 0; k < nearCount; k++) {
    const i = <i32>load<u8>(nearby + k);
    const to2 = distance2(palette, i, word);
    store<f64>(palette + TO + (i << 3), to2);
    const alone = sqrt(to2);
    // One colour explains better than two at the same distance.
    if (alone <= distance + 1) {
      first = i;
      second = i;
      distance = alone;
    }
  }
  let most2 = lessByOne2(distance);
  for (let k = 0; k < nearCount && most2 > 0; k++) {
    const i = <i32>load<u8>(nearby + k);
    for (let m = k + 1; m < nearCount; m++) {
      const j = <i32>load<u8>(nearby + m);
      const d2 = mixDistance2(toOf(palette, i), toOf(palette, j), apart2(palette, i, j));
      if (d2 >= most2) continue;
      first = i;
      second = j;
      distance = sqrt(d2);
      most2 = lessByOne2(distance);
    }
  }
}

/** Betters an explanation by mixes of a colour around the pixel with any of the palette. */
function explainWithKnown(palette: usize, size: i32, word: u32): void {
  for (let j = 0; j < size; j++) store<f64>(palette + TO + (j << 3), distance2(palette, j, word));
  let least = distance * distance;
  for (let k = 0; k < nearCount; k++) {
    const i = <i32>load<u8>(nearby + k);
    for (let j = 0; j < size; j++) {
      const d2 = mixDistance2(toOf(palette, i), toOf(palette, j), apart2(palette, i, j));
      if (d2 >= least) continue;
      first = i;
      second = j;
      least = d2;
    }
  }
  distance = sqrt(least);
}

/** The square of a distance that is shorter by one; 0 where there is none. */
function lessByOne2(far: f64): f64 {
  return far > 1 ? (far - 1) * (far - 1) : 0;
}

function distance2(palette: usize, i: i32, word: u32): f64 {
  const at = palette + (i << 3);
  const dr = <f64>(word & 255) - load<f64>(at);
  const dg = <f64>((word >> 8) & 255) - load<f64>(at, MOST * 8);
  const db = <f64>((word >> 16) & 255) - load<f64>(at, 2 * MOST * 8);
  return dr * dr + dg * dg + db * db;
}

function toOf(palette: usize, i: i32): f64 {
  return load<f64>(palette + TO + (i << 3));
}

function apart2(palette: usize, i: i32, j: i32): f64 {
  return load<f64>(palette + APART + ((i * MOST + j) << 3));
}

function nearestColour(palette: usize, size: i32, word: u32): i32 {
  let best = -1;
  let least: f64 = Infinity;
  for (let i = 0; i < size; i++) {
    const to2 = distance2(palette, i, word);
    if (to2 >= least) continue;
    least = to2;
    best = i;
  }
  return best;
}

/** As in `core/src/reduce/mixes.ts`. */
function mixShare(i2: f64, j2: f64, between2: f64): f64 {
  return between2 === 0 ? 1 : (j2 + between2 - i2) / (2 * between2);
}

/** As in `core/src/reduce/mixes.ts`. */
function mixDistance2(i2: f64, j2: f64, between2: f64): f64 {
  const along = (j2 + between2 - i2) / 2;
  if (along <= 0) return j2;
  if (along >= between2) return i2;
  return max(j2 - (along * along) / between2, 0);
}
