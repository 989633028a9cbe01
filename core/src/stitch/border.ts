// Borders: a narrow satin column, or bean stitches, along outlines.
import { lengthOf } from "../geometry/index.ts";
import { closed, type Ring } from "./area.ts";
import type { Column } from "./columns.ts";
import { beanOf, divideLine } from "./needle.ts";
import { type PullAt, sewSatin } from "./satin.ts";
import { STATION_MM, STRIDE } from "./stations.ts";

/** A rail's direction is taken from the outline this far before and after, mm: it turns round a corner, and does not break. */
const AHEAD_MM = 0.35;

/** A border's needle points along one ring. */
export function sewBorder(
  ring: Ring,
  { kind, widthMm, spacingMm, beanMm }: { kind: "satin" | "bean"; widthMm: number; spacingMm: number; beanMm: number },
  pullAt: PullAt,
): number[] {
  if (kind === "bean") return beanOf(divideLine(closed(ring), beanMm), 3);
  const column = columnAlong(ring, widthMm);
  const last = column.stations.length / STRIDE - 1;
  return last < 2 ? [] : sewSatin(column, 0, last, { spacingMm, pullAt, splitMm: Number.POSITIVE_INFINITY });
}

/** A closed column of one width along a ring, half of it on either side. */
export function columnAlong(ring: Ring, widthMm: number): Column {
  const line = closed(ring);
  const along = [0];
  for (let i = 2; i < line.length; i += 2)
    along.push(along[along.length - 1] + lengthOf(line[i] - line[i - 2], line[i + 1] - line[i - 1]));
  const whole = along[along.length - 1];
  const count = Math.max(3, Math.round(whole / STATION_MM));
  let i = 0;
  const at = (distance: number): readonly [number, number] => {
    const d = ((distance % whole) + whole) % whole;
    while (i > 0 && along[i] > d) i--;
    while (i < along.length - 2 && along[i + 1] < d) i++;
    const t = (d - along[i]) / (along[i + 1] - along[i] || 1);
    return [
      line[i * 2] + t * (line[i * 2 + 2] - line[i * 2]),
      line[i * 2 + 1] + t * (line[i * 2 + 3] - line[i * 2 + 1]),
    ];
  };
  const stations = new Float64Array((count + 1) * STRIDE);
  for (let k = 0; k <= count; k++) {
    const d = (k / count) * whole;
    const [x, y] = at(d);
    const [[fromX, fromY], [toX, toY]] = [at(d - AHEAD_MM), at(d + AHEAD_MM)];
    const length = lengthOf(toX - fromX, toY - fromY) || 1;
    const [nx, ny] = [((toY - fromY) / length) * (widthMm / 2), ((fromX - toX) / length) * (widthMm / 2)];
    stations.set([x + nx, y + ny, x - nx, y - ny], k * STRIDE);
  }
  return { stations, isClosed: true };
}
