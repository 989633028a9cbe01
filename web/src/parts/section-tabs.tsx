// Sections of a step's settings, one at a time; which is open stands in the address.
import { Tabs } from "radix-ui";
import { type ReactNode, useEffect, useRef } from "react";
import { useSearchParams } from "react-router";

interface Props<T extends string> {
  readonly label: string;
  readonly value: T;
  readonly sections: readonly { readonly value: T; readonly text: string }[];
  onChange(value: T): void;
  /** The section that is open. */
  readonly children: ReactNode;
}

export function SectionTabs<T extends string>({ label, value, sections, onChange, children }: Props<T>) {
  useAddress(value, sections, onChange);
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

/** The open section and the address follow each other; the first one needs no word in it. */
function useAddress<T extends string>(value: T, sections: Props<T>["sections"], onChange: (value: T) => void): void {
  const [params, setParams] = useSearchParams();
  const at = params.get("at");
  /** What the address said when it was last agreed with. */
  const agreed = useRef<string | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: one of the two has changed, the other follows
  useEffect(() => {
    const wanted = sections.find((section) => section.value === at)?.value ?? sections[0]?.value;
    if (wanted !== value && wanted && at !== agreed.current) onChange(wanted);
    else if (wanted !== value)
      setParams(
        (now) => {
          if (value === sections[0]?.value) now.delete("at");
          else now.set("at", value);
          return now;
        },
        { replace: true },
      );
    agreed.current = at;
  }, [at, value]);
}
