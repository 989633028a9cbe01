// One of a few, side by side, each in words.
import { ToggleGroup } from "radix-ui";

interface Props<T extends string> {
  readonly label: string;
  /** Null while none is chosen. */
  readonly value: T | null;
  readonly options: readonly { readonly value: T; readonly text: string; readonly title?: string }[];
  onChange(value: T): void;
  readonly isSmall?: boolean;
}

export function Choice<T extends string>({ label, value, options, onChange, isSmall = false }: Props<T>) {
  return (
    <ToggleGroup.Root
      type="single"
      aria-label={label}
      value={value ?? ""}
      onValueChange={(next) => next && onChange(next as T)}
      className="inline-flex max-w-full flex-wrap overflow-hidden rounded-[3px] border border-rule bg-card"
    >
      {options.map((option) => (
        <ToggleGroup.Item
          key={option.value}
          value={option.value}
          title={option.title}
          className={`border-l border-rule first:border-l-0 hover:bg-sheet data-[state=on]:bg-ink data-[state=on]:text-white focus-visible:outline-offset-[-2px] ${isSmall ? "px-1.5 py-0 text-xs leading-5" : "px-2.5 py-1"}`}
        >
          {option.text}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}
