// The machine's time, dragged to where one wants to look.
export function TimeSlide({ timeS, totalS, onTime }: { timeS: number; totalS: number; onTime(timeS: number): void }) {
  return (
    <label className="flex min-w-40 flex-1 items-center gap-2">
      <span className="sr-only">Time</span>
      <input
        type="range"
        aria-label="Time"
        className="w-full accent-ink"
        min={0}
        max={totalS}
        step={totalS / 1000 || 1}
        value={timeS}
        onChange={(event) => onTime(Number(event.target.value))}
      />
    </label>
  );
}
