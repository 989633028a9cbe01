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
  /** Finest step of the slide, and how far it goes where the field takes more. */
  readonly finest?: number;
  readonly slideMax?: number;
  /** Step of the field's arrow keys. */
  readonly stepBy?: number;
  onChange(value: number): void;
}

/** Numbers from `min` to `max`, whole ones unless something finer is said. */
export function SlideField({ hint, slideMax, finest = 1, stepBy = finest, ...rest }: Props) {
  const { label, min, max, onChange } = rest;
  const most = slideMax ?? max;
  return (
    <div className="pb-1">
      <NumberField {...rest} stepBy={stepBy} />
      <Slide
        label={label}
        value={Math.min(most, rest.value)}
        min={min}
        max={most}
        finest={finest}
        onChange={onChange}
      />
      {hint && <p className="pt-0.5 text-xs text-soft">{hint}</p>}
    </div>
  );
}

/** The slide alone. */
export function Slide({ label, value, min, max, finest = 1, onChange }: Omit<Props, "hint" | "unit">) {
  return (
    <Slider.Root
      className="relative flex h-4 w-full touch-none select-none items-center"
      value={[value]}
      min={min}
      max={max}
      step={finest}
      onValueChange={([next]) => next !== undefined && onChange(next)}
    >
      <Slider.Track className="relative h-0.5 grow bg-edge">
        <Slider.Range className="absolute h-full bg-ink" />
      </Slider.Track>
      <Slider.Thumb aria-label={`${label}, slide`} className="block h-4 w-2 rounded-[2px] border border-ink bg-card" />
    </Slider.Root>
  );
}
