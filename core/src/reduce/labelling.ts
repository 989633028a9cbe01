// Which pixel has which label while colours are being found. Flat pixels keep their label span by span, so that counting,
// taking a colour back and renumbering cost the spans and the loose pixels, not the whole picture.
import { type FlatPixels, type Spans, UNKNOWN } from "./flat.ts";

/** A label of a span whose pixels have become loose. */
const LOOSE = 255;

/** The labels of a picture under way. */
export interface Labelling {
  readonly labels: Uint8Array;
  readonly spans: Spans;
  /** Label of each span. */
  readonly spanLabels: Uint8Array;
  /** All pixels that belong to no span and are not transparent. */
  loose: Int32Array;
}

/** Labels flat pixels by their bins; `labelOfBin` holds UNKNOWN where no colour took the bin: those stay loose. */
export function labelFlatPixels({ labels, spans, opaquePx }: FlatPixels, labelOfBin: Uint8Array): Labelling {
  const { starts, ends, bins } = spans;
  const spanLabels = new Uint8Array(starts.length);
  let labelled = 0;
  for (let s = 0; s < starts.length; s++) {
    const label = labelOfBin[bins[s]];
    if (label === UNKNOWN) spanLabels[s] = LOOSE;
    else {
      spanLabels[s] = label;
      labels.fill(label, starts[s], ends[s]);
      labelled += ends[s] - starts[s];
    }
  }
  return { labels, spans, spanLabels, loose: indicesOf(labels, UNKNOWN, opaquePx - labelled) };
}

/** Indices of the `count` pixels that have a label. Searched with the array's own indexOf, at the memory's speed. */
function indicesOf(labels: Uint8Array, wanted: number, count: number): Int32Array {
  const indices = new Int32Array(count);
  for (let p = labels.indexOf(wanted), k = 0; p >= 0; p = labels.indexOf(wanted, p))
    while (labels[p] === wanted) indices[k++] = p++;
  return indices;
}

/** Pixels of every label. */
export function countLabels({ labels, spans, spanLabels, loose }: Labelling): Uint32Array {
  const areas = new Uint32Array(256);
  for (let s = 0; s < spanLabels.length; s++)
    if (spanLabels[s] !== LOOSE) areas[spanLabels[s]] += spans.ends[s] - spans.starts[s];
  for (let k = 0; k < loose.length; k++) areas[labels[loose[k]]]++;
  return areas;
}

/** Makes all pixels of a label UNKNOWN and loose; returns them. */
export function loosen(labelling: Labelling, label: number): Int32Array {
  const { labels, spans, spanLabels, loose } = labelling;
  let fromSpans = 0;
  for (let s = 0; s < spanLabels.length; s++) if (spanLabels[s] === label) fromSpans += spans.ends[s] - spans.starts[s];
  const freed = new Int32Array(loose.length + fromSpans);
  let n = 0;
  for (let s = 0; s < spanLabels.length; s++) {
    if (spanLabels[s] !== label) continue;
    spanLabels[s] = LOOSE;
    for (let p = spans.starts[s]; p < spans.ends[s]; p++) freed[n++] = p;
  }
  if (n > 0) {
    const all = new Int32Array(loose.length + n);
    all.set(loose);
    all.set(freed.subarray(0, n), loose.length);
    labelling.loose = all;
  }
  for (let k = 0; k < loose.length; k++) if (labels[loose[k]] === label) freed[n++] = loose[k];
  const open = freed.subarray(0, n);
  for (let k = 0; k < n; k++) labels[open[k]] = UNKNOWN;
  return open;
}

/** Makes loose what spans of up to `longest` pixels hold, where pixels of them were labelled anew. */
export function loosenChanged(labelling: Labelling, longest: number): void {
  const { labels, spans, spanLabels, loose } = labelling;
  const freed: number[] = [];
  for (let s = 0; s < spanLabels.length; s++) {
    const [start, end, label] = [spans.starts[s], spans.ends[s], spanLabels[s]];
    if (label === LOOSE || end - start > longest) continue;
    let p = start;
    while (p < end && labels[p] === label) p++;
    if (p === end) continue;
    spanLabels[s] = LOOSE;
    for (p = start; p < end; p++) freed.push(p);
  }
  const all = new Int32Array(loose.length + freed.length);
  all.set(loose);
  all.set(freed, loose.length);
  labelling.loose = all;
}

/** Of every label some `most` pixels (fewer than twice as many), evenly spread over those it has. */
export function samplePixels(
  { labels, spans, spanLabels, loose }: Labelling,
  areas: Uint32Array,
  most: number,
): number[][] {
  const samples: number[][] = Array.from({ length: 256 }, () => []);
  const strides = areas.map((area) => Math.max(1, Math.floor(area / most)));
  // Pixels of each label to go by until the next is taken.
  const skip = new Uint32Array(256);
  for (let s = 0; s < spanLabels.length; s++) {
    const label = spanLabels[s];
    if (label === LOOSE) continue;
    const end = spans.ends[s];
    let p = spans.starts[s] + skip[label];
    for (; p < end; p += strides[label]) samples[label].push(p);
    skip[label] = p - end;
  }
  for (let k = 0; k < loose.length; k++) {
    const label = labels[loose[k]];
    if (skip[label] === 0) {
      samples[label].push(loose[k]);
      skip[label] = strides[label];
    }
    skip[label]--;
  }
  return samples;
}

/** Gives every label its new number. */
export function renumberLabels({ labels, spans, spanLabels, loose }: Labelling, numbers: Uint8Array): void {
  for (let k = 0; k < loose.length; k++) labels[loose[k]] = numbers[labels[loose[k]]];
  for (let s = 0; s < spanLabels.length; s++) {
    const old = spanLabels[s];
    if (old !== LOOSE && numbers[old] !== old) labels.fill(numbers[old], spans.starts[s], spans.ends[s]);
  }
}
