// One entry of a list of what was done: in force or not, said in words, taken out.
import { X } from "lucide-react";
import type { ReactNode } from "react";
import { Button } from "./button.tsx";

interface Props {
  readonly words: string;
  readonly isOn: boolean;
  /** A colour that belongs to it; null for a place without one, left out for none. */
  readonly swatch?: string | null;
  /** More to do with it. */
  readonly children?: ReactNode;
  onToggle(isOn: boolean): void;
  onRemove(): void;
}

export function EntryRow({ words, isOn, swatch, children, onToggle, onRemove }: Props) {
  return (
    <div className="flex items-center gap-1.5">
      <input
        type="checkbox"
        aria-label={`${words}: in force`}
        checked={isOn}
        onChange={(event) => onToggle(event.target.checked)}
      />
      {swatch !== undefined && (
        <span className="size-3 shrink-0 border border-soft/50" style={{ background: swatch ?? "transparent" }} />
      )}
      <span title={words} className={`min-w-0 flex-1 truncate ${isOn ? "" : "text-soft line-through"}`}>
        {words}
      </span>
      {children}
      <Button
        look="quiet"
        className="px-1"
        aria-label={`Take out "${words}"`}
        onClick={({ currentTarget }) => {
          const next = nextToFocus(currentTarget);
          onRemove();
          next?.focus();
        }}
      >
        <X size={14} />
      </Button>
    </div>
  );
}

/** Who has the keyboard's focus once an entry is gone: the next entry's own button, the one before, or the first of the group. */
function nextToFocus(button: HTMLElement): HTMLElement | null {
  const row = button.closest("li");
  const beside = row?.nextElementSibling ?? row?.previousElementSibling;
  return (
    beside?.querySelector<HTMLElement>('button[aria-label^="Take out"]') ??
    button.closest('fieldset, [role="group"]')?.querySelector<HTMLElement>("button") ??
    null
  );
}
