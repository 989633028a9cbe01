// Edges without anti-aliasing: their pixel steps smoothed out, the drawing's own corners kept.

/** Passes of smoothing along an edge whose pixels carry no coverage. */
const HARD_PASSES = 3;
/** Cracks in a straight run from which it is a side of the drawing, not a step of the grid. */
const LONG_RUN = 4;

/** Whether a walk ever leaves its first direction. */
export function bends(corners: Int32Array): boolean {
  const dx = corners[2] - corners[0];
  for (let i = 2; i + 3 < corners.length; i += 2) if (corners[i + 2] - corners[i] !== dx) return true;
  return false;
}

/** The grid corners of a walk, without those at junctions. */
export function insideCorners(corners: Int32Array, isLoop: boolean): Float64Array {
  return Float64Array.from(isLoop ? corners.subarray(2) : corners.subarray(2, corners.length - 2));
}

/**
 * Mid-points of all cracks of a walk with its pixel steps smoothed out. Where two long straight runs meet, the corner is
 * drawn, not an artefact of the grid: it becomes a point that stays.
 */
export function smoothSteps(corners: Int32Array, isLoop: boolean): Float64Array {
  const cracks = corners.length / 2 - 1;
  const runs = runLengths(corners, cracks, isLoop);
  const points: number[] = [];
  const isPinned: number[] = [];
  for (let k = 0; k < cracks; k++) {
    const x = corners[k * 2];
    const y = corners[k * 2 + 1];
    const before = k > 0 ? k - 1 : isLoop ? cracks - 1 : -1;
    const turnsHere = before >= 0 && runs.of[before] !== runs.of[k];
    if (turnsHere && Math.min(runs.length[runs.of[before]], runs.length[runs.of[k]]) >= LONG_RUN) {
      points.push(x, y);
      isPinned.push(1);
    }
    points.push((x + corners[k * 2 + 2]) / 2, (y + corners[k * 2 + 3]) / 2);
    isPinned.push(0);
  }
  return smoothLine(Float64Array.from(points), isLoop, HARD_PASSES, Uint8Array.from(isPinned));
}

/** Straight runs of a walk: which run each crack is in, and how many cracks each run has. */
function runLengths(corners: Int32Array, cracks: number, isLoop: boolean): { of: Int32Array; length: number[] } {
  const of = new Int32Array(cracks);
  const length: number[] = [];
  const goesAcross = (k: number) => corners[k * 2] !== corners[k * 2 + 2];
  for (let k = 0; k < cracks; k++) {
    if (k === 0 || goesAcross(k) !== goesAcross(k - 1)) length.push(0);
    of[k] = length.length - 1;
    length[of[k]]++;
  }
  // A loop may start in the middle of a run.
  if (isLoop && length.length > 1 && goesAcross(0) === goesAcross(cracks - 1)) {
    const last = length.length - 1;
    length[0] += length[last];
    for (let k = cracks - 1; of[k] === last; k--) of[k] = 0;
  }
  return { of, length };
}

/** Passes of a 1-2-1 mean along a line; pinned points and the ends of an open line stay. */
export function smoothLine(line: Float64Array, isLoop: boolean, passes: number, isPinned: Uint8Array): Float64Array {
  const n = line.length / 2;
  let points = line;
  for (let pass = 0; pass < passes; pass++) {
    const next = points.slice();
    for (let k = isLoop ? 0 : 1; k < (isLoop ? n : n - 1); k++) {
      if (isPinned[k]) continue;
      const a = ((k + n - 1) % n) * 2;
      const b = ((k + 1) % n) * 2;
      next[k * 2] = (points[a] + 2 * points[k * 2] + points[b]) / 4;
      next[k * 2 + 1] = (points[a + 1] + 2 * points[k * 2 + 1] + points[b + 1]) / 4;
    }
    points = next;
  }
  return points;
}
