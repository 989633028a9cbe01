// Thread drawn stitch by stitch, as the machine sews it: forwards only what is new, backwards from the last picture that was kept.
import { COMMANDS, type StitchPlan, THREAD_MM } from "@plain-palette/core/stitch";
import type { PicturePart } from "../../light-table/moving-picture.tsx";
import { shaded, shadeOf } from "./thread-layers.ts";

/** Longest side of the picture, px. */
const MOST_PX = 1400;
/** Finest that is drawn, pixels to a millimetre. */
const FINEST = 16;
/** A picture is kept after so many commands, to go back to. */
const KEPT_EVERY = 8000;

export class ThreadCanvas {
  readonly canvas: OffscreenCanvas;
  readonly pxPerMm: number;
  private readonly context: OffscreenCanvasRenderingContext2D | null;
  private readonly kept: OffscreenCanvas[] = [];
  /** Commands that are drawn. */
  private drawn = 0;

  constructor(private readonly plan: StitchPlan) {
    this.pxPerMm = Math.min(FINEST, MOST_PX / Math.max(plan.widthMm, plan.heightMm));
    this.canvas = new OffscreenCanvas(Math.ceil(plan.widthMm * this.pxPerMm), Math.ceil(plan.heightMm * this.pxPerMm));
    this.context = this.canvas.getContext("2d");
    if (!this.context) return;
    this.context.lineCap = "round";
    this.context.lineJoin = "round";
    this.context.lineWidth = THREAD_MM * this.pxPerMm;
  }

  /** Shows the plan as it is after so many commands. Returns the part that is another than before. */
  drawTo(count: number): PicturePart {
    const isBack = count < this.drawn;
    if (isBack) this.goBack(count);
    const part = { left: this.canvas.width, top: this.canvas.height, right: 0, bottom: 0 };
    const half = (THREAD_MM / 2) * this.pxPerMm;
    for (let i = this.drawn; i < count; i++) {
      this.drawOne(i);
      // A stitch begins where the one before ended.
      for (const k of [Math.max(0, i - 1), i]) {
        const [x, y] = [(this.plan.x[k] ?? 0) * this.pxPerMm, (this.plan.y[k] ?? 0) * this.pxPerMm];
        part.left = Math.min(part.left, x - half);
        part.top = Math.min(part.top, y - half);
        part.right = Math.max(part.right, x + half);
        part.bottom = Math.max(part.bottom, y + half);
      }
      if ((i + 1) % KEPT_EVERY === 0 && this.kept.length < (i + 1) / KEPT_EVERY) this.kept.push(copyOf(this.canvas));
    }
    this.drawn = count;
    return isBack ? { left: 0, top: 0, right: this.canvas.width, bottom: this.canvas.height } : part;
  }

  private goBack(count: number): void {
    const { context, canvas } = this;
    const pictures = Math.min(this.kept.length, Math.floor(count / KEPT_EVERY));
    context?.clearRect(0, 0, canvas.width, canvas.height);
    const picture = this.kept[pictures - 1];
    if (picture) context?.drawImage(picture, 0, 0);
    this.drawn = picture ? pictures * KEPT_EVERY : 0;
  }

  private drawOne(i: number): void {
    const { plan, context, pxPerMm } = this;
    if (!context || i === 0 || !this.isStitch(i) || !this.isStitch(i - 1)) return;
    const [x, y, toX, toY] = [plan.x[i - 1] ?? 0, plan.y[i - 1] ?? 0, plan.x[i] ?? 0, plan.y[i] ?? 0];
    const rgb = plan.colours[plan.colour[i] ?? 0]?.rgb ?? [0, 0, 0];
    context.strokeStyle = shaded(rgb, shadeOf(toX - x, toY - y));
    context.beginPath();
    context.moveTo(x * pxPerMm, y * pxPerMm);
    context.lineTo(toX * pxPerMm, toY * pxPerMm);
    context.stroke();
  }

  private isStitch(i: number): boolean {
    return COMMANDS[this.plan.command[i] ?? 0] === "stitch";
  }
}

function copyOf(canvas: OffscreenCanvas): OffscreenCanvas {
  const copy = new OffscreenCanvas(canvas.width, canvas.height);
  copy.getContext("2d")?.drawImage(canvas, 0, 0);
  return copy;
}
