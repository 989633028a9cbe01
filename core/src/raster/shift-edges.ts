// Growing or thinning a soft-edged shape by less than a pixel or by many.

/** Half length of the piece of edge that an edge pixel stands for, px: a pixel's half diagonal. */
const HALF_PIECE = 0.71;

/**
 * Coverage (0..255) of a shape whose edge is moved outwards by `byPx`, or inwards if negative; edges stay soft. Each edge
 * pixel stands for a short straight piece of edge, across its coverage's slope and `coverage - 1/2` pixels out from its
 * centre (the relation of S. Gustavson & R. Strand, "Anti-aliased Euclidean distance transform", Pattern Recognition
 * Letters 2011, to first order); a pixel's depth is its distance to the nearest piece. Work along the edge only.
 */
export function shiftEdges(coverage: Uint8Array, width: number, height: number, byPx: number): Uint8Array {
  const reach = Math.abs(byPx) + 1;
  const span = Math.ceil(reach + HALF_PIECE);
  const distance = new Float32Array(coverage.length).fill(reach + 1);
  const at = (x: number, y: number) =>
    coverage[Math.min(height - 1, Math.max(0, y)) * width + Math.min(width - 1, Math.max(0, x))] / 255;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const own = coverage[y * width + x] / 255;
      if (!isEdge(own, at, x, y)) continue;
      // Sobel's slope, pointing into the shape.
      const gx =
        at(x + 1, y - 1) + 2 * at(x + 1, y) + at(x + 1, y + 1) - at(x - 1, y - 1) - 2 * at(x - 1, y) - at(x - 1, y + 1);
      const gy =
        at(x - 1, y + 1) + 2 * at(x, y + 1) + at(x + 1, y + 1) - at(x - 1, y - 1) - 2 * at(x, y - 1) - at(x + 1, y - 1);
      const slope = Math.sqrt(gx * gx + gy * gy);
      const nx = slope === 0 ? 0 : gx / slope;
      const ny = slope === 0 ? 0 : gy / slope;
      const ex = x - nx * (own - 0.5);
      const ey = y - ny * (own - 0.5);
      for (let v = Math.max(0, y - span); v <= Math.min(height - 1, y + span); v++)
        for (let u = Math.max(0, x - span); u <= Math.min(width - 1, x + span); u++) {
          const dx = u - ex;
          const dy = v - ey;
          const along = Math.min(HALF_PIECE, Math.max(-HALF_PIECE, dx * -ny + dy * nx));
          const rx = dx + along * ny;
          const ry = dy - along * nx;
          const d = Math.sqrt(rx * rx + ry * ry);
          if (d < distance[v * width + u]) distance[v * width + u] = d;
        }
    }
  const out = new Uint8Array(coverage.length);
  for (let p = 0; p < out.length; p++) {
    const depth = coverage[p] >= 128 ? distance[p] : -distance[p];
    out[p] = Math.round(255 * Math.min(1, Math.max(0, depth + byPx + 0.5)));
  }
  return out;
}

/** A pixel the edge runs through; or, where an edge is hard, the full pixel beside an empty one. */
function isEdge(own: number, at: (x: number, y: number) => number, x: number, y: number): boolean {
  if (own > 0 && own < 1) return true;
  return own === 1 && (at(x - 1, y) === 0 || at(x + 1, y) === 0 || at(x, y - 1) === 0 || at(x, y + 1) === 0);
}
