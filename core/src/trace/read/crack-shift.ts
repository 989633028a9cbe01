// How far a boundary lies off a crack: the coverage of the pixels along the crack's normal says it.
import { leftShare, type TracedPicture } from "./traced-picture.ts";

/** How many pixels on either side an edge may be blurred over. */
const REACH_PX = 3;
/** A line of at most so many pixels across has no pixel of its pure colour, or hardly. */
const LINE_PX = 3;
/** Coverage beyond the end of a line, px, and the difference of two widths, as a share, where it ends squarely. */
const MOST_BEYOND = 0.3;
const SAME_WIDTH = 0.1;
/** Under this difference of the two sides' pure shares there is no edge to read: the axis runs along another one. */
const LEAST_CONTRAST = 0.6;

/**
 * How far the boundary lies from the crack towards the right-hand pixel, in pixels; NaN where that cannot be said: beside
 * a corner, the pixels along the normal are those of the other side of the corner.
 */
export function readShift(picture: TracedPicture, x0: number, y0: number, dx: number, dy: number): number {
  const { width, height } = picture.spots;
  const leftX = dx > 0 || dy > 0 ? x0 : x0 - 1;
  const leftY = dy > 0 || dx < 0 ? y0 : y0 - 1;
  const rightX = leftX - dy;
  const rightY = leftY + dx;
  const left = leftY * width + leftX;
  const right = rightY * width + rightX;
  const step = -dy + dx * width;
  if (leftX < 0 || leftY < 0 || leftX >= width || leftY >= height) return clearDepth(picture, right, step);
  if (rightX < 0 || rightY < 0 || rightX >= width || rightY >= height) return -clearDepth(picture, left, -step);
  const runLeft = runFrom(picture, left, -step, roomToEdge(leftX, leftY, dy, -dx, width, height));
  const runRight = runFrom(picture, right, step, roomToEdge(rightX, rightY, -dy, dx, width, height));
  if (runRight.isThin !== runLeft.isThin) {
    const line = runRight.isThin ? runRight : runLeft;
    const start = runRight.isThin ? right : left;
    const inwards = runRight.isThin ? step : -step;
    const room = runRight.isThin
      ? roomToEdge(rightX, rightY, -dy, dx, width, height)
      : roomToEdge(leftX, leftY, dy, -dx, width, height);
    const edge = nearEdgeOfLine(picture, start, inwards, line.length, room, runRight.isThin ? left : right);
    if (!Number.isNaN(edge)) return runRight.isThin ? edge : -edge;
  }
  // Shares are read against what the picture really holds beyond the edge: shading and compression shift it.
  const most = pureShare(picture, left, -step, runLeft, left, right);
  const least = pureShare(picture, right, step, runRight, left, right);
  if (most - least < LEAST_CONTRAST) return picture.noise === 0 ? Number.NaN : 0;
  const gained = sumShares(picture, right, step, runRight, left, right, least, most);
  const lost = sumShares(picture, left, -step, runLeft, left, right, most, least);
  return gained - lost;
}

/**
 * How far art that touches the picture's edge ends inside it, px: by the coverage of its outermost pixels. 0 where they are
 * opaque, and the picture's own edge is the boundary.
 */
function clearDepth({ raster: { data }, spots }: TracedPicture, start: number, inwards: number): number {
  let depth = 0;
  for (let k = 0; k < REACH_PX; k++) {
    const p = start + k * inwards;
    if (spots.data[p] !== spots.data[start] || data[p * 4 + 3] === 255) break;
    depth += 1 - data[p * 4 + 3] / 255;
  }
  return depth;
}

/**
 * Where the near edge of a line of at most LINE_PX lies, in pixels from the crack into the line; NaN where it is no such
 * line, or not the same colour on both sides. Both edges mix in its pixels: their sum is its width, their mean its middle.
 */
