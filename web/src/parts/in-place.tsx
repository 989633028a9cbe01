// Text that is edited where it stands.
import { useEffect, useState } from "react";

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
  const [draft, setDraft] = useState(text);
  useEffect(() => setDraft(text), [text]);
  return (
    <input
      aria-label={label}
      value={draft}
      placeholder={placeholder}
      onChange={(event) => setDraft(event.target.value)}
      onBlur={() => draft !== text && onCommit(draft)}
      onKeyDown={(event) => {
        if (event.key === "Enter") event.currentTarget.blur();
        if (event.key === "Escape") setDraft(text);
      }}
      className={`min-w-0 rounded-[3px] border border-transparent bg-transparent px-1 -mx-1 hover:border-rule focus:border-ink focus:bg-card ${className}`}
    />
  );
}
