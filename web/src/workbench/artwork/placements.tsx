// The shop's placements: names, starting widths and printable areas, changed where they stand.
import type { ShopPlacement } from "@plain-palette/contract";
import { MAX_PRINT_MM, MIN_PRINT_MM, type Placement } from "@plain-palette/core/recipe";
import { useQuery } from "@tanstack/react-query";
import { X } from "lucide-react";
import { useEffect, useId, useRef } from "react";
import { v4 as newId } from "uuid";
import { api } from "../../api/client.ts";
import { OutboxNote } from "../../outbox/outbox-note.tsx";
import { Button } from "../../parts/button.tsx";
import { MmField } from "../../parts/fields.tsx";
import { goOnAt } from "../../parts/go-on-at.ts";
import { InPlaceText } from "../../parts/in-place.tsx";
import { TakenOff } from "../../parts/taken-off.tsx";
import { doToListed } from "../../shop/use-shop.ts";

const NEW: Placement = { name: "New placement", widthMm: 250, areaWidthMm: 300, areaHeightMm: 400 };

interface Props {
  readonly isOpen: boolean;
  readonly placements: readonly ShopPlacement[];
  onClose(): void;
}

export function PlacementsDialog({ isOpen, placements, onClose }: Props) {
  const away = useQuery({ queryKey: ["placements", "put-away"], queryFn: api.listPlacementsPutAway });
  const title = useId();
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    if (isOpen) dialog.current?.showModal();
    else dialog.current?.close();
  }, [isOpen]);
  const add = () => {
    const added = { ...NEW, id: newId(), version: 1 };
    doToListed({ kind: "placement", deed: "add", thing: added });
    goOnAt(() => document.querySelector<HTMLElement>(`[data-placement="${added.id}"] input`));
  };
  return (
    // The browser's own dialog: Radix' would put a style element into the page, which its security policy forbids.
    <dialog
      ref={dialog}
      aria-labelledby={title}
      onClose={onClose}
      className="m-auto w-[54rem] border border-rule bg-sheet text-ink shadow-lg backdrop:bg-ink/30"
    >
      <div className="flex max-h-[85vh] flex-col">
        <div className="flex items-baseline border-b border-rule px-4 py-3">
          <h2 id={title} className="flex-1 text-lg font-semibold">
            The shop's placements
          </h2>
          <Button onClick={onClose}>Close</Button>
        </div>
        <p className="px-4 pt-2 text-xs text-soft">
          A design starts at the width given here and should stay inside the printable area. Jobs keep the sizes they
          were made with.
        </p>
        <div className="min-h-0 flex-1 overflow-y-auto px-4 py-2">
          <OutboxNote kind="placement" />
          <ul>
            {placements.map((placement) => (
              <PlacementRow
                key={placement.id}
                placement={placement}
                onChange={(part) => doToListed({ kind: "placement", deed: "change", thing: { ...placement, ...part } })}
                onRemove={() => doToListed({ kind: "placement", deed: "putAway", thing: placement })}
              />
            ))}
          </ul>
          <TakenOff
            list="the list"
            things={away.data ?? []}
            onReturn={(placement) => doToListed({ kind: "placement", deed: "return", thing: placement })}
          />
        </div>
        <div className="border-t border-rule p-3">
          <Button onClick={add}>Add a placement</Button>
        </div>
      </div>
    </dialog>
  );
}

interface RowProps {
  readonly placement: ShopPlacement;
  onChange(part: Partial<Placement>): void;
  onRemove(): void;
}

function PlacementRow({ placement, onChange, onRemove }: RowProps) {
  return (
    <li
      data-placement={placement.id}
      className="grid grid-cols-[1fr_10.5rem_9.5rem_9.5rem_auto] items-center gap-3 border-t border-rule py-0.5 first:border-t-0"
      aria-label={placement.name}
    >
      <InPlaceText
        label={`Name of ${placement.name}`}
        text={placement.name}
        className="font-semibold"
        onCommit={(name) => name.trim() && onChange({ name })}
      />
      <MmField
        label="Starts at"
        valueMm={placement.widthMm}
        min={MIN_PRINT_MM}
        max={MAX_PRINT_MM}
        isNarrow
        onChange={(widthMm) => onChange({ widthMm })}
      />
      <MmField
        label="Area wide"
        valueMm={placement.areaWidthMm}
        min={MIN_PRINT_MM}
        max={MAX_PRINT_MM}
        isNarrow
        onChange={(areaWidthMm) => onChange({ areaWidthMm })}
      />
      <MmField
        label="Area high"
        valueMm={placement.areaHeightMm}
        min={MIN_PRINT_MM}
        max={MAX_PRINT_MM}
        isNarrow
        onChange={(areaHeightMm) => onChange({ areaHeightMm })}
      />
      <Button look="quiet" className="px-1" aria-label={`Remove ${placement.name}`} onClick={onRemove}>
        <X size={14} />
      </Button>
    </li>
  );
}
