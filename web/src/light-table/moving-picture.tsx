// A picture that moves by itself over the table: drawn frame by frame past React, and of each frame only what is new in it.
import { useLayoutEffect, useRef } from "react";
import type { Size, View } from "./tiles.ts";

/** A part of a picture, its pixels. */
export interface PicturePart {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

export interface MovingPicture {
  readonly canvas: OffscreenCanvas;
  /** Table units to a pixel of it; its corner is the table's. */
  readonly unitsPerPx: number;
  /** What marks the place of the moment, its pixels. */
  readonly mark: { readonly x: number; readonly y: number };
  /** Called with the part that has changed. Returns what ends it. */
  onFrame(drawn: (part: PicturePart) => void): () => void;
}

interface Props {
  readonly picture: MovingPicture;
  readonly view: View;
  readonly size: Size;
  /** Nothing is shown left of it. */
  readonly fromX: number;
}

/** Round a changed part so much is drawn with it, px: edges are softened. */
const SOFT_PX = 2;

export function MovingLayer({ picture, view, size, fromX }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const cross = useRef<SVGSVGElement>(null);
  useLayoutEffect(() => {
    const element = canvas.current;
    const context = element?.getContext("2d");
    if (!element || !context) return;
    const ratio = window.devicePixelRatio;
    const scale = view.zoom * picture.unitsPerPx * ratio;
    const [x0, y0] = [view.x * ratio, view.y * ratio];
    element.width = Math.round(size.width * ratio);
    element.height = Math.round(size.height * ratio);
    const draw = (part: PicturePart) => {
      const left = Math.max(0, Math.floor(part.left * scale + x0) - SOFT_PX);
      const top = Math.max(0, Math.floor(part.top * scale + y0) - SOFT_PX);
      const right = Math.min(element.width, Math.ceil(part.right * scale + x0) + SOFT_PX);
      const bottom = Math.min(element.height, Math.ceil(part.bottom * scale + y0) + SOFT_PX);
      const { x, y } = picture.mark;
      if (cross.current)
        cross.current.style.transform = `translate(${(x * scale + x0) / ratio}px, ${(y * scale + y0) / ratio}px)`;
      if (left >= right || top >= bottom) return;
      context.save();
      context.beginPath();
      context.rect(left, top, right - left, bottom - top);
      context.clip();
      context.clearRect(left, top, right - left, bottom - top);
      context.setTransform(scale, 0, 0, scale, x0, y0);
      context.drawImage(picture.canvas, 0, 0);
      context.restore();
    };
    draw({ left: 0, top: 0, right: picture.canvas.width, bottom: picture.canvas.height });
    return picture.onFrame(draw);
  }, [picture, view, size]);
  return (
    <div className="pointer-events-none absolute inset-0" style={{ clipPath: `inset(0 0 0 ${fromX}px)` }}>
      <canvas ref={canvas} className="block" style={{ width: size.width, height: size.height }} />
      <svg ref={cross} aria-hidden="true" className="absolute left-0 top-0 size-6 -ml-3 -mt-3" viewBox="-12 -12 24 24">
        <path d="M-11 0H11M0-11V11" stroke="#fff" strokeWidth="4" />
        <path d="M-11 0H11M0-11V11" stroke="#b3261e" strokeWidth="1.5" />
      </svg>
    </div>
  );
}
