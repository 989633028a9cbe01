// The embroidery machine at work on a stitch list: thread by thread with its own clock, what it refuses, and what is covered.
import {
  clockList,
  coveredShare,
  coverThread,
  findSewFaults,
  readStitchList,
  type StitchList,
  USUAL_MACHINE,
} from "@plain-palette/core/practice";
import { useEffect, useMemo, useRef, useState } from "react";
import { Button } from "../parts/button.tsx";
import { Choice } from "../parts/choice.tsx";
import { readPlan } from "./plan-masks.ts";
import { TimeSlide } from "./time-slide.tsx";

const SPEEDS = [
  { value: "1", text: "1 ×" },
  { value: "20", text: "20 ×" },
  { value: "200", text: "200 ×" },
] as const;
type Speed = (typeof SPEEDS)[number]["value"];
const VIEW_PX = 560;
const THREAD_MM = 0.4;

export function EmbroideryBench({
  text,
  shapesSvg,
  garment,
}: {
  text: string;
  shapesSvg: string | null;
  garment: string;
}) {
  const list = useMemo(() => readStitchList(text), [text]);
  const faults = useMemo(() => findSewFaults(list), [list]);
  const plan = useMemo(() => (shapesSvg ? readPlan(shapesSvg) : null), [shapesSvg]);
  const cover = useMemo(
    () =>
      list.threads.map((name, i) => {
        const spot = list.spots[i];
        const mask = plan?.layers.find(({ id }) => id === spot?.id)?.mask;
        const share = mask ? coveredShare(coverThread(list, i + 1, mask), mask) : null;
        return { number: i + 1, name, share, colour: spot?.hex ?? NO_COLOUR };
      }),
    [list, plan],
  );
  const colours = useMemo(() => cover.map(({ colour }) => colour), [cover]);
  const done = useMemo(() => clockList(list, USUAL_MACHINE), [list]);
  const totalS = done.at(-1) ?? 0;
  return (
    <>
      <p role="status" className="mb-3 mt-2 border-l-4 border-next bg-card px-4 py-2">
        {faults.length === 0 ? "The machine sews every stitch." : `The machine refuses ${faults.length} places.`} It
        takes {Math.ceil(totalS / 60)} min at {USUAL_MACHINE.stitchesPerMinute} stitches a minute.
      </p>
      <div className="flex flex-wrap gap-6">
        <section aria-label="Threads" className="w-72">
          <ol className="border border-rule bg-card">
            {cover.map(({ number, name, share, colour }) => (
              <li key={number} className="flex items-baseline gap-2 border-t border-rule px-2 py-1 first:border-t-0">
                <span className="w-5 text-right text-soft">{number}</span>
                <span
                  aria-hidden
                  className="h-3 w-5 self-center border border-rule"
                  style={{ backgroundColor: colour }}
                />
                <span className="min-w-0 flex-1 truncate">{name}</span>
                {share !== null && <span className="text-xs text-soft">covers {(share * 100).toFixed(0)} %</span>}
              </li>
            ))}
          </ol>
          {faults.length > 0 && (
            <ul aria-label="What the machine refuses" className="mt-3 bg-card px-2">
              {faults.slice(0, MOST_LISTED).map(({ kind, text: what, line, x, y }) => (
                <li key={`${kind} ${line} ${x} ${y}`} className="border-t border-rule py-1 text-wrong">
                  Line {line}: {what}, at {x.toFixed(1)}, {y.toFixed(1)} mm
                </li>
              ))}
            </ul>
          )}
        </section>
        <Machine list={list} done={done} garment={garment} colours={colours} />
      </div>
    </>
  );
}

const NO_COLOUR = "#808080";
const MOST_LISTED = 20;

interface MachineProps {
  readonly list: StitchList;
  readonly done: Float64Array;
  readonly garment: string;
  readonly colours: readonly string[];
}

function Machine({ list, done, garment, colours }: MachineProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const totalS = done.at(-1) ?? 0;
  const [timeS, setTime] = useState(totalS);
  const [isPlaying, setPlaying] = useState(false);
  const [speed, setSpeed] = useState<Speed>("20");
  const drawn = useRef(0);
  useEffect(() => {
    if (!isPlaying) return;
    let [frame, before] = [0, performance.now()];
    const step = (now: number) => {
      const more = ((now - before) / 1000) * Number(speed);
      before = now;
      setTime((time) => Math.min(totalS, time + more));
      frame = requestAnimationFrame(step);
    };
    frame = requestAnimationFrame(step);
    return () => cancelAnimationFrame(frame);
  }, [isPlaying, speed, totalS]);
  if (isPlaying && timeS >= totalS) setPlaying(false);
  const [widthMm, heightMm] = [list.widthMm ?? 100, list.heightMm ?? 100];
  const scale = VIEW_PX / Math.max(widthMm, heightMm);
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (!context) return;
    const upTo = done.findIndex((at) => at > timeS);
    const count = upTo < 0 ? list.rows.length : upTo;
    if (count < drawn.current || drawn.current === 0) {
      context.fillStyle = garment;
      context.fillRect(0, 0, widthMm * scale, heightMm * scale);
      drawn.current = 0;
    }
    context.lineWidth = THREAD_MM * scale;
    context.lineCap = "round";
    for (let i = Math.max(1, drawn.current); i < count; i++) {
      const [a, b] = [list.rows[i - 1], list.rows[i]];
      if (a?.command !== "stitch" || b?.command !== "stitch") continue;
      context.strokeStyle = colours[b.thread - 1] ?? NO_COLOUR;
      context.beginPath();
      context.moveTo((widthMm / 2 + a.x) * scale, (heightMm / 2 - a.y) * scale);
      context.lineTo((widthMm / 2 + b.x) * scale, (heightMm / 2 - b.y) * scale);
      context.stroke();
    }
    drawn.current = Math.max(1, count);
  }, [list, done, timeS, colours, garment, widthMm, heightMm, scale]);
  return (
    <section aria-label="Embroidery machine" className="min-w-0 flex-1">
      <div className="mb-2 flex flex-wrap items-center gap-2">
        <Button
          look="next"
          onClick={() => {
            if (!isPlaying && timeS >= totalS) setTime(0);
            setPlaying(!isPlaying);
          }}
        >
          {isPlaying ? "Stop" : timeS >= totalS ? "Sew again" : "Sew"}
        </Button>
        <Choice label="Speed" value={speed} options={SPEEDS} onChange={(value) => setSpeed(value)} />
        <TimeSlide
          timeS={timeS}
          totalS={totalS}
          onTime={(next) => {
            setPlaying(false);
            setTime(next);
          }}
        />
        <span className="w-28 text-right text-soft">
          {Math.floor(timeS / 60)} of {Math.ceil(totalS / 60)} min
        </span>
      </div>
      <canvas
        ref={canvas}
        role="img"
        aria-label="The cloth, sewn as far as the needle is"
        width={Math.ceil(widthMm * scale)}
        height={Math.ceil(heightMm * scale)}
        className="max-w-full border border-rule"
      />
    </section>
  );
}
