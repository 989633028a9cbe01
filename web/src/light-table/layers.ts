// What the light table can draw. It knows layers, not steps; a step says which.
import { type Bounds, eachPoint } from "@plain-palette/core/geometry";
import { type Pieces, partOf } from "./pieces.ts";

/** How a layer's own units come onto the table's: x * scale + dx, mirrored if scaleX is negative. */
export interface LayerTransform {
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
      readonly bitmap: ImageBitmap | OffscreenCanvas;
      readonly opacity: number;
      readonly transform?: LayerTransform;
    }
  | {
      readonly kind: "fills";
      readonly fills: readonly { readonly colour: string; readonly path: Path2D | Pieces }[];
      readonly transform?: LayerTransform;
      /** Abutting shapes: each is widened by half a screen pixel underneath, so that no hairline shows between them. */
      readonly isAbutting?: boolean;
    }
  | {
      readonly kind: "strokes";
      readonly path: Path2D | Pieces;
      readonly colour: string;
      readonly screenPx?: number;
      readonly width?: number;
      readonly transform?: LayerTransform;
      /** Drawn over a wider light line, so that it shows on any colour. */
      readonly isHaloed?: boolean;
      readonly dashPx?: number;
    }
  /** Round grips of constant size on screen. */
  | { readonly kind: "grips"; readonly points: readonly { readonly x: number; readonly y: number }[] }
  | {
      readonly kind: "nodes";
      readonly points: Float64Array;
      readonly colour: string;
      /** Of those that would lie on each other on screen only some are drawn. */
      readonly isThinned?: boolean;
    }
  | {
      readonly kind: "text";
      readonly lines: readonly string[];
      readonly x: number;
      readonly y: number;
      readonly size: number;
      readonly leading: number;
      /** On a light rim, so that it shows on any colour. */
      readonly isHaloed?: boolean;
      readonly transform?: LayerTransform;
    };

type Context = CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D;

/** Lines and nodes reach this far beyond their places, screen px. */
export const REACH_PX = 6;

/** Draws what of one layer is seen in a box of the table; `zoom` is screen pixels per table unit. */
export function drawLayer(context: Context, layer: TableLayer, zoom: number, seen: Bounds): void {
  context.save();
  const transform = "transform" in layer ? layer.transform : undefined;
  if (transform) context.transform(transform.scaleX, 0, 0, transform.scaleY, transform.dx, transform.dy);
  const box = boxInLayer(seen, REACH_PX / zoom, transform);
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
        const screenPxPerPixel = zoom * Math.abs(layer.transform?.scaleX ?? 1);
        // Near enough to count pixels, they are shown as pixels; a little smaller than life, neighbours are mixed at once.
        context.imageSmoothingEnabled = screenPxPerPixel < 3;
        context.imageSmoothingQuality = screenPxPerPixel > 0.5 ? "low" : "medium";
      }
      context.globalAlpha = layer.opacity;
      context.drawImage(layer.bitmap, 0, 0);
      break;
    case "fills":
      {
        const fills = layer.fills.map(({ colour, path }) => ({ colour, part: partOf(path, box) }));
        if (layer.isAbutting)
          for (const { colour, part } of fills) {
            context.strokeStyle = colour;
            context.lineWidth = 0.8 / zoom;
            context.stroke(part);
          }
        for (const { colour, part } of fills) {
          context.fillStyle = colour;
          context.fill(part, "nonzero");
        }
      }
      break;
    case "strokes":
      drawStrokes(context, layer, partOf(layer.path, box), zoom);
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
      drawNodes(context, layer, zoom, box);
      break;
    case "text":
      context.fillStyle = "#000";
      context.font = `${layer.size}px "Public Sans", sans-serif`;
      context.strokeStyle = "rgba(255,255,255,.85)";
      context.lineWidth = layer.isHaloed ? layer.size / 4 : 0;
      context.lineJoin = "round";
      layer.lines.forEach((line, i) => {
        if (layer.isHaloed) context.strokeText(line, layer.x, layer.y + (i + 1) * layer.leading);
        context.fillText(line, layer.x, layer.y + (i + 1) * layer.leading);
      });
      break;
  }
  context.restore();
}

/** A box of the table, wider by `reach` on all sides, in the units of a layer. */
function boxInLayer(
  { left, top, right, bottom }: Bounds,
  reach: number,
  transform: LayerTransform | undefined,
): Bounds {
  const { scaleX, scaleY, dx, dy } = transform ?? { scaleX: 1, scaleY: 1, dx: 0, dy: 0 };
  const x = [(left - reach - dx) / scaleX, (right + reach - dx) / scaleX];
  const y = [(top - reach - dy) / scaleY, (bottom + reach - dy) / scaleY];
  return { left: Math.min(...x), right: Math.max(...x), top: Math.min(...y), bottom: Math.max(...y) };
}

function drawStrokes(
  context: Context,
  layer: Extract<TableLayer, { kind: "strokes" }>,
  path: Path2D,
  zoom: number,
): void {
  context.lineJoin = "round";
  context.lineCap = "round";
  if (layer.isHaloed) {
    context.strokeStyle = "rgba(255,255,255,.85)";
    context.lineWidth = ((layer.screenPx ?? 1) + 2) / zoom;
    context.stroke(path);
  }
  if (layer.dashPx) context.setLineDash([layer.dashPx / zoom, layer.dashPx / zoom]);
  context.strokeStyle = layer.colour;
  context.lineWidth = layer.width ?? (layer.screenPx ?? 1) / zoom;
  context.stroke(path);
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
  context: Context,
  { x, y, width, height }: { x: number; y: number; width: number; height: number },
  zoom: number,
): void {
  const pattern = context.createPattern(weaveTile(), "repeat");
  if (!pattern) return;
  pattern.setTransform(new DOMMatrix().scale(1 / zoom));
  context.fillStyle = pattern;
  context.fillRect(x, y, width, height);
}

/** Thinned nodes in a row are this far apart on screen, px. */
const THINNED_PX = 9;

/** Nodes are small crosses of constant size on screen: they hide less of the line than boxes do. */
function drawNodes(
  context: Context,
  { points, colour, isThinned = false }: Extract<TableLayer, { kind: "nodes" }>,
  zoom: number,
  box: Bounds,
): void {
  const arm = 2.6 / zoom;
  const apart = isThinned ? THINNED_PX / zoom : 0;
  let [lastX, lastY] = [Number.NEGATIVE_INFINITY, 0];
  context.strokeStyle = colour;
  context.lineWidth = 1 / zoom;
  context.beginPath();
  eachPoint(points, (x, y) => {
    if (x < box.left || x > box.right || y < box.top || y > box.bottom) return;
    if (Math.abs(x - lastX) + Math.abs(y - lastY) < apart) return;
    [lastX, lastY] = [x, y];
    context.moveTo(x - arm, y - arm);
    context.lineTo(x + arm, y + arm);
    context.moveTo(x - arm, y + arm);
    context.lineTo(x + arm, y - arm);
  });
  context.stroke();
}
