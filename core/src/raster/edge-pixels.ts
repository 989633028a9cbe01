// The pixels along the edge of a mask, found run by run: what lies inside or outside costs next to nothing.

/**
 * Indices of all pixels with a differing pixel among their eight neighbours, in no particular order, each once. `mask` holds
 * 0 and 1. Runs are searched with the array's own indexOf, at the memory's speed rather than a loop's.
 */
export function findEdgePixels(mask: Uint8Array, width: number, height: number): Int32Array {
  const isFound = new Uint8Array(mask.length);
  let found = new Int32Array(4096);
  let n = 0;
  const add = (p: number) => {
    if (isFound[p] === 1) return;
    isFound[p] = 1;
    if (n === found.length) {
      const larger = new Int32Array(n * 2);
      larger.set(found);
      found = larger;
    }
    found[n++] = p;
  };
  /** A pixel that is 0 beside one that is 1: it, and all around it that are 1, lie on the edge. */
  const addAround = (x: number, y: number) => {
    add(y * width + x);
    for (let v = Math.max(0, y - 1); v <= Math.min(height - 1, y + 1); v++)
      for (let u = Math.max(0, x - 1); u <= Math.min(width - 1, x + 1); u++)
        if (mask[v * width + u] === 1) add(v * width + u);
  };
  const rows = Array.from({ length: height }, (_, y) => mask.subarray(y * width, (y + 1) * width));
  for (let y = 0; y < height; y++) {
    const row = rows[y];
    for (let from = row.indexOf(1); from >= 0; ) {
      let to = row.indexOf(0, from);
      if (to < 0) to = width;
      if (from > 0) addAround(from - 1, y);
      if (to < width) addAround(to, y);
      // Zeros right above and below the run, its ends' diagonals included.
      const start = Math.max(0, from - 1);
      const end = Math.min(width, to + 1);
      for (const beside of [y - 1, y + 1]) {
        if (beside < 0 || beside >= height) continue;
        const stretch = rows[beside].subarray(start, end);
        for (let x = stretch.indexOf(0); x >= 0; x = stretch.indexOf(0, x + 1)) addAround(start + x, beside);
      }
      from = to < width ? row.indexOf(1, to) : -1;
    }
  }
  return found.subarray(0, n);
}
