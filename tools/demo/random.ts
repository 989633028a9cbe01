// A seeded generator: the demo art is the same on every machine.

/** Numbers 0..1. Source: G. Marsaglia, "Xorshift RNGs" (Journal of Statistical Software, 2003), 32-bit variant. */
export function makeRandom(seed: number): () => number {
  let state = seed | 0 || 1;
  return () => {
    state ^= state << 13;
    state ^= state >>> 17;
    state ^= state << 5;
    return (state >>> 0) / 4294967296;
  };
}
