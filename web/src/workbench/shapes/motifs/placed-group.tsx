// Motifs that are placed in the job, each an entry.
import { overhangingCopies } from "@plain-palette/core/recipe";
import { Button } from "../../../parts/button.tsx";
import { EntryRow } from "../../../parts/entry-row.tsx";
import type { ArtSize } from "../../drawn-trace.ts";
import { Group } from "../../panel.tsx";
import { sayEdit } from "../by-hand/edit-words.ts";
import type { MotifDesk } from "./motif-desk.ts";

interface Props {
  readonly desk: MotifDesk;
  readonly misfits: ReadonlyMap<string, string>;
  readonly size: ArtSize;
}

export function PlacedGroup({ desk, misfits, size }: Props) {
  const { placed, inHand, motifsOf, change, setEntry, remove, renew } = desk;
  if (placed.length === 0) return null;
  return (
    <Group title={`Placed (${placed.length})`}>
      <p aria-live="polite" className="sr-only">
        {inHand ? `In hand: ${sayEdit(inHand.entry, [], 0)}` : ""}
      </p>
      <ol aria-label="Placed motifs" className="mb-2 border border-rule bg-card">
        {placed.map(({ entry, copies }) => {
          const words = sayEdit(entry, [], 0);
          const misfit = misfits.get(entry.id);
          const motif = motifsOf.get(entry.motif.hash);
          const isOld = motif !== undefined && motif.hash !== entry.motif.hash;
          return (
            <li
              key={entry.id}
              className={`border-t border-rule px-1.5 py-0.5 first:border-t-0 ${entry.id === inHand?.entry.id ? "bg-sheet" : ""}`}
            >
              <EntryRow
                words={words}
                isOn={entry.isOn}
                onToggle={(isOn) => setEntry({ ...entry, isOn })}
                onRemove={() => remove(entry.id)}
              >
                <Button
                  look="quiet"
                  className="px-1"
                  aria-pressed={entry.id === inHand?.entry.id}
                  aria-label={`Change "${words}"`}
                  onClick={() => change({ entryId: entry.id, place: 0 })}
                >
                  Change
                </Button>
              </EntryRow>
              {misfit && entry.isOn && (
                <p role="status" className="pl-5 text-xs text-wrong">
                  {misfit}
                </p>
              )}
              {entry.isOn && overhangingCopies(entry, copies, size).length > 0 && (
                <p role="status" className="pl-5 text-xs text-wrong">
                  reaches over the picture's edge: what is beyond is cut off
                </p>
              )}
              {isOld && (
                <p className="flex items-center justify-between gap-2 pl-5 text-xs">
                  A newer version is kept.
                  <Button
                    className="px-1.5 py-0"
                    aria-label={`Take the newer version of ${motif.name} over`}
                    onClick={({ currentTarget }) => {
                      // The button goes with what it was for.
                      currentTarget.closest("li")?.querySelector<HTMLElement>("button[aria-pressed]")?.focus();
                      void renew(entry);
                    }}
                  >
                    Take it over
                  </Button>
                </p>
              )}
            </li>
          );
        })}
      </ol>
    </Group>
  );
}
