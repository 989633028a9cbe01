// Vectors with nothing but + - x / and square roots. IEEE 754 rounds those the same everywhere; sines, arc tangents and
// Math.hypot are each engine's own, and a curve must come out the same in the browser and on the server, bit for bit.

/** Length of a vector. */
export function lengthOf(dx: number, dy: number): number {
  return Math.sqrt(dx * dx + dy * dy);
}

/** Cosine of the angle between two vectors; 1 if either has no length. */
export function cosineBetween(ax: number, ay: number, bx: number, by: number): number {
  const lengths = lengthOf(ax, ay) * lengthOf(bx, by);
  return lengths === 0 ? 1 : (ax * bx + ay * by) / lengths;
}

/** Tangent of a quarter of an angle given by its cosine (half-angle formulas). */
export function tanOfQuarter(cosine: number): number {
  const half = Math.sqrt(Math.max(0, (1 + cosine) / 2));
  return Math.sqrt(Math.max(0, (1 - half) / (1 + half)));
}

/**
 * Direction in which a cloud of points spreads most, as a unit vector, from its second moments about the mean: the larger
 * eigenvector of [[xx, xy], [xy, yy]].
 */
export function mainDirection(xx: number, xy: number, yy: number): readonly [number, number] {
  const half = (xx - yy) / 2;
  const root = Math.sqrt(half * half + xy * xy);
  // Of the two forms of the eigenvector the one without cancellation.
  const x = half > 0 ? half + root : xy;
  const y = half > 0 ? xy : root - half;
  const length = lengthOf(x, y);
  return length === 0 ? [1, 0] : [x / length, y / length];
}

/**
 * Unit vectors on the short arc from one unit vector to another, ends included, neighbours no farther apart than the angle
 * whose cosine is `minCosine`: halved again and again. Opposite vectors have no short way; the arc then turns by the normal (-y, x).
 */
export function arcBetween(fromX: number, fromY: number, toX: number, toY: number, minCosine: number): number[] {
  const cosine = fromX * toX + fromY * toY;
  if (cosine >= minCosine) return [fromX, fromY, toX, toY];
  let x = fromX + toX;
  let y = fromY + toY;
  if (cosine < -0.999999) {
    x = -fromY;
    y = fromX;
  }
  const length = lengthOf(x, y);
  const first = arcBetween(fromX, fromY, x / length, y / length, minCosine);
  const second = arcBetween(x / length, y / length, toX, toY, minCosine);
  return [...first, ...second.slice(2)];
}
