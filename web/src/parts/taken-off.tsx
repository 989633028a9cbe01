// What was taken off one of the shop's lists, to be put back.
import type { ReactNode } from "react";
import { Button } from "./button.tsx";

interface Props<Thing> {
  /** "the shelf". */
  readonly list: string;
  readonly things: readonly Thing[];
  /** What is shown before its name. */
  lead?(thing: Thing): ReactNode;
  onReturn(thing: Thing): void;
}

export function TakenOff<Thing extends { readonly id: string; readonly name: string }>(props: Props<Thing>) {
  const { list, things, lead, onReturn } = props;
  if (things.length === 0) return null;
  return (
    <details className="mt-3">
      <summary className="cursor-pointer text-soft">
        Taken off {list}: {things.length}
      </summary>
      <ul className="mt-1 border border-rule bg-sheet">
        {things.map((thing) => (
          <li key={thing.id} className="flex items-center gap-3 border-t border-rule px-2 py-1 first:border-t-0">
            {lead?.(thing)}
            <span className="flex-1 truncate">{thing.name}</span>
            <Button aria-label={`Put ${thing.name} back`} onClick={() => onReturn(thing)}>
              Put it back
            </Button>
          </li>
        ))}
      </ul>
    </details>
  );
}
