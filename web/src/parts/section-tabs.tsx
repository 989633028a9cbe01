// Sections of a step's settings, one at a time.
import { Tabs } from "radix-ui";
import type { ReactNode } from "react";

interface Props<T extends string> {
  readonly label: string;
  readonly value: T;
  readonly sections: readonly { readonly value: T; readonly text: string }[];
  onChange(value: T): void;
  /** The section that is open. */
  readonly children: ReactNode;
}

export function SectionTabs<T extends string>({ label, value, sections, onChange, children }: Props<T>) {
  return (
    <Tabs.Root value={value} onValueChange={(next) => onChange(next as T)}>
      <Tabs.List aria-label={label} className="-mx-1.5 mb-3 flex flex-wrap whitespace-nowrap border-b border-rule">
        {sections.map((section) => (
          <Tabs.Trigger
            key={section.value}
            value={section.value}
            className="-mb-px border-b-2 border-transparent px-[7px] pb-1.5 pt-0.5 text-soft hover:text-ink data-[state=active]:border-ink data-[state=active]:text-ink"
          >
            {section.text}
          </Tabs.Trigger>
        ))}
      </Tabs.List>
      <Tabs.Content value={value}>{children}</Tabs.Content>
    </Tabs.Root>
  );
}