function nearEdgeOfLine(
  picture: TracedPicture,
  start: number,
  inwards: number,
  length: number,
  room: number,
  outside: number,
): number {
  const { data } = picture.spots;
  const far = start + length * inwards;
  if (length > LINE_PX || room <= length || data[far] !== data[outside]) return Number.NaN;
  let width = 0;
  let moment = 0;
  for (let k = -2; k < length + 2; k++) {
    const p = start + k * inwards;
    if (k >= room || p < 0 || p >= data.length) continue;
    // What lies beyond the next edge on either side is another matter.
    if (k === -2 && data[p] !== data[outside]) continue;
    if (k === length + 1 && data[p] !== data[far]) continue;
    const share = leftShare(picture, p, start, outside);
    width += share;
    moment += share * (k + 0.5);
  }
  if (width < 0.2) return Number.NaN;
  return moment / width - Math.max(width, widthOfStem(picture, start, inwards, length, outside)) / 2;
}

/**
 * Width of the line behind its last pixels, px, where it ends squarely: these are covered in part only, and say nothing of
 * it. 0 where the line does not end, or grows thinner towards its end.
 */
function widthOfStem(picture: TracedPicture, start: number, inwards: number, length: number, outside: number): number {
  const { width, data } = picture.spots;
  const along = Math.abs(inwards) === 1 ? width : 1;
  const [before, after] = [data[start - along], data[start + along]];
  if ((before === data[start]) === (after === data[start])) return 0;
  const back = before === data[start] ? -along : along;
  const widthAt = (row: number) => {
    let sum = 0;
    for (let k = -2; k < length + 2; k++) {
      const p = start + row * back + k * inwards;
      if (p >= 0 && p < data.length) sum += leftShare(picture, p, start, outside);
    }
    return sum;
  };
  const [beyond, first, second] = [widthAt(-1), widthAt(1), widthAt(2)];
  return beyond < MOST_BEYOND && Math.abs(first - second) < SAME_WIDTH * first ? first : 0;
}

/** Pixels from (x, y), itself included, to the picture's edge along a unit step. */
function roomToEdge(x: number, y: number, stepX: number, stepY: number, width: number, height: number): number {
  if (stepX > 0) return width - x;
  if (stepX < 0) return x + 1;
  return stepY > 0 ? height - y : y + 1;
}

/** Pixels of one spot from an edge inwards, counted as far as matters; `isThin`: a strip with another edge close behind. */
interface Run {
  readonly length: number;
  readonly isThin: boolean;
}

function runFrom({ spots: { data } }: TracedPicture, start: number, step: number, room: number): Run {
  const spot = data[start];
  const most = Math.min(2 * REACH_PX, room);
  let length = 1;
  while (length < most && data[start + length * step] === spot) length++;
  return { length, isThin: length < 2 * REACH_PX && length < room };
}

/**
 * The share of the left colour where the edge no longer reaches on one side: near 1 on the left, near 0 on the right. A
 * line may be too thin to have such a place, or end at the picture's edge before it; its palette colour stands for it then.
 */
function pureShare(picture: TracedPicture, start: number, step: number, run: Run, left: number, right: number): number {
  const isLeft = start === left;
  if (run.length < REACH_PX || (run.isThin && run.length <= LINE_PX)) return isLeft ? 1 : 0;
  if (!run.isThin) return leftShare(picture, start + (REACH_PX - 1) * step, left, right);
  // Between edges that are near, the purest pixel: beside a corner it is no purer than the corner's other side covers it.
  let purest = isLeft ? 0 : 1;
  for (let k = 0; k < run.length; k++) {
    const share = leftShare(picture, start + k * step, left, right);
    purest = isLeft ? Math.max(purest, share) : Math.min(purest, share);
  }
  return purest;
}

/**
 * The coverage that the pixels from `start` along `step` have of the other side: their shares' distance from `own`, the
 * pure share of this side, in terms of the whole step to `other`. A thin strip shares its pixels with the edge on its far
 * side, each taking its half.
 */
function sumShares(
  picture: TracedPicture,
  start: number,
  step: number,
  run: Run,
  left: number,
  right: number,
  own: number,
  other: number,
): number {
  const limit = run.isThin ? run.length / 2 : Math.min(run.length, REACH_PX);
  let sum = 0;
  for (let k = 0; k < limit; k++) {
    const share = (leftShare(picture, start + k * step, left, right) - own) / (other - own);
    if (share < 0.02 + picture.noise * 0.01) break;
    sum += Math.min(1, share) * Math.min(1, limit - k);
  }
  return sum;
}
