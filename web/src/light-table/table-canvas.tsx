// The canvas of the light table: layers from their painted tiles, and what a tool shows over them.
import { useLayoutEffect, useRef } from "react";
import { drawLayer, type TableLayer } from "./layers.ts";
import type { TableMemory } from "./table-memory.ts";
import type { Size, View } from "./tiles.ts";

interface Props {
  readonly name: string;
  readonly memory: TableMemory;
  readonly layers: readonly TableLayer[];
  readonly overlays: readonly TableLayer[];
  /** Shown left of `splitX` instead of the others. */
  readonly splitLayers: readonly TableLayer[] | undefined;
  readonly splitX: number;
  readonly view: View;
  readonly size: Size;
}

export function TableCanvas({ name, memory, layers, overlays, splitLayers, splitX, view, size }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useLayoutEffect(() => {
    const element = canvas.current;
    const context = element?.getContext("2d");
    if (!element || !context) return;
    let frame = 0;
    const draw = () => {
      const ratio = window.devicePixelRatio;
      fitTo(element, size, ratio);
      context.setTransform(ratio, 0, 0, ratio, 0, 0);
      context.clearRect(0, 0, size.width, size.height);
      const paint = (painter: string, shown: readonly TableLayer[], from: number, to: number): boolean => {
        context.save();
        context.beginPath();
        context.rect(from, 0, to - from, size.height);
        context.clip();
        const isWhole = memory.painterOf(painter).paint(context, shown, view, size, ratio);
        if (shown === layers) drawOver(context, overlays, view, size);
        context.restore();
        return isWhole;
      };
      const isWhole = paint(name, layers, splitLayers ? splitX : 0, size.width);
      const isSplitWhole = !splitLayers || paint(`${name}, source`, splitLayers, 0, splitX);
      if (!isWhole || !isSplitWhole) frame = requestAnimationFrame(draw);
    };
    // However often it changes, it is drawn once a frame.
    frame = requestAnimationFrame(draw);
    return () => cancelAnimationFrame(frame);
  }, [name, memory, layers, overlays, splitLayers, splitX, view, size]);
  return <canvas ref={canvas} className="block" style={{ width: size.width, height: size.height }} />;
}

/** As many pixels as the screen has there; setting a size wipes a canvas, so only where it is another. */
function fitTo(canvas: HTMLCanvasElement, size: Size, ratio: number): void {
  const [width, height] = [Math.round(size.width * ratio), Math.round(size.height * ratio)];
  if (canvas.width !== width) canvas.width = width;
  if (canvas.height !== height) canvas.height = height;
}

function drawOver(
  context: CanvasRenderingContext2D,
  overlays: readonly TableLayer[],
  { zoom, x, y }: View,
  size: Size,
): void {
  context.translate(x, y);
  context.scale(zoom, zoom);
  const seen = { left: -x / zoom, top: -y / zoom, right: (size.width - x) / zoom, bottom: (size.height - y) / zoom };
  for (const layer of overlays) drawLayer(context, layer, zoom, seen);
}
