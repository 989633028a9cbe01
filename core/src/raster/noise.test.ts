import sharp from "sharp";
import { describe, expect, it } from "vitest";
import { drawSvg, paint } from "../testing/pictures.test.support.ts";
import { makeRaster, measureNoise, smoothNoise } from "./index.ts";

const ART = '<circle cx="120" cy="130" r="90" fill="#d8412f"/><path d="M30 30L230 90L150 240Z" fill="#14304f"/>';

/** A small generator with a fixed seed; spread about +-`reach`. */
function grain(reach: number) {
  let state = 12345;
  return () => {
    state = (state * 1103515245 + 12345) & 0x7fffffff;
    return (state / 0x7fffffff - 0.5) * 2 * reach;
  };
}

describe("noise", () => {
  it("is none in a clean drawing, edges and all", () => {
    expect(measureNoise(drawSvg(256, ART))).toBe(0);
  });
  it("is seen in a JPEG (encoded by libvips) and more in a grainy scan", async () => {
    const clean = drawSvg(256, ART);
    const raw = { raw: { width: 256, height: 256, channels: 4 as const } };
    const bytes = await sharp(clean.data, raw).removeAlpha().jpeg({ quality: 70 }).toBuffer();
    const { data } = await sharp(bytes).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
    const jpeg = measureNoise(makeRaster(256, 256, new Uint8ClampedArray(data)));
    const random = grain(14);
    const scan = measureNoise(paint(256, 256, () => [200 + random(), 190 + random(), 180 + random()]));
    expect(jpeg).toBeGreaterThan(0);
    expect(scan).toBeGreaterThan(jpeg);
  });
  it("is seen in what is left when the background of a JPEG was cut away", async () => {
    const letters =
      '<g stroke="#3e2a1b" stroke-width="5"><path d="M20 30v40M20 50h22M42 30v40M70 30l14 40M98 30l-14 40M120 30v40h24"/></g>';
    const clean = drawSvg(170, letters);
    const raw = { raw: { width: 170, height: 170, channels: 4 as const } };
    const bytes = await sharp(clean.data, raw).removeAlpha().jpeg({ quality: 60 }).toBuffer();
    const { data } = await sharp(bytes).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
    for (let i = 0; i < data.length; i += 4) if (data[i] > 200) data.fill(0, i, i + 4);
    expect(measureNoise(makeRaster(170, 170, new Uint8ClampedArray(data)))).toBeGreaterThan(0);
  });
  it("is quieted without moving an edge", () => {
    const random = grain(10);
    const noisy = paint(80, 40, (x) =>
      x < 40 ? [60 + random(), 60 + random(), 60 + random()] : [200 + random(), 200 + random(), 200 + random()],
    );
    const quiet = smoothNoise(noisy, 24);
    const spread = (raster: typeof noisy, from: number, to: number) => {
      let worst = 0;
      for (let y = 4; y < 36; y++)
        for (let x = from; x < to; x++)
          worst = Math.max(worst, Math.abs(raster.data[(y * 80 + x) * 4] - (x < 40 ? 60 : 200)));
      return worst;
    };
    expect(spread(quiet, 4, 36)).toBeLessThan(spread(noisy, 4, 36) * 0.6);
    // The pixels on either side of the edge belong to their side still.
    expect(spread(quiet, 38, 42)).toBeLessThan(12);
  });
  it("a picture whose bytes do not fit its size is refused", () => {
    expect(() => makeRaster(3, 2, new Uint8ClampedArray(20))).toThrow(/need 24 bytes, got 20/);
    expect(() => makeRaster(0, 2, new Uint8ClampedArray(0))).toThrow(RangeError);
  });
});
