// Playback: the plan as the machine sews it, on a strip of time whose colours are the threads.

import { formatHex } from "@plain-palette/core/colour";
import type { StitchPlan } from "@plain-palette/core/stitch";
import { Button } from "../../parts/button.tsx";
import { SelectField } from "../../parts/select-field.tsx";
import { Slide } from "../../parts/slide.tsx";
import { type Playback, SPEEDS } from "./use-playback.ts";

export function PlayBar({ plan, playback }: { plan: StitchPlan; playback: Playback }) {
  const { at, isPlaying, speed, play, goTo, setSpeed } = playback;
  const whole = plan.command.length;
  const place = at ?? whole;
  const starts = threadStarts(plan);
  const now = starts.findLast(({ from }) => from <= Math.max(0, place - 1));
  const next = starts.find(({ from }) => from > place);
  const before = starts.findLast(({ from }) => from < place - 1);
  return (
    <>
      <div className="flex items-center gap-1 pb-1">
        <Button onClick={() => play(!isPlaying)}>{isPlaying ? "Pause" : "Sew"}</Button>
        <Button aria-label="The thread before" disabled={!before} onClick={() => goTo(before?.from ?? 0)}>
          ◂ Thread
        </Button>
        <Button aria-label="The next thread" disabled={!next} onClick={() => goTo(next?.from ?? whole)}>
          Thread ▸
        </Button>
        <Button disabled={at === null} onClick={() => goTo(null)}>
          All of it
        </Button>
      </div>
      <div aria-hidden className="flex h-2.5 overflow-hidden rounded-[2px] border border-rule">
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
      <SelectField
        label="Speed"
        value={String(speed)}
        options={SPEEDS.map(({ value, text }) => ({ value: String(value), text }))}
        onChange={(value) => setSpeed(Number(value))}
      />
    </>
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
