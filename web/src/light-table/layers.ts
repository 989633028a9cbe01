// What the light table can draw. It knows layers, not steps; a step says which.
import type { CubicPath } from "@plain-palette/core/geometry";
import { isLine, segmentCount } from "@plain-palette/core/geometry";

/** How a layer's own units come onto the table's: x * scale + dx, mirrored if scaleX is negative. */
export interface Placement {
  readonly scaleX: number;
  readonly scaleY: number;
  readonly dx: number;
  readonly dy: number;
}

export type TableLayer =
  | {
      readonly kind: "sheet";
      readonly colour: string;
      readonly x: number;
      readonly y: number;
      readonly width: number;
      readonly height: number;
      readonly hasEdge?: boolean;
      /** Woven with fine lines, so that bare garment is told from ink of its colour. */
      readonly isCloth?: boolean;
    }
  | {
      readonly kind: "bitmap";
      readonly bitmap: ImageBitmap;
      readonly opacity: number;
      readonly placement?: Placement;
    }
  | {
      readonly kind: "fills";
      readonly fills: readonly { readonly colour: string; readonly path: Path2D }[];
      readonly placement?: Placement;
      /** Abutting shapes: each is widened by half a screen pixel underneath, so that no hairline shows between them. */
      readonly isAbutting?: boolean;
    }
  | {
      readonly kind: "strokes";
      readonly path: Path2D;
      readonly colour: string;
      readonly screenPx?: number;
      readonly width?: number;
      readonly placement?: Placement;
      /** Drawn over a wider light line, so that it shows on any colour. */
      readonly isHaloed?: boolean;
      readonly dashPx?: number;
    }
  /** Round grips of constant size on screen. */
  | { readonly kind: "grips"; readonly points: readonly { readonly x: number; readonly y: number }[] }
  | { readonly kind: "nodes"; readonly points: Float64Array; readonly colour: string }
  | {
      readonly kind: "text";
      readonly lines: readonly string[];
      readonly x: number;
      readonly y: number;
      readonly size: number;
      readonly leading: number;
      readonly placement?: Placement;
    };

/** One drawable path of many closed or open ones. */
export function makePath2D(paths: readonly CubicPath[], isClosed: boolean): Path2D {
  const out = new Path2D();
  for (const path of paths) {
    out.moveTo(path[0], path[1]);
    const segments = segmentCount(path);
    for (let s = 0; s < segments; s++) {
      const o = s * 6 + 2;
      if (isLine(path, s)) out.lineTo(path[o + 4], path[o + 5]);
      else out.bezierCurveTo(path[o], path[o + 1], path[o + 2], path[o + 3], path[o + 4], path[o + 5]);
    }
    if (isClosed) out.closePath();
  }
  return out;
}

/** A path through x, y pairs. */
export function makePolylinePath(points: readonly number[], isClosed: boolean): Path2D {
  const out = new Path2D();
  for (let i = 0; i + 1 < points.length; i += 2) out.lineTo(points[i], points[i + 1]);
  if (isClosed) out.closePath();
  return out;
}

/** All on-curve points of paths, x, y pairs. */
export function nodePoints(paths: readonly CubicPath[]): Float64Array {
  let n = 0;
  for (const path of paths) n += segmentCount(path) + 1;
  const out = new Float64Array(n * 2);
  let o = 0;
  for (const path of paths)
    for (let i = 0; i < path.length; i += 6) {
      out[o++] = path[i];
      out[o++] = path[i + 1];
    }
  return out;
}

