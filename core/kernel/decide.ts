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

/** What pixels are decided from: labels in rows, a palette of so many colours, and how far off counts as a colour or a mix. */
let labels: usize = 0;
let width: i32 = 0;
let rows: i32 = 0;
let palette: usize = 0;
let size: i32 = 0;
let pureReach: f64 = 0;
let mixReach: f64 = 0;

/** The colours around the pixel at hand, in the order they are met. */
const nearby = memory.data(MOST);
let nearCount: i32 = 0;
/** The labels of a block of five by five, row by row, filled up to two vectors. */
const block = memory.data(32);
/** What explains it best: one colour twice, or a mix of two; and how far it is from that. */
let first: i32 = 0;
let second: i32 = 0;
let distance: f64 = 0;

/** Says what pixels are decided from, until it is said again. */
export function decideFrom(
  rowsOfLabels: usize,
  rowWidth: i32,
  rowCount: i32,
  colours: usize,
  colourCount: i32,
  pure: f64,
  mix: f64,
): void {
  labels = rowsOfLabels;
  width = rowWidth;
  rows = rowCount;
  palette = colours;
  size = colourCount;
  pureReach = pure;
  mixReach = mix;
}

/** First pass: what plainly is one colour. Labels of `count` pixels, a byte each, from `decided` on. */
export function decidePure(places: usize, words: usize, count: i32, decided: usize): void {
  for (let k = 0; k < count; k++) {
    const word = load<u32>(words + (k << 2));
    gather(load<i32>(places + (k << 2)), NEAR);
    explain(word);
    let label = UNKNOWN;
    if (distance <= mixReach) {
      if (first === second && distance <= pureReach) label = <u8>first;
    } else {
      const nearest = nearestColour(word);
      label = nearest >= 0 && distance2(nearest, word) <= pureReach * pureReach ? <u8>nearest : UNEXPLAINED;
    }
    store<u8>(decided + k, label);
  }
}

/** Second pass: the larger share of the best mix. */
export function decideMixes(places: usize, words: usize, count: i32, decided: usize): void {
  for (let k = 0; k < count; k++) {
    const word = load<u32>(words + (k << 2));
    const place = load<i32>(places + (k << 2));
    gather(place, NEAR);
    explain(word);
    if (distance > mixReach) {
      gather(place, FAR);
      explain(word);
    }
    if (distance > mixReach) explainWithKnown(word);
    store<u8>(decided + k, <u8>(nearCount === 0 ? nearestColour(word) : largerShare()));
  }
}

function largerShare(): i32 {
  return mixShare(toOf(first), toOf(second), apart2(first, second)) >= 0.5 ? first : second;
}

/** Gathers the colours within `radius` of a place, row by row. */
function gather(place: i32, radius: i32): void {
  nearCount = 0;
  const x = place % width;
  const y = place / width;
  if (radius === NEAR && x >= NEAR && x + NEAR < width && y >= NEAR && y + NEAR < rows) {
    gatherBlock(labels + place - NEAR - NEAR * width);
    return;
  }
  const x0 = max(0, x - radius);
  const x1 = min(width - 1, x + radius);
  for (let v = max(0, y - radius); v <= min(rows - 1, y + radius); v++)
    for (let u = x0; u <= x1; u++) meet(load<u8>(labels + v * width + u));
}

/** The same for a whole block of five by five: the next label that was not met yet is found at once. */
function gatherBlock(corner: usize): void {
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
function explain(word: u32): void {
  distance = Infinity;
  for (let k = 0; k < nearCount; k++) {
    const i = <i32>load<u8>(nearby + k);
    const to2 = distance2(i, word);
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
      const d2 = mixDistance2(toOf(i), toOf(j), apart2(i, j));
      if (d2 >= most2) continue;
      first = i;
      second = j;
      distance = sqrt(d2);
      most2 = lessByOne2(distance);
    }
  }
}

/** Betters an explanation by mixes of a colour around the pixel with any of the palette. */
function explainWithKnown(word: u32): void {
  for (let j = 0; j < size; j++) store<f64>(palette + TO + (j << 3), distance2(j, word));
  let least = distance * distance;
  for (let k = 0; k < nearCount; k++) {
    const i = <i32>load<u8>(nearby + k);
    for (let j = 0; j < size; j++) {
      // A colour out of reach: on the way to it lie all greys.
      if (load<f64>(palette + (j << 3)) > 255) continue;
      const d2 = mixDistance2(toOf(i), toOf(j), apart2(i, j));
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

function distance2(i: i32, word: u32): f64 {
  const at = palette + (i << 3);
  const dr = <f64>(word & 255) - load<f64>(at);
  const dg = <f64>((word >> 8) & 255) - load<f64>(at, MOST * 8);
  const db = <f64>((word >> 16) & 255) - load<f64>(at, 2 * MOST * 8);
  return dr * dr + dg * dg + db * db;
}

function toOf(i: i32): f64 {
  return load<f64>(palette + TO + (i << 3));
}

function apart2(i: i32, j: i32): f64 {
  return load<f64>(palette + APART + ((i * MOST + j) << 3));
}

function nearestColour(word: u32): i32 {
  let best = -1;
  let least: f64 = Infinity;
  for (let i = 0; i < size; i++) {
    const to2 = distance2(i, word);
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
