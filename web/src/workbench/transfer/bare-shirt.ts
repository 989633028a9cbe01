// Where the shirt would show if film moved while it is pressed. Drawn, not computed with outlines: it is only looked at.
import { boundsOfAll, type CubicPath } from "@plain-palette/core/geometry";
import type { Layer, Layering } from "@plain-palette/core/transfer";
import { makePath2D } from "../../light-table/pieces.ts";

/** How far a layer may slip, any way, and by what share it may shrink towards its middle. */
export interface Movement {
  readonly slipMm: number;
  readonly shrinkShare: number;
}

export interface BareShirt {
  readonly bitmap: ImageBitmap;
  /** Table units to one of its pixels. */
  readonly pxPerPixel: number;
  readonly areaMm2: number;
}

/** The longer side that it is drawn with, px. */
const LONGEST = 1300;
/** Ways in which a layer slips. */
const WAYS = 8;
/** Film covers half a pixel more than it does all round: edges that meet share pixels, and each would leave some of them bare. */
const RIM_PX = 1;
/** Less than this share of a pixel bare is none, 0..255. */
const COVERED = 128;
const MARK = "#d0006f";

/**
 * All places inside the design where the shirt shows if one layer moves and the others lie where they belong. The rim of the
 * design, where film that slips only lies a little farther on, is left out. Null where there is nothing to draw.
 */
export function drawBareShirt(layering: Layering, { slipMm, shrinkShare }: Movement): BareShirt | null {
  const { widthPx, heightPx, mmPerPx, layers, outline } = layering;
  const zoom = LONGEST / Math.max(widthPx, heightPx);
  const [width, height] = [Math.ceil(widthPx * zoom), Math.ceil(heightPx * zoom)];
  const slipPx = slipMm / mmPerPx;
  const sheet = () => {
    const context = new OffscreenCanvas(width, height).getContext("2d", { willReadFrequently: true });
    context?.scale(zoom, zoom);
    return context;
  };
  const [inside, alone, one, all] = [sheet(), sheet(), sheet(), sheet()];
  if (!inside || !alone || !one || !all) return null;
  const paths = layers.map(({ region }) => makePath2D(region, true));
  const rim = makePath2D(outline, true);
  inside.fill(rim, "nonzero");
  inside.globalCompositeOperation = "destination-out";
  inside.lineJoin = "round";
  inside.lineWidth = 2 * (slipPx + Math.max(0, ...layers.map((layer) => shrinkPx(layer, shrinkShare))));
  inside.stroke(rim);
  layers.forEach(({ region }, k) => {
    lay(alone, inside.canvas);
    alone.globalCompositeOperation = "destination-out";
    paths.forEach((path, other) => {
      if (other !== k) cover(alone, path, zoom);
    });
    for (let way = 0; way < WAYS; way++) {
      const angle = (way * 2 * Math.PI) / WAYS;
      lay(one, alone.canvas);
      one.globalCompositeOperation = "destination-out";
      const moved = new Path2D();
      moved.addPath(
        paths[k] ?? moved,
        movedBy(region, slipPx * Math.cos(angle), slipPx * Math.sin(angle), shrinkShare),
      );
      cover(one, moved, zoom);
      lay(all, one.canvas, false);
    }
  });
  const areaMm2 = countCovered(all, width, height) * (mmPerPx / zoom) ** 2;
  lay(one, all.canvas);
  one.globalCompositeOperation = "source-in";
  one.fillStyle = MARK;
  one.fillRect(0, 0, widthPx, heightPx);
  return { bitmap: one.canvas.transferToImageBitmap(), pxPerPixel: 1 / zoom, areaMm2 };
}

function cover(context: OffscreenCanvasRenderingContext2D, path: Path2D, zoom: number): void {
  context.fill(path, "nonzero");
  context.lineWidth = RIM_PX / zoom;
  context.stroke(path);
}

/** The lap that covers a movement: how far the edge of any layer may come to lie from where it belongs, mm. */
export function lapFor({ layers, mmPerPx }: Layering, { slipMm, shrinkShare }: Movement): number {
  return slipMm + Math.max(0, ...layers.map((layer) => shrinkPx(layer, shrinkShare))) * mmPerPx;
}

/** How far the farthest corner of a layer moves when it shrinks. */
function shrinkPx({ region }: Layer, share: number): number {
  const { left, top, right, bottom } = boundsOfAll(region);
  return (share * Math.hypot(right - left, bottom - top)) / 2;
}

function movedBy(region: readonly CubicPath[], dx: number, dy: number, shrinkShare: number): DOMMatrix {
  const { left, top, right, bottom } = boundsOfAll(region);
  const [x, y] = [(left + right) / 2, (top + bottom) / 2];
  return new DOMMatrix()
    .translate(x + dx, y + dy)
    .scale(1 - shrinkShare)
    .translate(-x, -y);
}

/** Lays a drawing of the same size on a sheet, in place of what is there or over it. */
function lay(context: OffscreenCanvasRenderingContext2D, drawing: OffscreenCanvas, isInPlace = true): void {
  context.save();
  context.resetTransform();
  context.globalCompositeOperation = isInPlace ? "copy" : "source-over";
  context.drawImage(drawing, 0, 0);
  context.restore();
}

function countCovered(context: OffscreenCanvasRenderingContext2D, width: number, height: number): number {
  const { data } = context.getImageData(0, 0, width, height);
  let covered = 0;
  for (let i = 3; i < data.length; i += 4) if ((data[i] ?? 0) >= COVERED) covered++;
  return covered;
}
