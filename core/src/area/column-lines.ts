// What is measured along columns: their middle, their width.
import { lengthOf } from "../geometry/index.ts";
import type { Column } from "./columns.ts";
import { STRIDE } from "./stations.ts";

/** Where a station's numbers begin; round a ring stations are counted on. */
export function offsetOf({ stations, isClosed }: Column, k: number): number {
  return (isClosed ? k % (stations.length / STRIDE - 1) : k) * STRIDE;
}

/** The middle of a column from one station to another, either way. */
export function middleLine(column: Column, from: number, to: number): number[] {
  const { stations } = column;
  const out: number[] = [];
  const step = from <= to ? 1 : -1;
  for (let k = from; ; k += step) {
    const i = offsetOf(column, k);
    out.push((stations[i] + stations[i + 2]) / 2, (stations[i + 1] + stations[i + 3]) / 2);
    if (k === to) return out;
  }
}

/** The width at each station, mm. */
export function columnWidths({ stations }: Column): Float64Array {
  return Float64Array.from({ length: stations.length / STRIDE }, (_, k) => {
    const i = k * STRIDE;
    return lengthOf(stations[i + 2] - stations[i], stations[i + 3] - stations[i + 1]);
  });
}
