// Playing a plan: a place in it that moves on by itself, at so many stitches a second.
import type { StitchPlan } from "@plain-palette/core/stitch";
import { useEffect, useMemo, useRef, useState } from "react";
import type { TableLayer } from "../../light-table/layers.ts";
import { ThreadCanvas } from "./thread-canvas.ts";

export interface Playback {
  /** Commands that were done; null: it is not being played, the whole lies on the table. */
  readonly at: number | null;
  readonly isPlaying: boolean;
  /** Stitches a second. */
  readonly speed: number;
  play(isPlaying: boolean): void;
  goTo(at: number | null): void;
  setSpeed(speed: number): void;
  /** Drawn over everything else. */
  readonly overlays: readonly TableLayer[];
}

const NOTHING: readonly TableLayer[] = [];

export function usePlayback(plan: StitchPlan | null, mmPerPx: number): Playback {
  const [at, setAt] = useState<number | null>(null);
  const [isPlaying, setPlaying] = useState(false);
  const [speed, setSpeed] = useState<number>(SPEEDS[1].value);
  const whole = plan?.command.length ?? 0;
  const place = useRef(0);
  // Another plan is another film: it begins anew.
  const [shown, setShown] = useState(plan);
  if (shown !== plan) {
    setShown(plan);
    setAt(null);
    setPlaying(false);
  }
  const drawn = useRef<{ plan: StitchPlan; canvas: ThreadCanvas } | null>(null);
  useEffect(() => {
    if (!isPlaying) return;
    let [frame, before] = [0, performance.now()];
    const step = (now: number) => {
      place.current = Math.min(whole, place.current + ((now - before) / 1000) * speed);
      before = now;
      setAt(Math.floor(place.current));
      if (place.current >= whole) setPlaying(false);
      else frame = requestAnimationFrame(step);
    };
    frame = requestAnimationFrame(step);
    return () => cancelAnimationFrame(frame);
  }, [isPlaying, speed, whole]);
  const overlays = useMemo(() => {
    if (!plan || at === null) return NOTHING;
    if (drawn.current?.plan !== plan) drawn.current = { plan, canvas: new ThreadCanvas(plan) };
    const thread = drawn.current.canvas;
    thread.drawTo(at);
    return [pictureOf(thread, mmPerPx), needleAt(plan, at, mmPerPx)];
  }, [plan, at, mmPerPx]);
  const goTo = (next: number | null) => {
    place.current = next ?? 0;
    setAt(next);
    if (next === null) setPlaying(false);
  };
  return {
    ...{ at, isPlaying, speed, setSpeed, goTo, overlays },
    play: (wanted) => {
      if (wanted && (at === null || at >= whole)) goTo(0);
      setPlaying(wanted);
    },
  };
}

export const SPEEDS = [
  { value: 13, text: "As the machine" },
  { value: 200, text: "15 times" },
  { value: 1000, text: "75 times" },
  { value: 5000, text: "375 times" },
] as const;

function pictureOf({ canvas, pxPerMm }: ThreadCanvas, mmPerPx: number): TableLayer {
  const scale = 1 / (mmPerPx * pxPerMm);
  return {
    ...{ kind: "bitmap", bitmap: canvas, opacity: 1 },
    transform: { scaleX: scale, scaleY: scale, dx: 0, dy: 0 },
  };
}

/** A cross where the needle is. */
function needleAt(plan: StitchPlan, at: number, mmPerPx: number): TableLayer {
  const [x, y] = [plan.x[Math.max(0, at - 1)] ?? 0, plan.y[Math.max(0, at - 1)] ?? 0];
  const arm = NEEDLE_MM / mmPerPx;
  const [px, py] = [x / mmPerPx, y / mmPerPx];
  const path = new Path2D();
  path.moveTo(px - arm, py);
  path.lineTo(px + arm, py);
  path.moveTo(px, py - arm);
  path.lineTo(px, py + arm);
  return { kind: "strokes", path, colour: "#b3261e", screenPx: 1.5, isHaloed: true };
}

const NEEDLE_MM = 1.5;
