// Joints of several segments, moved and turned so that all the points on either side come nearer: each segment alone can
// only stretch between joints that were placed before it was known.
import { lengthOf } from "../../geometry/index.ts";
import { reparametrise, type Samples, solveControls, type Tangent } from "./segment.ts";

/** Rounds of moving joints, then lengths, then parameters. */
const ROUNDS = 4;
/** How strongly a joint is held where its points say nothing, as a share of one point. */
const HOLD = 0.01;

/**
 * Moves the joints between consecutive segments, which stay smooth; `curves` are their control points (eight numbers each,
 * changed in place), `samples` their points. The first and the last end stay, with their directions if they have one.
 * With the joints' parameters and the lengths of their handles given, joints and directions are the solution of one linear
 * system: least squares, two by two unknowns a joint, each joint bound to the ones beside it.
 */
export function relaxJoints(
  curves: readonly Float64Array[],
  samples: readonly Samples[],
  start: Tangent,
  end: Tangent,
): void {
  for (let round = 0; round < ROUNDS; round++) {
    moveJoints(curves, samples);
    for (let k = 0; k < curves.length; k++) {
      const c = curves[k];
      const from = k === 0 ? start : unit(c[2] - c[0], c[3] - c[1]);
      const into = k === curves.length - 1 ? end : unit(c[4] - c[6], c[5] - c[7]);
      solveControls(samples[k], from, into, c);
      reparametrise(samples[k], c);
    }
  }
}

function unit(dx: number, dy: number): Tangent {
  const length = lengthOf(dx, dy);
  return length > 0 ? [dx / length, dy / length] : null;
}

function moveJoints(curves: readonly Float64Array[], samples: readonly Samples[]): void {
  const n = curves.length - 1;
  // Per joint: its symmetric 2x2 block, the 2x2 block with the next joint, and the right sides for x and for y, two each.
  const own = new Float64Array(n * 3);
  const next = new Float64Array(n * 4);
  const right = new Float64Array(n * 4);
  // And as it is now: place, direction, and how long its handles are before and after.
  const at = new Float64Array(n * 6);
  for (let k = 0; k < n; k++) {
    const before = curves[k];
    const after = curves[k + 1];
    const a = lengthOf(before[6] - before[4], before[7] - before[5]);
    const b = lengthOf(after[2] - after[0], after[3] - after[1]);
    const [dx, dy] = unit(after[2] - before[4], after[3] - before[5]) ?? [0, 0];
    at.set([before[6], before[7], dx, dy, a, b], k * 6);
  }
  for (let s = 0; s <= n; s++) {
    const { points, first, u, count } = samples[s];
    const c = curves[s];
    const left = s - 1;
    const isLast = s === n;
    const b = s > 0 ? at[left * 6 + 5] : 0;
    const a = isLast ? 0 : at[s * 6 + 4];
    for (let i = 1; i < count - (isLast ? 1 : 0); i++) {
      const t = u[i];
      const v = 1 - t;
      const w0 = v * v * v;
      const w1 = 3 * v * v * t;
      const w2 = 3 * v * t * t;
      const w3 = t * t * t;
      let x = points[(first + i) * 2];
      let y = points[(first + i) * 2 + 1];
      const f0 = w0 + w1;
      const f1 = b * w1;
      const g0 = w2 + w3;
      const g1 = -a * w2;
      if (s === 0) {
        x -= w0 * c[0] + w1 * c[2];
        y -= w0 * c[1] + w1 * c[3];
      }
      if (isLast) {
        x -= w2 * c[4] + w3 * c[6];
        y -= w2 * c[5] + w3 * c[7];
      }
      if (s > 0) addTo(own, right, left, f0, f1, x, y);
      if (!isLast) addTo(own, right, s, g0, g1, x, y);
      if (s > 0 && !isLast) {
        next[left * 4] += f0 * g0;
        next[left * 4 + 1] += f0 * g1;
        next[left * 4 + 2] += f1 * g0;
        next[left * 4 + 3] += f1 * g1;
      }
    }
  }
  for (let k = 0; k < n; k++) {
    const o = k * 6;
    const scale = (at[o + 4] * at[o + 4] + at[o + 5] * at[o + 5]) * HOLD;
    own[k * 3] += HOLD;
    own[k * 3 + 2] += scale;
    right[k * 4] += HOLD * at[o];
    right[k * 4 + 1] += scale * at[o + 2];
    right[k * 4 + 2] += HOLD * at[o + 1];
    right[k * 4 + 3] += scale * at[o + 3];
  }
  solveBlocks(own, next, right, n);
  for (let k = 0; k < n; k++) {
    const [px, vx, py, vy] = right.subarray(k * 4, k * 4 + 4);
    const before = curves[k];
    const after = curves[k + 1];
    const a = at[k * 6 + 4];
    const b = at[k * 6 + 5];
    before[6] = after[0] = px;
    before[7] = after[1] = py;
    before[4] = px - a * vx;
    before[5] = py - a * vy;
    after[2] = px + b * vx;
    after[3] = py + b * vy;
  }
}

