// What thread covers, drawn from a stitch list alone, beside what was to be covered.
import type { StitchList } from "./read-stitch-list.ts";
import type { Mask } from "./weed.ts";

/** Thread of 40 weight lies so wide, mm (common practice, no source). */
const THREAD_MM = 0.4;

/** What one thread of a list covers, as a picture like another; the list's middle is the picture's. */
export function coverThread({ rows }: StitchList, thread: number, { width, height, perMm }: Mask): Mask {
  const data = new Uint8Array(width * height);
  const reach = (THREAD_MM / 2) * perMm;
  rows.forEach((row, i) => {
    const before = rows[i - 1];
    if (row.thread !== thread || row.command !== "stitch" || before?.command !== "stitch") return;
    const [ax, ay] = [width / 2 + before.x * perMm, height / 2 - before.y * perMm];
    const [bx, by] = [width / 2 + row.x * perMm, height / 2 - row.y * perMm];
    const square = (bx - ax) ** 2 + (by - ay) ** 2 || 1;
    const [left, right] = [Math.floor(Math.min(ax, bx) - reach), Math.ceil(Math.max(ax, bx) + reach)];
    const [top, bottom] = [Math.floor(Math.min(ay, by) - reach), Math.ceil(Math.max(ay, by) + reach)];
    for (let y = Math.max(0, top); y <= Math.min(height - 1, bottom); y++)
      for (let x = Math.max(0, left); x <= Math.min(width - 1, right); x++) {
        const [px, py] = [x + 0.5, y + 0.5];
        const t = Math.min(1, Math.max(0, ((px - ax) * (bx - ax) + (py - ay) * (by - ay)) / square));
        const [dx, dy] = [px - ax - t * (bx - ax), py - ay - t * (by - ay)];
        if (dx * dx + dy * dy <= reach * reach) data[y * width + x] = 1;
      }
  });
  return { width, height, perMm, data };
}

/** Share of what was wanted that is covered; 1 where nothing was. */
export function coveredShare(thread: Mask, wanted: Mask): number {
  let [all, covered] = [0, 0];
  wanted.data.forEach((one, p) => {
    all += one;
    if (one === 1) covered += thread.data[p] ?? 0;
  });
  return all > 0 ? covered / all : 1;
}
