// Files as they must never come.

/** A file with some of its bytes changed, taken out, doubled or cut off, the same for the same seed. */
export function mutate(source: Buffer, seed: number): Buffer {
  let state = seed * 2654435761 + 1;
  const draw = (n: number) => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return Math.floor((state / 4294967296) * n);
  };
  let bytes = Buffer.from(source);
  for (let times = 1 + draw(6); times > 0; times--) {
    const at = draw(bytes.length);
    switch (draw(5)) {
      case 0:
        bytes[at] = (bytes[at] ?? 0) ^ (1 << draw(8));
        break;
      case 1:
        bytes[at] = draw(256);
        break;
      case 2:
        bytes = bytes.subarray(0, Math.max(12, at));
        break;
      case 3:
        bytes = Buffer.concat([bytes.subarray(0, at), bytes.subarray(at + draw(8))]);
        break;
      default:
        bytes = Buffer.concat([bytes.subarray(0, at), bytes.subarray(Math.max(0, at - 20))]);
    }
  }
  return bytes;
}
