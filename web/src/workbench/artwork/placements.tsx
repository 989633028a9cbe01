// The shop's placements: names, starting widths and printable areas, changed where they stand.
import type { Problem, ShopPlacement } from "@plain-palette/contract";
import { MAX_PRINT_MM, MIN_PRINT_MM, type Placement } from "@plain-palette/core/recipe";
import { useQueryClient } from "@tanstack/react-query";
import { X } from "lucide-react";
import { Dialog } from "radix-ui";
import { useState } from "react";
import { api } from "../../api/client.ts";
import { Button } from "../../parts/button.tsx";
import { MmField } from "../../parts/fields.tsx";
import { InPlaceText } from "../../parts/in-place.tsx";
import { ProblemNote, problemOf } from "../../parts/problem.tsx";

const NEW: Placement = { name: "New placement", widthMm: 250, areaWidthMm: 300, areaHeightMm: 400 };

interface Props {
  readonly isOpen: boolean;
  readonly placements: readonly ShopPlacement[];
  onClose(): void;
}

export function PlacementsDialog({ isOpen, placements, onClose }: Props) {
  const queries = useQueryClient();
  const [problem, setProblem] = useState<Problem | null>(null);
  const write = async (work: () => Promise<unknown>) => {
    setProblem(null);
    try {
      await work();
    } catch (error) {
      setProblem(problemOf(error));
    }
    await queries.invalidateQueries({ queryKey: ["placements"] });
  };
  return (
    <Dialog.Root open={isOpen} onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-ink/30" />
        <Dialog.Content className="fixed left-1/2 top-1/2 flex max-h-[85vh] w-[52rem] -translate-x-1/2 -translate-y-1/2 flex-col border border-rule bg-sheet shadow-lg">
          <div className="flex items-baseline border-b border-rule px-4 py-3">
            <Dialog.Title className="flex-1 text-lg font-semibold">The shop's placements</Dialog.Title>
            <Dialog.Close asChild>
              <Button>Close</Button>
            </Dialog.Close>
          </div>
          <Dialog.Description className="px-4 pt-2 text-xs text-soft">
            A design starts at the width given here and should stay inside the printable area. Jobs keep the sizes they
            were made with.
          </Dialog.Description>
          <div className="min-h-0 flex-1 overflow-y-auto px-4 py-2">
            {problem && <ProblemNote problem={problem} />}
            <ul>
              {placements.map((placement) => (
                <PlacementRow
                  key={placement.id}
                  placement={placement}
                  onChange={(next) => void write(() => api.changePlacement(placement.id, next))}
                  onRemove={() => void write(() => api.removePlacement(placement.id))}
                />
              ))}
            </ul>
          </div>
          <div className="border-t border-rule p-3">
            <Button onClick={() => void write(() => api.addPlacement(NEW))}>Add a placement</Button>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

interface RowProps {
  readonly placement: ShopPlacement;
  onChange(placement: Placement & { version: number }): void;
  onRemove(): void;
}

function PlacementRow({ placement, onChange, onRemove }: RowProps) {
  const { id: _, ...current } = placement;
  const set = (part: Partial<Placement>) => onChange({ ...current, ...part });
  return (
    <li
      className="grid grid-cols-[1fr_10.5rem_9.5rem_9.5rem_auto] items-center gap-3 border-t border-rule py-0.5 first:border-t-0"
      aria-label={placement.name}
    >
      <InPlaceText
        label={`Name of ${placement.name}`}
        text={placement.name}
        className="font-semibold"
        onCommit={(name) => name.trim() && set({ name })}
      />
      <MmField
        label="Starts at"
        valueMm={placement.widthMm}
        min={MIN_PRINT_MM}
        max={MAX_PRINT_MM}
        isNarrow
        onChange={(widthMm) => set({ widthMm })}
      />
      <MmField
        label="Area wide"
        valueMm={placement.areaWidthMm}
        min={MIN_PRINT_MM}
        max={MAX_PRINT_MM}
        isNarrow
        onChange={(areaWidthMm) => set({ areaWidthMm })}
      />
      <MmField
        label="Area high"
        valueMm={placement.areaHeightMm}
        min={MIN_PRINT_MM}
        max={MAX_PRINT_MM}
        isNarrow
        onChange={(areaHeightMm) => set({ areaHeightMm })}
      />
      <Button look="quiet" className="px-1" aria-label={`Remove ${placement.name}`} onClick={onRemove}>
        <X size={14} />
      </Button>
    </li>
  );
}
