// Fields that take a measure as a person types it.
import { formatLength, type Length, type LengthUnit, parseLength, toMm } from "@plain-palette/core/geometry";
import { type KeyboardEvent, type ReactNode, useId, useState } from "react";
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

/** What was typed, understood: in words, and how it is taken over. */
interface Reading {
  readonly words: string;
  take(): void;
}

interface TextProps {
  readonly label: string;
  readonly hint?: ReactNode;
  readonly text: string;
  /** From where to where, in words. */
  readonly limits: string;
  readonly isNarrow?: boolean | undefined;
  /** Throws a RangeError with what is wrong. */
  read(text: string): Reading;
  /** One step up or down; what is said if that went no further. */
  step(direction: 1 | -1, isLarge: boolean): string | null;
}

/** While one types, it says beside the field how that is understood, before it is taken over. */
function MeasureField({ label, hint, text, limits, isNarrow, read, step }: TextProps) {
  const id = useId();
  const { shown, fault, isTyped, type, take, drop } = useDraft(text, (typed) => read(typed).take());
  const [isIn, setIn] = useState(false);
  const [end, setEnd] = useState<string | null>(null);
  const onKeyDown = (event: KeyboardEvent) => {
    setEnd(null);
    if (event.key === "Enter") take();
    else if (event.key === "Escape" && (isTyped || fault)) {
      // The field first, then the tool in hand.
      event.stopPropagation();
      drop();
    } else if (event.key === "ArrowUp" || event.key === "ArrowDown") {
      event.preventDefault();
      setEnd(step(event.key === "ArrowUp" ? 1 : -1, event.shiftKey));
    }
  };
  const said = isTyped ? (tryRead(read, shown) ?? limits) : limits;
  return (
    <Row
      label={label}
      htmlFor={id}
      isNarrow={isNarrow ?? false}
      hint={
        fault ? (
          <span id={`${id}-fault`} role="alert" className="text-wrong">
            {fault}
          </span>
        ) : (
          hint
        )
      }
    >
      <span className="relative">
        <input
          id={id}
          className={`${INPUT} ${fault ? "border-wrong" : "border-edge"}`}
          value={shown}
          data-draft={isTyped ? undefined : "none"}
          aria-invalid={fault !== undefined}
          aria-describedby={fault ? `${id}-fault` : `${id}-said`}
          onChange={(event) => type(event.target.value)}
          onFocus={() => setIn(true)}
          onBlur={() => {
            setIn(false);
            setEnd(null);
            take();
          }}
          onKeyDown={onKeyDown}
          autoComplete="off"
          spellCheck={false}
        />
        {isIn && (
          <span
            id={`${id}-said`}
            className="pointer-events-none absolute right-0 top-full z-10 mt-px whitespace-nowrap border border-rule bg-card px-1.5 text-xs leading-5 text-soft"
          >
            {said}
            <span role="status">{end && `. ${end}`}</span>
          </span>
        )}
      </span>
    </Row>
  );
}

/** How it is understood; null where it is not, or not yet. */
function tryRead(read: (text: string) => Reading, typed: string): string | null {
  try {
    return read(typed).words;
  } catch {
    return null;
  }
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
  const { unit } = value;
  const steps: Record<LengthUnit, number> = { mm: max > 100 ? 1 : 0.05, cm: 0.1, in: 0.125, pt: 0.5 };
  const limitsIn = (of: LengthUnit) => `${formatLength(min, of)} to ${formatLength(max, of)}`;
  const read = (text: string): Reading => {
    const length = parseLength(text, unit);
    const mm = toMm(length);
    if (mm < min - ROUNDING || mm > max + ROUNDING)
      throw new RangeError(`From ${limitsIn(length.unit)}, not ${text.trim()}`);
    return { words: formatLength(mm, length.unit), take: () => onChange(length) };
  };
  return (
    <MeasureField
      label={label}
      hint={hint}
      isNarrow={isNarrow}
      text={`${Number(value.value.toFixed(3))} ${unit}`}
      limits={limitsIn(unit)}
      read={read}
      step={(direction, isLarge) => {
        const wanted = toMm({ value: value.value + direction * steps[unit] * (isLarge ? 10 : 1), unit });
        const mm = Math.min(max, Math.max(min, wanted));
        onChange({ value: Number((mm / toMm({ value: 1, unit })).toFixed(4)), unit });
        return mm === wanted ? null : sayEnd(direction);
      }}
    />
  );
}

/** Rounding in a unit's own digits must not refuse the limit itself, mm. */
const ROUNDING = 1e-3;

const sayEnd = (direction: 1 | -1) => (direction === 1 ? "It goes no higher" : "It goes no lower");

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
  /** Why not more. */
  readonly whyMax?: string;
  readonly stepBy: number;
  readonly isNarrow?: boolean;
  onChange(value: number): void;
}

/** A plain number with a fixed unit behind it. */
export function NumberField({ label, hint, value, unit, min, max, whyMax, stepBy, isNarrow, onChange }: NumberProps) {
  const clean = (v: number) => Number(Math.min(max, Math.max(min, v)).toFixed(4));
  const withUnit = (text: string | number) => `${text}${unit ? ` ${unit}` : ""}`;
  const limits = `${min} to ${withUnit(max)}`;
  const read = (text: string): Reading => {
    const number = Number(text.replace(unit, "").replace(",", ".").trim());
    if (!Number.isFinite(number) || text.trim() === "") throw new RangeError(`"${text}" is not a number`);
    if (number > max && whyMax) throw new RangeError(`${whyMax}: ${limits}, not ${withUnit(number)}`);
    if (number < min || number > max) throw new RangeError(`From ${limits}, not ${withUnit(number)}`);
    return { words: withUnit(number), take: () => onChange(number) };
  };
  return (
    <MeasureField
      label={label}
      hint={hint}
      isNarrow={isNarrow}
      text={withUnit(value)}
      limits={limits}
      read={read}
      step={(direction, isLarge) => {
        const wanted = value + direction * stepBy * (isLarge ? 10 : 1);
        onChange(clean(wanted));
        return wanted > max || wanted < min ? sayEnd(direction) : null;
      }}
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
      <input type="checkbox" checked={isOn} onChange={(event) => onChange(event.target.checked)} />
      <span>
        {label}
        {hint && <span className="block text-xs text-soft">{hint}</span>}
      </span>
    </label>
  );
}
