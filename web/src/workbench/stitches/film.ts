// Playing a plan: a place in it that moves on by itself, at so many stitches a second. Frames are drawn past React; what is said of
// the place is told a few times a second.
import type { StitchPlan } from "@plain-palette/core/stitch";
import type { MovingPicture, PicturePart } from "../../light-table/moving-picture.tsx";
import { ThreadCanvas } from "./thread-canvas.ts";

export const SPEEDS = [
  { value: 13, text: "As the machine" },
  { value: 200, text: "15 times" },
  { value: 1000, text: "75 times" },
  { value: 5000, text: "375 times" },
] as const;

/** While it is played what is said of it is told this often, ms. */
const TOLD_EVERY_MS = 100;

export interface FilmState {
  /** Commands that were done; null: it is not being played, the whole lies on the table. */
  readonly at: number | null;
  readonly isPlaying: boolean;
  /** Stitches a second. */
  readonly speed: number;
}

export class Film implements MovingPicture {
  private state: FilmState;
  /** Made when it is first played. */
  private made: ThreadCanvas | null = null;
  private readonly readers = new Set<() => void>();
  private readonly screens = new Set<(part: PicturePart) => void>();
  /** Where it is between two frames: at the machine's own speed a stitch takes several. */
  private place = 0;
  private shown = 0;
  private frame = 0;
  private last = 0;
  private told = 0;

  constructor(
    readonly plan: StitchPlan,
    private readonly mmPerPx: number,
    speed: number,
  ) {
    this.state = { at: null, isPlaying: false, speed };
  }

  private get thread(): ThreadCanvas {
    this.made ??= new ThreadCanvas(this.plan);
    return this.made;
  }

  get canvas(): OffscreenCanvas {
    return this.thread.canvas;
  }

  get unitsPerPx(): number {
    return 1 / (this.thread.pxPerMm * this.mmPerPx);
  }

  get mark(): { x: number; y: number } {
    const i = Math.max(0, this.shown - 1);
    const { pxPerMm } = this.thread;
    return { x: (this.plan.x[i] ?? 0) * pxPerMm, y: (this.plan.y[i] ?? 0) * pxPerMm };
  }

  onFrame(drawn: (part: PicturePart) => void): () => void {
    this.screens.add(drawn);
    return () => this.screens.delete(drawn);
  }

  /** For React: whoever reads is told of a new state. */
  readonly subscribe = (reader: () => void): (() => void) => {
    this.readers.add(reader);
    return () => this.readers.delete(reader);
  };

  readonly read = (): FilmState => this.state;

  play(isPlaying: boolean): void {
    const { at } = this.state;
    if (isPlaying && (at === null || at >= this.whole)) this.goTo(0);
    cancelAnimationFrame(this.frame);
    this.tell({ ...this.state, at: Math.floor(this.place), isPlaying });
    if (!isPlaying) return;
    this.last = performance.now();
    this.frame = requestAnimationFrame(this.step);
  }

  goTo(at: number | null): void {
    this.place = at ?? 0;
    if (at === null) cancelAnimationFrame(this.frame);
    else this.show(at);
    this.tell({ ...this.state, at, isPlaying: at !== null && this.state.isPlaying });
  }

  setSpeed(speed: number): void {
    this.tell({ ...this.state, speed });
  }

  private get whole(): number {
    return this.plan.command.length;
  }

  private readonly step = (now: number): void => {
    this.place = Math.min(this.whole, this.place + (Math.max(0, now - this.last) / 1000) * this.state.speed);
    this.last = now;
    const at = Math.floor(this.place);
    this.show(at);
    const isOver = this.place >= this.whole;
    if (!isOver) this.frame = requestAnimationFrame(this.step);
    if (isOver || now - this.told >= TOLD_EVERY_MS) {
      this.told = now;
      this.tell({ ...this.state, at, isPlaying: !isOver });
    }
  };

  private show(at: number): void {
    const part = this.thread.drawTo(at);
    this.shown = at;
    for (const screen of this.screens) screen(part);
  }

  private tell(state: FilmState): void {
    this.state = state;
    for (const reader of this.readers) reader();
  }
}