function addTo(own: Float64Array, right: Float64Array, k: number, f0: number, f1: number, x: number, y: number): void {
  own[k * 3] += f0 * f0;
  own[k * 3 + 1] += f0 * f1;
  own[k * 3 + 2] += f1 * f1;
  right[k * 4] += f0 * x;
  right[k * 4 + 1] += f1 * x;
  right[k * 4 + 2] += f0 * y;
  right[k * 4 + 3] += f1 * y;
}

/** Solves the block-tridiagonal system in place (block elimination downwards, substitution back): the solution in `right`. */
function solveBlocks(own: Float64Array, next: Float64Array, right: Float64Array, n: number): void {
  for (let k = 0; k < n; k++) {
    if (k > 0) {
      // own_k -= next_(k-1)^T * own_(k-1)^-1 * next_(k-1); the same for the right side.
      const [p, q, r] = own.subarray((k - 1) * 3, k * 3);
      const d = p * r - q * q || 1e-300;
      const [n00, n01, n10, n11] = next.subarray((k - 1) * 4, k * 4);
      // m = own^-1 * next
      const m00 = (r * n00 - q * n10) / d;
      const m01 = (r * n01 - q * n11) / d;
      const m10 = (p * n10 - q * n00) / d;
      const m11 = (p * n11 - q * n01) / d;
      own[k * 3] -= n00 * m00 + n10 * m10;
      own[k * 3 + 1] -= n00 * m01 + n10 * m11;
      own[k * 3 + 2] -= n01 * m01 + n11 * m11;
      for (const o of [0, 2]) {
        const b0 = right[(k - 1) * 4 + o];
        const b1 = right[(k - 1) * 4 + o + 1];
        right[k * 4 + o] -= m00 * b0 + m10 * b1;
        right[k * 4 + o + 1] -= m01 * b0 + m11 * b1;
      }
    }
  }
  for (let k = n - 1; k >= 0; k--) {
    const [p, q, r] = own.subarray(k * 3, k * 3 + 3);
    const d = p * r - q * q || 1e-300;
    for (const o of [0, 2]) {
      let b0 = right[k * 4 + o];
      let b1 = right[k * 4 + o + 1];
      if (k + 1 < n) {
        const z0 = right[(k + 1) * 4 + o];
        const z1 = right[(k + 1) * 4 + o + 1];
        b0 -= next[k * 4] * z0 + next[k * 4 + 1] * z1;
        b1 -= next[k * 4 + 2] * z0 + next[k * 4 + 3] * z1;
      }
      right[k * 4 + o] = (r * b0 - q * b1) / d;
      right[k * 4 + o + 1] = (p * b1 - q * b0) / d;
    }
  }
}
