// Choosing the typeface of a line: by its sample in the line's own words, by kind, by name.
import type { ListedTypeface, TypefaceKind } from "@plain-palette/contract";
import { TYPEFACE_KINDS } from "@plain-palette/contract";
import { Popover } from "radix-ui";
import { useState } from "react";
import { Button } from "../../../parts/button.tsx";
import { TypefaceSample } from "../../../parts/typeface-sample.tsx";
import { KIND_WORDS, matchesTypeface } from "../../../shop/typeface-words.ts";
import { nameOfTypeface } from "./lettering-desk.ts";

interface Props {
  readonly typefaces: readonly ListedTypeface[];
  readonly value: { readonly id: string; readonly name: string };
  readonly words: string;
  onChange(typeface: { id: string; name: string }): void;
}

export function TypefaceChoice({ typefaces, value, words, onChange }: Props) {
  const [isOpen, setOpen] = useState(false);
  const [wanted, setWanted] = useState("");
  const [kind, setKind] = useState<TypefaceKind | "">("");
  const current = typefaces.find(({ id }) => id === value.id);
  const shown = typefaces.filter((one) => (kind === "" || one.kind === kind) && matchesTypeface(one, wanted));
  const sample = words.split("\n")[0] || "Words";
  return (
    <Popover.Root open={isOpen} onOpenChange={setOpen}>
      <Popover.Trigger asChild>
        <button
          type="button"
          aria-label={`Typeface: ${current ? nameOfTypeface(current) : value.name}`}
          className="my-1 block w-full min-w-0 rounded-[3px] border border-edge bg-card px-2 py-1 text-left hover:border-soft"
        >
          {current ? <TypefaceSample typeface={current} words={sample} size={20} /> : null}
          <span className="text-xs text-soft">{current ? nameOfTypeface(current) : `${value.name} (not here)`}</span>
        </button>
      </Popover.Trigger>
      <Popover.Portal container={document.getElementById("work")}>
        <Popover.Content
          aria-label="Choose a typeface"
          side="left"
          align="start"
          collisionPadding={8}
          className="flex max-h-[80vh] w-80 flex-col border border-rule bg-sheet shadow-lg"
        >
          <div className="flex gap-2 border-b border-rule p-2">
            <input
              type="search"
              aria-label="Search typefaces"
              placeholder="Name"
              value={wanted}
              onChange={(event) => setWanted(event.target.value)}
              className="min-w-0 flex-1 rounded-[3px] border border-edge bg-card px-2 py-1"
            />
            <select
              aria-label="Kind"
              value={kind}
              onChange={(event) => setKind(event.target.value as TypefaceKind | "")}
              className="w-28 rounded-[3px] border border-edge bg-card px-1 py-1"
            >
              <option value="">All kinds</option>
              {TYPEFACE_KINDS.map((one) => (
                <option key={one} value={one}>
                  {KIND_WORDS[one]}
                </option>
              ))}
            </select>
          </div>
          <ul aria-label="Typefaces" className="min-h-0 flex-1 overflow-y-auto">
            {shown.map((one) => (
              <li key={one.id} className="border-b border-rule last:border-b-0">
                <Button
                  look="quiet"
                  className="w-full flex-col items-stretch overflow-hidden px-3 py-1 text-left"
                  aria-label={nameOfTypeface(one)}
                  aria-pressed={one.id === value.id}
                  onClick={() => {
                    onChange({ id: one.id, name: nameOfTypeface(one) });
                    setOpen(false);
                  }}
                >
                  <TypefaceSample typeface={one} words={sample} size={22} />
                  <span className="block text-xs text-soft">
                    {nameOfTypeface(one)}, {KIND_WORDS[one.kind].toLowerCase()}
                  </span>
                </Button>
              </li>
            ))}
            {shown.length === 0 && <li className="p-4 text-center text-soft">None of this kind has that name.</li>}
          </ul>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