/** Draws one layer; `zoom` is screen pixels per table unit. */
export function drawLayer(context: CanvasRenderingContext2D, layer: TableLayer, zoom: number): void {
  context.save();
  if ("placement" in layer && layer.placement) {
    const { scaleX, scaleY, dx, dy } = layer.placement;
    context.transform(scaleX, 0, 0, scaleY, dx, dy);
  }
  switch (layer.kind) {
    case "sheet":
      context.fillStyle = layer.colour;
      context.fillRect(layer.x, layer.y, layer.width, layer.height);
      if (layer.isCloth) drawCloth(context, layer, zoom);
      if (layer.hasEdge) {
        context.strokeStyle = "rgba(0,0,0,.35)";
        context.lineWidth = 1 / zoom;
        context.strokeRect(layer.x, layer.y, layer.width, layer.height);
      }
      break;
    case "bitmap":
      {
        const screenPxPerPixel = zoom * Math.abs(layer.placement?.scaleX ?? 1);
        // Near enough to count pixels, they are shown as pixels; a little smaller than life, neighbours are mixed at once.
        context.imageSmoothingEnabled = screenPxPerPixel < 3;
        context.imageSmoothingQuality = screenPxPerPixel > 0.5 ? "low" : "medium";
      }
      context.globalAlpha = layer.opacity;
      context.drawImage(layer.bitmap, 0, 0);
      break;
    case "fills":
      if (layer.isAbutting)
        for (const { colour, path } of layer.fills) {
          context.strokeStyle = colour;
          context.lineWidth = 0.8 / zoom;
          context.stroke(path);
        }
      for (const { colour, path } of layer.fills) {
        context.fillStyle = colour;
        context.fill(path, "nonzero");
      }
      break;
    case "strokes":
      context.lineJoin = "round";
      context.lineCap = "round";
      if (layer.isHaloed) {
        context.strokeStyle = "rgba(255,255,255,.85)";
        context.lineWidth = ((layer.screenPx ?? 1) + 2) / zoom;
        context.stroke(layer.path);
      }
      if (layer.dashPx) context.setLineDash([layer.dashPx / zoom, layer.dashPx / zoom]);
      context.strokeStyle = layer.colour;
      context.lineWidth = layer.width ?? (layer.screenPx ?? 1) / zoom;
      context.stroke(layer.path);
      break;
    case "grips":
      for (const { x, y } of layer.points) {
        context.beginPath();
        context.arc(x, y, GRIP_PX / zoom, 0, 2 * Math.PI);
        context.fillStyle = "#ffffff";
        context.fill();
        context.strokeStyle = "#1e1d1a";
        context.lineWidth = 1.5 / zoom;
        context.stroke();
      }
      break;
    case "nodes":
      drawNodes(context, layer.points, layer.colour, zoom);
      break;
    case "text":
      context.fillStyle = "#000";
      context.font = `${layer.size}px "Public Sans", sans-serif`;
      layer.lines.forEach((line, i) => {
        context.fillText(line, layer.x, layer.y + (i + 1) * layer.leading);
      });
      break;
  }
  context.restore();
}

/** Radius of a grip on screen, px; what is caught by the pointer is twice that. */
export const GRIP_PX = 5.5;
const WEAVE_PX = 7;

let weave: OffscreenCanvas | null = null;

/** A tile of slanting lines. */
function weaveTile(): OffscreenCanvas {
  if (weave) return weave;
  weave = new OffscreenCanvas(WEAVE_PX, WEAVE_PX);
  const context = weave.getContext("2d");
  if (!context) return weave;
  context.strokeStyle = "rgba(128,128,128,.28)";
  // Twice beyond its corners, so that tiles join.
  for (const shift of [-WEAVE_PX, 0, WEAVE_PX]) {
    context.moveTo(shift - 1, WEAVE_PX + 1);
    context.lineTo(shift + WEAVE_PX + 1, -1);
  }
  context.stroke();
  return weave;
}

/** Slanting lines at a constant distance on screen. */
function drawCloth(
  context: CanvasRenderingContext2D,
  { x, y, width, height }: { x: number; y: number; width: number; height: number },
  zoom: number,
): void {
  const pattern = context.createPattern(weaveTile(), "repeat");
  if (!pattern) return;
  pattern.setTransform(new DOMMatrix().scale(1 / zoom));
  context.fillStyle = pattern;
  context.fillRect(x, y, width, height);
}

/** Nodes are small crosses of constant size on screen: they hide less of the line than boxes do. */
function drawNodes(context: CanvasRenderingContext2D, points: Float64Array, colour: string, zoom: number): void {
  const arm = 2.6 / zoom;
  context.strokeStyle = colour;
  context.lineWidth = 1 / zoom;
  context.beginPath();
  for (let i = 0; i < points.length; i += 2) {
    const x = points[i];
    const y = points[i + 1];
    context.moveTo(x - arm, y - arm);
    context.lineTo(x + arm, y + arm);
    context.moveTo(x - arm, y + arm);
    context.lineTo(x + arm, y - arm);
  }
  context.stroke();
}
