// Fields that take a measure as a person types it.
import { formatLength, type Length, type LengthUnit, parseLength, toMm } from "@plain-palette/core/geometry";
import { type KeyboardEvent, type ReactNode, useId } from "react";
import { useDraft } from "./use-draft.ts";

const INPUT = "w-full rounded-[3px] border bg-card px-2 py-1 text-right tabular-nums";

export function Row({
  label,
  hint,
  htmlFor,
  isNarrow = false,
  isWide = false,
  children,
}: {
  label: string;
  hint?: ReactNode;
  htmlFor?: string;
  /** Two such rows fit beside each other. */
  isNarrow?: boolean;
  /** For long words: the field has all the room beside its label. */
  isWide?: boolean;
  children: ReactNode;
}) {
  const columns = isNarrow
    ? "grid-cols-[1fr_5.2rem] text-xs"
    : isWide
      ? "grid-cols-[auto_1fr]"
      : "grid-cols-[1fr_7.5rem]";
  return (
    <div className={`grid ${columns} items-center gap-x-3 gap-y-0.5 py-1.5`}>
      <label htmlFor={htmlFor}>{label}</label>
      {children}
      {hint && <p className="col-span-2 text-xs text-soft">{hint}</p>}
    </div>
  );
}

interface TextProps {
  readonly label: string;
  readonly hint?: ReactNode;
  readonly text: string;
  readonly isNarrow?: boolean | undefined;
  /** Takes the text over; throws a RangeError with what is wrong. */
  commit(text: string): void;
  /** Text after a step up or down. */
  step(direction: 1 | -1, isLarge: boolean): void;
}

function MeasureField({ label, hint, text, isNarrow, commit, step }: TextProps) {
  const id = useId();
  const { shown, fault, type, take, drop } = useDraft(text, commit);
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === "Enter") take();
    else if (event.key === "Escape") drop();
    else if (event.key === "ArrowUp" || event.key === "ArrowDown") {
      event.preventDefault();
      step(event.key === "ArrowUp" ? 1 : -1, event.shiftKey);
    }
  };
  return (
    <Row
      label={label}
      htmlFor={id}
      isNarrow={isNarrow ?? false}
      hint={fault ? <span className="text-wrong">{fault}</span> : hint}
    >
      <input
        id={id}
        className={`${INPUT} ${fault ? "border-wrong" : "border-rule"}`}
        value={shown}
        aria-invalid={fault !== undefined}
        onChange={(event) => type(event.target.value)}
        onBlur={take}
        onKeyDown={onKeyDown}
        autoComplete="off"
        spellCheck={false}
      />
    </Row>
  );
}

interface LengthProps {
  readonly label: string;
  readonly hint?: ReactNode;
  readonly value: Length;
  readonly min: number;
  readonly max: number;
  readonly isNarrow?: boolean;
  onChange(value: Length): void;
}

/** A length with its unit as typed; `min` and `max` in mm. Arrow keys step by a sensible part of the unit. */
export function LengthField({ label, hint, value, min, max, isNarrow, onChange }: LengthProps) {
  const steps: Record<LengthUnit, number> = { mm: max > 100 ? 1 : 0.05, cm: 0.1, in: 0.125, pt: 0.5 };
  const take = (length: Length) => {
    const mm = toMm(length);
    if (mm < min || mm > max)
      throw new RangeError(`between ${formatLength(min, length.unit)} and ${formatLength(max, length.unit)}`);
    onChange(length);
  };
  return (
    <MeasureField
      label={label}
      hint={hint}
      isNarrow={isNarrow}
      text={`${Number(value.value.toFixed(3))} ${value.unit}`}
      commit={(text) => take(parseLength(text, value.unit))}
      step={(direction, isLarge) => {
        const next = value.value + direction * steps[value.unit] * (isLarge ? 10 : 1);
        const mm = Math.min(max, Math.max(min, toMm({ value: next, unit: value.unit })));
        onChange({ value: Number((mm / toMm({ value: 1, unit: value.unit })).toFixed(4)), unit: value.unit });
      }}
    />
  );
}

interface MmProps extends Omit<LengthProps, "value" | "onChange"> {
  readonly valueMm: number;
  onChange(mm: number): void;
}

/** A length kept in millimetres, whatever unit it is typed in. */
export function MmField({ valueMm, onChange, ...rest }: MmProps) {
  return (
    <LengthField
      {...rest}
      value={{ value: valueMm, unit: "mm" }}
      onChange={(length) => onChange(Number(toMm(length).toFixed(4)))}
    />
  );
}

interface NumberProps {
  readonly label: string;
  readonly hint?: ReactNode;
  readonly value: number;
  readonly unit: string;
  readonly min: number;
  readonly max: number;
  readonly stepBy: number;
  readonly isNarrow?: boolean;
  onChange(value: number): void;
}

/** A plain number with a fixed unit behind it. */
export function NumberField({ label, hint, value, unit, min, max, stepBy, isNarrow, onChange }: NumberProps) {
  const clean = (v: number) => Number(Math.min(max, Math.max(min, v)).toFixed(4));
  return (
    <MeasureField
      label={label}
      hint={hint}
      isNarrow={isNarrow}
      text={`${value}${unit ? ` ${unit}` : ""}`}
      commit={(text) => {
        const number = Number(text.replace(unit, "").replace(",", ".").trim());
        if (!Number.isFinite(number) || text.trim() === "") throw new RangeError(`"${text}" is not a number`);
        if (number < min || number > max) throw new RangeError(`between ${min} and ${max}`);
        onChange(number);
      }}
      step={(direction, isLarge) => onChange(clean(value + direction * stepBy * (isLarge ? 10 : 1)))}
    />
  );
}

/** A yes or no. */
export function CheckField({
  label,
  hint,
  isOn,
  onChange,
}: {
  label: string;
  hint?: ReactNode;
  isOn: boolean;
  onChange(isOn: boolean): void;
}) {
  return (
    <label className="flex items-start gap-2 py-1.5">
      <input
        type="checkbox"
        className="mt-0.5 size-4 accent-ink"
        checked={isOn}
        onChange={(event) => onChange(event.target.checked)}
      />
      <span>
        {label}
        {hint && <span className="block text-xs text-soft">{hint}</span>}
      </span>
    </label>
  );
}
