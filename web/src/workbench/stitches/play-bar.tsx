// Playback: the plan as the machine sews it, on a strip of time whose colours are the threads.

import { formatHex } from "@plain-palette/core/colour";
import type { StitchPlan } from "@plain-palette/core/stitch";
import { useRef } from "react";
import { Button } from "../../parts/button.tsx";
import { Slide } from "../../parts/slide.tsx";
import { SPEEDS } from "./film.ts";
import type { Playback } from "./use-playback.ts";

export function PlayBar({ plan, playback }: { plan: StitchPlan; playback: Playback }) {
  const { at, isPlaying, speed, film } = playback;
  const goTo = (place: number | null) => film?.goTo(place);
  const sew = useRef<HTMLButtonElement>(null);
  const whole = plan.command.length;
  const place = at ?? whole;
  const starts = threadStarts(plan);
  const now = starts.findLast(({ from }) => from <= Math.max(0, place - 1));
  const next = starts.find(({ from }) => from > place);
  const before = starts.findLast(({ from }) => from < place - 1);
  return (
    <fieldset className={at === null ? "p-2" : "w-[25rem] p-2"}>
      <legend className="sr-only">Sewing</legend>
      <div className="flex items-center gap-1">
        <Button ref={sew} onClick={() => film?.play(!isPlaying)}>
          {isPlaying ? "Pause" : "Sew"}
        </Button>
        {at !== null && (
          <>
            <Button aria-label="The thread before" disabled={!before} onClick={() => goTo(before?.from ?? 0)}>
              ◂
            </Button>
            <Button aria-label="The next thread" disabled={!next} onClick={() => goTo(next?.from ?? whole)}>
              ▸
            </Button>
            <Button
              onClick={() => {
                goTo(null);
                // It goes away itself.
                sew.current?.focus();
              }}
            >
              All of it
            </Button>
          </>
        )}
        <select
          aria-label="Speed"
          className="ml-auto rounded-[3px] border border-edge bg-card px-1.5 py-1"
          value={speed}
          onChange={(event) => film?.setSpeed(Number(event.target.value))}
        >
          {SPEEDS.map(({ value, text }) => (
            <option key={value} value={value}>
              {text}
            </option>
          ))}
        </select>
      </div>
      {at !== null && (
        <>
          <div aria-hidden className="mt-1.5 flex h-2.5 overflow-hidden rounded-[2px] border border-rule">
            {starts.map(({ from, colour }, i) => (
              <span
                key={from}
                style={{
                  width: `${(((starts[i + 1]?.from ?? whole) - from) / whole) * 100}%`,
                  backgroundColor: formatHex(plan.colours[colour]?.rgb ?? [0, 0, 0]),
                }}
              />
            ))}
          </div>
          <Slide label="Stitch" value={place} min={0} max={whole} onChange={goTo} />
          <p className="text-xs tabular-nums text-soft" data-testid="play-place">
            {place.toLocaleString("en")} of {whole.toLocaleString("en")}
            {now ? `, ${plan.colours[now.colour]?.name}` : ""}
          </p>
        </>
      )}
    </fieldset>
  );
}

/** Where each thread begins to be sewn. */
function threadStarts({ colour }: StitchPlan): { from: number; colour: number }[] {
  const starts: { from: number; colour: number }[] = [];
  colour.forEach((one, i) => {
    if (starts.at(-1)?.colour !== one) starts.push({ from: i, colour: one });
  });
  return starts;
}
