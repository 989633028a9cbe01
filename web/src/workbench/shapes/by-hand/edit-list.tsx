// Everything done to the shapes by hand: each in force or not, shown on the table, taken out; those that lost their place say so.
import { formatHex } from "@plain-palette/core/colour";
import type { Spot } from "@plain-palette/core/reduce";
import { Locate } from "lucide-react";
import { Button } from "../../../parts/button.tsx";
import { EntryRow } from "../../../parts/entry-row.tsx";
import { Group } from "../../panel.tsx";
import { modeOf, placeOfEdit, sayEdit } from "./edit-words.ts";
import { type HandDesk, NOT_PICKED, sourceScale } from "./hand-desk.ts";

interface Props {
  readonly desk: HandDesk;
  readonly spots: readonly Spot[];
  readonly misfits: ReadonlyMap<string, string>;
  showPlace(x: number, y: number): void;
}

export function EditList({ desk, spots, misfits, showPlace }: Props) {
  const { entries, setEntries, entryId } = desk;
  const last = entries.at(-1);
  if (!last) return null;
  return (
    <Group title={`Done by hand (${entries.length})`}>
      <p aria-live="polite" className="sr-only">
        {`Last: ${sayEdit(last, spots, desk.mmPerPx / sourceScale(desk))}`}
      </p>
      <ol aria-label="Done by hand" className="border border-rule bg-card">
        {entries.map((entry) => {
          const { id, isOn } = entry;
          const spotId = "spotId" in entry ? entry.spotId : undefined;
          const spot = spots.find((one) => one.id === spotId);
          const place = placeOfEdit(entry);
          const misfit = misfits.get(id);
          const words = sayEdit(entry, spots, desk.mmPerPx / sourceScale(desk));
          return (
            <li
              key={id}
              className={`border-t border-rule px-1.5 py-0.5 first:border-t-0 ${id === entryId ? "bg-sheet" : ""}`}
            >
              <EntryRow
                words={words}
                isOn={isOn}
                {...(spotId !== undefined && { swatch: spot ? formatHex(spot.rgb) : null })}
                onToggle={(next) => setEntries(entries.map((one) => (one.id === id ? { ...one, isOn: next } : one)))}
                onRemove={() => setEntries(entries.filter((one) => one.id !== id))}
              >
                {place && (
                  <Button
                    look="quiet"
                    className="px-1"
                    aria-label={`Show "${words}"`}
                    onClick={() => {
                      desk.change({ ...NOT_PICKED, entryId: id, mode: modeOf(entry) ?? desk.mode });
                      const { x, y } = desk.toPrepared(place);
                      showPlace(x, y);
                    }}
                  >
                    <Locate size={14} />
                  </Button>
                )}
              </EntryRow>
              {misfit && isOn && (
                <p role="status" className="pl-5 text-xs text-wrong">
                  {misfit}
                </p>
              )}
            </li>
          );
        })}
      </ol>
    </Group>
  );
}
