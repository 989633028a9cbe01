import { describe, expect, it } from "vitest";
import { readPairKerning } from "./pair-kerning.ts";

/** A kern table by hand (OpenType 1.9.1): pairs of glyphs and values. */
function table(pairs: readonly (readonly [number, number, number])[], coverage = 1, count = pairs.length): Uint8Array {
  const view = new DataView(new ArrayBuffer(18 + pairs.length * 6));
  [0, 1, 0, 14 + pairs.length * 6, coverage, count, 0, 0, 0].forEach((value, k) => {
    view.setUint16(k * 2, value);
  });
  pairs.forEach(([left, right, value], k) => {
    view.setUint16(18 + k * 6, left);
    view.setUint16(20 + k * 6, right);
    view.setInt16(22 + k * 6, value);
  });
  return new Uint8Array(view.buffer);
}

describe("pairs of an older font", () => {
  it("come with their values, others with none", () => {
    const pairs = readPairKerning(
      table([
        [3, 9, -74],
        [65535, 1, 40],
      ]),
    );
    expect([pairs?.(3, 9), pairs?.(65535, 1), pairs?.(9, 3)]).toEqual([-74, 40, 0]);
  });
  it("are left out where they are vertical, minimum values or of another format", () => {
    for (const coverage of [0, 3, 5, 0x0201]) expect(readPairKerning(table([[3, 9, -74]], coverage))).toBeNull();
  });
  it("are read as far as they go in a table that is cut off or lies about its size", () => {
    expect(readPairKerning(table([[3, 9, -74]], 1, 60_000))?.(3, 9)).toBe(-74);
    expect(readPairKerning(table([[3, 9, -74]]).subarray(0, 16))).toBeNull();
    expect(readPairKerning(new Uint8Array(2))).toBeNull();
    expect(readPairKerning(Uint8Array.from([0, 1, 0, 1]))).toBeNull();
  });
});
