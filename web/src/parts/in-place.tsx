// Text that is edited where it stands.
import { useDraft } from "./use-draft.ts";

export function InPlaceText({
  label,
  text,
  placeholder,
  className = "",
  onCommit,
}: {
  label: string;
  text: string;
  placeholder?: string;
  className?: string;
  onCommit(text: string): void;
}) {
  const { shown, isTyped, type, take, drop } = useDraft(text, onCommit, { holdsTaken: true });
  return (
    <input
      aria-label={label}
      value={shown}
      data-draft={isTyped ? undefined : "none"}
      placeholder={placeholder}
      onChange={(event) => type(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => {
        if (event.key === "Enter") event.currentTarget.blur();
        if (event.key === "Escape" && isTyped) {
          event.stopPropagation();
          drop();
        }
      }}
      className={`min-h-6 min-w-0 rounded-[3px] border border-transparent bg-transparent px-1 -mx-1 hover:border-rule focus:border-ink focus:bg-card ${className}`}
    />
  );
}
