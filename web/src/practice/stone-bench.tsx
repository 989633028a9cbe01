// The stone setter at work: stones are brushed into the holes of one template after the other, and lifted onto the garment.
import { type ListedStone, type SetJob, type SetTemplate, setJob } from "@plain-palette/core/practice";
import { useEffect, useMemo, useRef, useState } from "react";
import { Button } from "../parts/button.tsx";
import { Choice } from "../parts/choice.tsx";
import { TimeSlide } from "./time-slide.tsx";

const VIEW_PX = 560;
/** So much of a template is shown beside the design, mm. */
const MARGIN_MM = 4;
/** How fast a brush goes over a template, mm/s. */
const BRUSH_MM_PER_S = 40;
const MOST_LISTED = 20;
const NO_COLOUR = "#9a9a9a";
/** A template's film. */
const FILM = "#f4f1ea";

type Side = "template" | "garment";

interface Props {
  readonly list: string;
  readonly templates: ReadonlyMap<string, string>;
  readonly garment: string;
}

export function StoneBench({ list, templates, garment }: Props) {
  const job = useMemo(() => setJob(templates, list), [templates, list]);
  const [name, setName] = useState(job.templates[0]?.name ?? "");
  const template = job.templates.find((one) => one.name === name) ?? null;
  const holes = [...job.counts.values()].reduce((sum, count) => sum + count, 0);
  return (
    <>
      <p role="status" className="mb-3 mt-2 border-l-4 border-next bg-card px-4 py-2">
        {job.faults.length === 0
          ? `Every stone has its hole: ${holes} counted, ${job.list.length} in the list.`
          : `${job.faults.length} wrong; ${holes} stones counted, ${job.list.length} in the list.`}
      </p>
      <div className="flex flex-wrap gap-6">
        <section aria-label="Templates" className="w-72">
          <ol className="border border-rule bg-card">
            {job.templates.map((one) => (
              <li key={one.name} className="border-t border-rule first:border-t-0">
                <button
                  type="button"
                  aria-pressed={one.name === name}
                  className="flex w-full items-baseline gap-2 px-2 py-1 text-left hover:underline aria-pressed:bg-sheet aria-pressed:font-semibold"
                  onClick={() => setName(one.name)}
                >
                  <span className="min-w-0 flex-1 truncate">{one.name}</span>
                  <span className="text-xs text-soft">
                    {one.holes.length} holes{one.isMirrored ? ", mirrored" : ""}
                  </span>
                </button>
              </li>
            ))}
          </ol>
          <table className="mt-3 w-full" aria-label="Counted by the setter">
            <tbody>
              {[...job.counts].map(([size, count]) => (
                <tr key={size} className="border-t border-rule">
                  <td>{size}</td>
                  <td className="text-right">{count.toLocaleString("en")}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <Faults job={job} />
        </section>
        {template && <Brush key={name} job={job} template={template} garment={garment} />}
      </div>
    </>
  );
}

function Faults({ job: { faults } }: { job: SetJob }) {
  if (faults.length === 0) return null;
  return (
    <ul aria-label="What is wrong" className="mt-3 bg-card px-2">
      {faults.slice(0, MOST_LISTED).map(({ file, kind, text, x, y }) => (
        <li key={`${file} ${kind} ${x} ${y}`} className="border-t border-rule py-1 text-wrong">
          {file}: {text}, at {x.toFixed(1)}, {y.toFixed(1)} mm
        </li>
      ))}
      {faults.length > MOST_LISTED && <li className="text-xs text-soft">and {faults.length - MOST_LISTED} more</li>}
    </ul>
  );
}

function Brush({ job, template, garment }: { job: SetJob; template: SetTemplate; garment: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [widthMm, heightMm] = [job.widthMm ?? 100, job.heightMm ?? 100];
  const totalS = (widthMm + 2 * MARGIN_MM) / BRUSH_MM_PER_S;
  const [timeS, setTime] = useState(totalS);
  const [isBrushing, setBrushing] = useState(false);
  const [side, setSide] = useState<Side>("template");
  useEffect(() => {
    if (!isBrushing) return;
    let [frame, before] = [0, performance.now()];
    const step = (now: number) => {
      const more = (now - before) / 1000;
      before = now;
      setTime((time) => Math.min(totalS, time + more));
      frame = requestAnimationFrame(step);
    };
    frame = requestAnimationFrame(step);
    return () => cancelAnimationFrame(frame);
  }, [isBrushing, totalS]);
  if (isBrushing && timeS >= totalS) setBrushing(false);
  const scale = VIEW_PX / Math.max(widthMm + 2 * MARGIN_MM, heightMm + 2 * MARGIN_MM);
  const stoneAt = useMemo(() => stonesByPlace(job.list), [job]);
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (!context) return;
    const at = (mm: number) => (mm + MARGIN_MM) * scale;
    const disc = (x: number, y: number, diameterMm: number, colour: string) => {
      context.fillStyle = colour;
      context.beginPath();
      context.arc(at(x), at(y), (diameterMm / 2) * scale, 0, 2 * Math.PI);
      context.fill();
    };
    context.fillStyle = side === "template" ? FILM : garment;
    context.fillRect(0, 0, canvas.current?.width ?? 0, canvas.current?.height ?? 0);
    const brushX = timeS * BRUSH_MM_PER_S - MARGIN_MM;
    for (const { x, y, diameterMm, size } of template.holes) {
      if (side === "template") disc(x, y, diameterMm, "#5c5952");
      const stone = stoneAt(x, y);
      if (size !== null && stone && x <= brushX)
        disc(x, y, stone.diameterMm, job.colours.get(stone.spotId) ?? NO_COLOUR);
    }
    if (side === "template" && timeS < totalS) {
      context.fillStyle = "rgb(0 0 0 / .25)";
      context.fillRect(at(brushX), 0, 2 * scale, canvas.current?.height ?? 0);
    }
  }, [job, template, timeS, totalS, side, garment, scale, stoneAt]);
  return (
    <section aria-label="Stone setter" className="min-w-0 flex-1">
      <div className="mb-2 flex flex-wrap items-center gap-2">
        <Button
          look="next"
          onClick={() => {
            if (!isBrushing && timeS >= totalS) setTime(0);
            setBrushing(!isBrushing);
          }}
        >
          {isBrushing ? "Stop" : timeS >= totalS ? "Brush again" : "Brush"}
        </Button>
        <Choice<Side>
          label="Seen"
          value={side}
          options={[
            { value: "template", text: "Template" },
            { value: "garment", text: "On the garment" },
          ]}
          onChange={setSide}
        />
        <TimeSlide
          timeS={timeS}
          totalS={totalS}
          onTime={(next) => {
            setBrushing(false);
            setTime(next);
          }}
        />
      </div>
      <canvas
        ref={canvas}
        role="img"
        aria-label={
          side === "template" ? "The template, brushed as far as the brush is" : "The garment with its stones"
        }
        width={Math.ceil((widthMm + 2 * MARGIN_MM) * scale)}
        height={Math.ceil((heightMm + 2 * MARGIN_MM) * scale)}
        className="max-w-full border border-rule"
      />
    </section>
  );
}

/** Finds a stone of the list by the place of its hole. */
function stonesByPlace(list: readonly ListedStone[]): (x: number, y: number) => ListedStone | undefined {
  const keyOf = (x: number, y: number) => `${Math.round(x * 2)} ${Math.round(y * 2)}`;
  const byPlace = new Map(list.map((stone) => [keyOf(stone.x, stone.y), stone]));
  return (x, y) => {
    for (const dx of [0, -0.1, 0.1])
      for (const dy of [0, -0.1, 0.1]) {
        const found = byPlace.get(keyOf(x + dx, y + dy));
        if (found) return found;
      }
    return undefined;
  };
}
