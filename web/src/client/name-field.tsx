// What both of a client's forms have: the name, typed once, and why something was not taken.
import type { Problem } from "@plain-palette/contract";
import { useId } from "react";

export const FIELD = "w-full rounded-[3px] border border-edge bg-card px-2 py-1.5";

interface Props {
  readonly label: string;
  readonly name: string;
  onChange(name: string): void;
}

export function NameField({ label, name, onChange }: Props) {
  const id = useId();
  return (
    <>
      <label htmlFor={id}>{label}</label>
      <input
        id={id}
        required
        maxLength={80}
        autoComplete="name"
        className={FIELD}
        value={name}
        onChange={(event) => onChange(event.target.value)}
      />
    </>
  );
}

export function NotTaken({ problem }: { problem: Problem | null }) {
  if (!problem) return null;
  return (
    <p role="alert" className="text-wrong">
      {problem.title}. {problem.kept} {problem.cure}
    </p>
  );
}
