// The cutter at work on one file: the blade's way with time, and what is left when the waste is off.
import {
  type CutFault,
  type Mask,
  type Move,
  type Plot,
  playPlot,
  USUAL_CUTTER,
  weed,
} from "@plain-palette/core/practice";
import { type RefObject, useEffect, useMemo, useRef, useState } from "react";
import { Button } from "../parts/button.tsx";
import { Choice } from "../parts/choice.tsx";
import { TimeSlide } from "./time-slide.tsx";

interface Props {
  readonly name: string;
  readonly plot: Plot;
  /** The sheet, mm, as the cutter has it: x to the right, y up. */
  readonly widthMm: number;
  readonly heightMm: number;
  readonly colour: string;
  readonly hasBoxes: boolean;
  /** Ringed where they are. */
  readonly faults: readonly CutFault[];
}

const SPEEDS = [
  { value: "1", text: "1 ×" },
  { value: "10", text: "10 ×" },
  { value: "60", text: "60 ×" },
] as const;
type Speed = (typeof SPEEDS)[number]["value"];
const VIEW = { width: 720, height: 520 };
/** Pixels to the millimetre of weeded film, at most. */
const WEED_PER_MM = 4;
const FAULT_PX = 9;

export function CutterView({ name, plot, widthMm, heightMm, colour, hasBoxes, faults }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const moves = useMemo(() => playPlot(plot, USUAL_CUTTER), [plot]);
  const totalS = moves.at(-1)?.toS ?? 0;
  const [speed, setSpeed] = useState<Speed>("10");
  const { timeS, setTime, isPlaying, play, stop } = useClock(totalS, Number(speed), plot);
  const [isWeeded, setWeeded] = useState(false);
  const scale = Math.min(VIEW.width / widthMm, VIEW.height / heightMm);
  const film = useMemo(
    () => (isWeeded ? weed(plot, { widthMm, heightMm, perMm: Math.min(WEED_PER_MM, scale * 2), hasBoxes }) : null),
    [isWeeded, plot, widthMm, heightMm, scale, hasBoxes],
  );
  useDrawing(canvas, { moves, timeS, scale, heightMm, film, colour, faults });
  return (
    <section aria-label="Cutter" className="min-w-0 flex-1">
      <div className="mb-2 flex flex-wrap items-center gap-2">
        <Button look="next" onClick={isPlaying ? stop : play}>
          {isPlaying ? "Stop" : timeS >= totalS ? "Cut again" : "Cut"}
        </Button>
        <Choice label="Speed" value={speed} options={SPEEDS} onChange={(value) => setSpeed(value)} />
        <Choice
          label="What to look at"
          value={isWeeded ? "weeded" : "cuts"}
          options={[
            { value: "cuts", text: "Cuts" },
            { value: "weeded", text: "Weeded" },
          ]}
          onChange={(value) => setWeeded(value === "weeded")}
        />
        <TimeSlide
          timeS={timeS}
          totalS={totalS}
          onTime={(next) => {
            stop();
            setTime(next);
          }}
        />
        <span className="w-28 text-right text-soft">
          {timeS.toFixed(0)} of {totalS.toFixed(0)} s
        </span>
      </div>
      <canvas
        ref={canvas}
        role="img"
        aria-label={isWeeded ? `${name}, weeded` : `${name}, cut as far as the blade is`}
        width={Math.ceil(widthMm * scale)}
        height={Math.ceil(heightMm * scale)}
        className="max-w-full border border-rule bg-[#f4f6f5]"
      />
    </section>
  );
}

/** A clock that runs so many times as fast as the machine's; it begins anew with another plot. */
function useClock(totalS: number, speed: number, plot: Plot) {
  const [timeS, setTime] = useState(totalS);
  const [isPlaying, setPlaying] = useState(false);
  const [shown, setShown] = useState(plot);
  if (shown !== plot) {
    setShown(plot);
    setTime(totalS);
    setPlaying(false);
  }
  useEffect(() => {
    if (!isPlaying) return;
    let before = performance.now();
    let frame = requestAnimationFrame(function step(now) {
      const passed = ((now - before) / 1000) * speed;
      before = now;
      setTime((time) => Math.min(totalS, time + passed));
      frame = requestAnimationFrame(step);
    });
    return () => cancelAnimationFrame(frame);
  }, [isPlaying, speed, totalS]);
  useEffect(() => {
    if (timeS >= totalS) setPlaying(false);
  }, [timeS, totalS]);
  const play = () => {
    if (timeS >= totalS) setTime(0);
    setPlaying(true);
  };
  return { timeS, setTime, isPlaying, play, stop: () => setPlaying(false) };
}

interface Drawn {
  readonly moves: readonly Move[];
  readonly timeS: number;
  readonly scale: number;
  readonly heightMm: number;
  readonly film: Mask | null;
  readonly colour: string;
  readonly faults: readonly CutFault[];
}

function useDrawing(canvas: RefObject<HTMLCanvasElement | null>, drawn: Drawn): void {
  const { moves, timeS, scale, heightMm, film, colour, faults } = drawn;
  const picture = useMemo(() => film && drawMask(film, colour), [film, colour]);
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (!context || !canvas.current) return;
    context.clearRect(0, 0, canvas.current.width, canvas.current.height);
    const at = (x: number, y: number) => [x * scale, (heightMm - y) * scale] as const;
    if (picture) context.drawImage(picture, 0, 0, canvas.current.width, canvas.current.height);
    else drawMoves(context, moves, timeS, at);
    context.strokeStyle = "#b3261e";
    context.lineWidth = 2;
    for (const fault of faults) {
      context.beginPath();
      context.arc(...at(fault.x, fault.y), FAULT_PX, 0, 2 * Math.PI);
      context.stroke();
    }
  }, [canvas, moves, timeS, scale, heightMm, picture, faults]);
}

type Place = (x: number, y: number) => readonly [number, number];

function drawMoves(context: CanvasRenderingContext2D, moves: readonly Move[], timeS: number, at: Place): void {
  const lines = { cut: new Path2D(), lifted: new Path2D(), pen: new Path2D() };
  let blade: readonly [number, number] = at(0, 0);
  for (const { fromS, toS, x0, y0, x1, y1, tool } of moves) {
    if (fromS >= timeS) break;
    const share = toS > timeS ? (timeS - fromS) / (toS - fromS) : 1;
    const line = tool === 0 ? lines.lifted : tool === 1 ? lines.cut : lines.pen;
    line.moveTo(...at(x0, y0));
    blade = at(x0 + (x1 - x0) * share, y0 + (y1 - y0) * share);
    line.lineTo(...blade);
  }
  const stroke = (path: Path2D, colour: string, width: number) => {
    context.strokeStyle = colour;
    context.lineWidth = width;
    context.stroke(path);
  };
  stroke(lines.lifted, "rgba(95,93,86,.22)", 1);
  stroke(lines.pen, "#2c6fbb", 1);
  stroke(lines.cut, "#1e1d1a", 1);
  context.fillStyle = "#d0006f";
  context.beginPath();
  context.arc(...blade, 4, 0, 2 * Math.PI);
  context.fill();
}

/** A picture of what a mask covers. */
export function drawMask({ width, height, data }: Mask, colour: string): OffscreenCanvas {
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext("2d");
  const value = Number.parseInt(colour.slice(1), 16);
  const image = new ImageData(width, height);
  for (let p = 0; p < data.length; p++)
    if (data[p] === 1) image.data.set([value >> 16, (value >> 8) & 255, value & 255, 255], p * 4);
  context?.putImageData(image, 0, 0);
  return canvas;
}
