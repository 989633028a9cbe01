// The areas that a click would take, as marks for the page.
import { type Assignment, areasToTake, type Reduction } from "@plain-palette/core/reduce";
import type { AreaView, WantedArea } from "./messages.ts";

/** Little-endian RGBA of the marks: seen on light and on dark. */
const MARK = 0xb0e0701c;

let taken = new Uint8Array(0);

/** What a click takes at a place. */
export async function viewArea(
  { kind, reach, at }: WantedArea,
  { spotOfPixel: map }: Assignment,
  { spots }: Reduction,
): Promise<AreaView> {
  if (taken.length !== map.data.length) taken = new Uint8Array(map.data.length);
  const areas = areasToTake(map, { kind, at, reach }, spots, taken);
  if (typeof areas === "string") return { bitmap: null, reason: areas };
  let [left, right, top, bottom] = [map.width, 0, map.height, 0];
  for (const { pixels } of areas)
    pixels.forEach((p) => {
      const x = p % map.width;
      const y = (p - x) / map.width;
      if (x < left) left = x;
      if (x >= right) right = x + 1;
      if (y < top) top = y;
      if (y >= bottom) bottom = y + 1;
    });
  const width = right - left;
  const marks = new Uint32Array(width * (bottom - top));
  for (const { pixels } of areas)
    pixels.forEach((p) => {
      const x = p % map.width;
      marks[((p - x) / map.width - top) * width + x - left] = MARK;
    });
  const data = new ImageData(new Uint8ClampedArray(marks.buffer), width, bottom - top);
  return { bitmap: await createImageBitmap(data), x: left, y: top, reason: null };
}
