// A number on a slide, for what is tuned by eye; the field beside it takes it exactly.
import { Slider } from "radix-ui";
import type { ReactNode } from "react";
import { NumberField } from "./fields.tsx";

interface Props {
  readonly label: string;
  readonly hint?: ReactNode;
  readonly value: number;
  readonly unit: string;
  readonly min: number;
  readonly max: number;
  onChange(value: number): void;
}

/** Whole numbers from `min` to `max`. */
export function SlideField({ label, hint, value, unit, min, max, onChange }: Props) {
  return (
    <div className="pb-1">
      <NumberField label={label} value={value} unit={unit} min={min} max={max} stepBy={1} onChange={onChange} />
      <Slide label={label} value={value} min={min} max={max} onChange={onChange} />
      {hint && <p className="pt-0.5 text-xs text-soft">{hint}</p>}
    </div>
  );
}

/** The slide alone. */
export function Slide({ label, value, min, max, onChange }: Omit<Props, "hint" | "unit">) {
  return (
    <Slider.Root
      className="relative flex h-4 w-full touch-none select-none items-center"
      value={[value]}
      min={min}
      max={max}
      step={1}
      onValueChange={([next]) => onChange(next)}
    >
      <Slider.Track className="relative h-0.5 grow bg-rule">
        <Slider.Range className="absolute h-full bg-ink" />
      </Slider.Track>
      <Slider.Thumb aria-label={`${label}, slide`} className="block h-4 w-2 rounded-[2px] border border-ink bg-card" />
    </Slider.Root>
  );
}
