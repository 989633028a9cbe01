// A choice among many by its name.
import { type ReactNode, useId } from "react";
import { Row } from "./fields.tsx";

interface Option {
  readonly value: string;
  readonly text: ReactNode;
}

/** `value` is one of the options'; `onChange` gets one of them. */
export function SelectField({
  label,
  value,
  options,
  isWide = false,
  onChange,
}: {
  label: string;
  value: string;
  options: readonly Option[];
  isWide?: boolean;
  onChange(value: string): void;
}) {
  const id = useId();
  return (
    <Row label={label} htmlFor={id} isWide={isWide}>
      <select
        id={id}
        className="w-full min-w-0 rounded-[3px] border border-edge bg-card px-1.5 py-1"
        value={value}
        onChange={(event) => onChange(event.target.value)}
      >
        {options.map((option) => (
          <option key={option.value} value={option.value}>
            {option.text}
          </option>
        ))}
      </select>
    </Row>
  );
}
