// All areas that lie wholly inside a loop drawn by hand.
import type { LabelMap } from "../raster/index.ts";
import { type Area, floodArea } from "./flood.ts";

/**
 * Areas of any label, clear ones included, of which every pixel's centre lies inside the loop (x, y pairs, even-odd).
 * `isTaken` as for floodArea.
 */
export function areasInLoop(map: LabelMap, loop: readonly number[], isTaken: Uint8Array): Area[] {
  const { width, height } = map;
  const isInside = new Uint8Array(width * height);
  const n = loop.length / 2;
  const ys = loop.filter((_, i) => i % 2 === 1);
  const top = Math.max(0, Math.floor(Math.min(...ys)));
  const bottom = Math.min(height - 1, Math.ceil(Math.max(...ys)));
  for (let y = top; y <= bottom; y++) {
    const crossings: number[] = [];
    for (let i = 0; i < n; i++) {
      const [x0, y0] = [loop[i * 2], loop[i * 2 + 1]];
      const [x1, y1] = [loop[((i + 1) % n) * 2], loop[((i + 1) % n) * 2 + 1]];
      if (y0 > y + 0.5 !== y1 > y + 0.5) crossings.push(x0 + ((y + 0.5 - y0) / (y1 - y0)) * (x1 - x0));
    }
    crossings.sort((a, b) => a - b);
    for (let k = 0; k + 1 < crossings.length; k += 2) {
      const from = Math.max(0, Math.ceil(crossings[k] - 0.5));
      const to = Math.min(width, Math.floor(crossings[k + 1] - 0.5) + 1);
      if (from < to) isInside.fill(1, y * width + from, y * width + to);
    }
  }
  const areas: Area[] = [];
  const seen = new Uint8Array(width * height);
  for (let p = isInside.indexOf(1); p >= 0; p = isInside.indexOf(1, p + 1)) {
    if (seen[p] === 1) continue;
    const area = floodArea(map, p, isTaken);
    let isWhole = true;
    for (let k = 0; k < area.pixels.length; k++) {
      seen[area.pixels[k]] = 1;
      if (isInside[area.pixels[k]] === 0) isWhole = false;
    }
    if (isWhole) areas.push(area);
  }
  return areas;
}
