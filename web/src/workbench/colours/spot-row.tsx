// One spot: its name, colour and coverage, what it is to the press, and what of the shelf it is printed with.
import { formatHex } from "@plain-palette/core/colour";
import { allProcesses, processOf } from "@plain-palette/core/processes";
import type { Spot } from "@plain-palette/core/reduce";
import { matchStock, referStock } from "@plain-palette/core/shelf";
import { Lock, LockOpen } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import type { ReactNode } from "react";
import { useJob } from "../../job/use-job.ts";
import { Choice } from "../../parts/choice.tsx";
import { goOnAt, labelled } from "../../parts/go-on-at.ts";
import { InPlaceText } from "../../parts/in-place.tsx";
import { InkStrip, percent } from "../../parts/ink-strip.tsx";
import { useSortableRow } from "../../parts/sortable.tsx";
import { useShop } from "../../shop/use-shop.ts";
import { type Decision, decideSpot, mergeSpots, unmergeSpot } from "./edit-colours.ts";
import type { ChangePaintDesk, PaintDesk } from "./paint-desk.ts";

const ROLES = [
  { value: "ink", text: "Ink", title: "Printed" },
  { value: "garment", text: "Garment", title: "The garment shows through: no ink, and other inks are knocked out" },
  { value: "drop", text: "Drop", title: "Not part of the design" },
] as const;

export interface SpotRowProps {
  readonly spot: Spot;
  readonly spots: readonly Spot[];
  readonly share: number;
  readonly largest: number;
  readonly desk: PaintDesk;
  readonly change: ChangePaintDesk;
}

/** Moved in the print order if it is an ink. */
export function SpotRow({ spot, spots, share, largest, desk, change }: SpotRowProps) {
  const { row, grip } = useSortableRow(spot.id, `Move ${spot.name}`, spot.role !== "ink");
  const edit = useJob((state) => state.edit);
  const { merges, decided } = useJob((state) => state.recipe.colours);
  const decision: Decision = decided[spot.id] ?? {};
  const decide = (part: Partial<Decision>) => edit((r) => decideSpot(r, spot.id, part));
  const hasMerges = merges.some(({ into }) => spot.members.includes(into));
  return (
    <li {...row} data-spot={spot.id} aria-label={spot.name} className="border-t border-rule py-2">
      <div className="flex items-baseline gap-2">
        {grip && <span className="-ml-1 self-center">{grip}</span>}
        <InPlaceText
          label={`Name of ${spot.name}`}
          text={spot.name}
          className="flex-1 font-semibold"
          onCommit={(name) => decide({ name })}
        />
        <label className="flex items-center gap-1 self-center text-xs text-soft" title="Its printed colour">
          <input
            type="color"
            aria-label={`Printed colour of ${spot.name}`}
            className="h-4 w-5 border-0 bg-transparent p-0"
            value={formatHex(spot.rgb)}
            onChange={(event) => decide({ hex: event.target.value, stock: null })}
          />
          {formatHex(spot.rgb)}
        </label>
        <span className="w-12 text-right">{percent(share)}</span>
      </div>
      <InkStrip rgb={spot.rgb} share={share} largest={largest} isFaint={spot.role !== "ink"} />
      <div className="mt-1.5 flex items-center justify-between gap-1">
        <Choice
          label={`What ${spot.name} is`}
          value={spot.role}
          options={ROLES}
          onChange={(role) => decide({ role })}
          isSmall
        />
        <button
          type="button"
          aria-pressed={spot.isLocked}
          aria-label={`Lock ${spot.name}`}
          title={
            spot.isLocked ? "Locked: merges with no other by itself" : "Lock it: it will merge with no other by itself"
          }
          className={`rounded-[3px] border px-1 py-0.5 ${spot.isLocked ? "border-ink bg-ink text-white" : "border-rule bg-card text-soft"}`}
          onClick={() => decide({ isLocked: !spot.isLocked })}
        >
          {spot.isLocked ? <Lock size={12} /> : <LockOpen size={12} />}
        </button>
        <Menu label={`Colour of ${spot.name}`} text="Colour">
          <Item
            onSelect={() => change({ tool: { kind: "take-colour", spotId: spot.id } })}
            text="Take it from the picture"
          />
          {(decision.hex !== undefined || decision.stock) && (
            <Item onSelect={() => decide({ hex: undefined, stock: null })} text="As it was found" />
          )}
          {hasMerges && (
            <Item onSelect={() => edit((r) => unmergeSpot(r, spot.members))} text="Take its merges apart" />
          )}
        </Menu>
        {spots.length > 1 && spot.members.length > 0 && (
          <Menu label={`Merge ${spot.name} into another`} text="Merge">
            {spots
              .filter((other) => other.id !== spot.id && other.members.length > 0)
              .map((other) => (
                <Item
                  key={other.id}
                  hex={formatHex(other.rgb)}
                  text={other.name}
                  onSelect={() => {
                    edit((r) => mergeSpots(r, spot.id, other.id));
                    // Its own row goes.
                    goOnAt(() => (labelled(`Name of ${spot.name}`) ? null : nameFieldOf(other)));
                  }}
                />
              ))}
          </Menu>
        )}
        <MakeMenu spot={spot} decide={decide} />
      </div>
      {spot.role === "ink" && decision.process && (
        <p className="mt-1 text-xs">
          <span className="text-soft">Made with</span> {processOf(decision.process).name}
        </p>
      )}
      {spot.role === "ink" && <ShelfLine spot={spot} decision={decision} desk={desk} decide={decide} />}
    </li>
  );
}

const nameFieldOf = ({ id }: Spot) => document.querySelector<HTMLElement>(`[data-spot="${CSS.escape(id)}"] input`);

interface ShelfLineProps {
  readonly spot: Spot;
  readonly decision: Decision;
  readonly desk: PaintDesk;
  decide(part: Partial<Decision>): void;
}

/** How it is made, where a job can be made more than one way: as the job is, or another way for this spot alone. */
function MakeMenu({ spot, decide }: Pick<ShelfLineProps, "spot" | "decide">) {
  const jobs = useJob((state) => state.recipe.process);
  if (spot.role !== "ink" || allProcesses().length < 2) return null;
  return (
    <Menu label={`How ${spot.name} is made`} text="Make">
      <Item text={`As the job: ${processOf(jobs).name}`} onSelect={() => decide({ process: undefined })} />
      {allProcesses()
        .filter(({ id }) => id !== jobs)
        .map(({ id, name }) => (
          <Item key={id} text={`With ${name.toLowerCase()}`} onSelect={() => decide({ process: id })} />
        ))}
    </Menu>
  );
}

/** What it is printed with, or the nearest there is. */
function ShelfLine({ spot, decision, desk, decide }: ShelfLineProps) {
  const { shelf, settings } = useShop();
  const limits = { same: settings.sameDifference, near: settings.nearDifference };
  // What is wanted is the colour that was decided on; a stock that was taken for it is measured against the picture's.
  const wanted = decision.stock ? spot.pictureRgb : spot.rgb;
  const kind = decision.process ? processOf(decision.process).stock : desk.stockKind;
  const matches = matchStock(wanted, shelf, kind, limits);
  const { stock } = decision;
  const [nearest] = matches;
  const chosen = stock ?? (nearest ? referStock(nearest.stock, nearest.difference) : null);
  if (!chosen) return null;
  const verdict = (difference: number) =>
    difference <= limits.same ? "same" : difference <= limits.near ? "close enough to ask" : "another colour";
  return (
    <div className="mt-1 flex items-center gap-1.5 text-xs">
      <span className="text-soft">{stock ? "Shelf" : "Nearest"}</span>
      <Menu
        label={`Shelf for ${spot.name}`}
        text={
          <span className="inline-flex items-center gap-1.5">
            <Swatch hex={chosen.hex} />
            {chosen.name}
          </span>
        }
      >
        {matches.slice(0, 8).map(({ stock: item, difference }) => (
          <Item
            key={item.id}
            hex={referStock(item, difference).hex}
            text={`${item.name}, ${item.code}`}
            note={`ΔE ${difference.toFixed(1)}`}
            onSelect={() => decide({ stock: referStock(item, difference) })}
          />
        ))}
        {stock && <Item text="None of the shelf" onSelect={() => decide({ stock: null })} />}
      </Menu>
      <span className={`ml-auto ${chosen.difference > limits.near ? "text-wrong" : "text-soft"}`}>
        ΔE {chosen.difference.toFixed(1)}, {verdict(chosen.difference)}
      </span>
    </div>
  );
}

function Swatch({ hex }: { hex: string }) {
  return <span className="size-3 shrink-0 border border-soft/50" style={{ background: hex }} />;
}

function Menu({ label, text, children }: { label: string; text: ReactNode; children: ReactNode }) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger
        className="rounded-[3px] px-1 text-xs underline underline-offset-2 hover:bg-card"
        aria-label={label}
      >
        {text}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal container={document.getElementById("work")}>
        <DropdownMenu.Content
          align="end"
          className="z-10 max-h-80 min-w-40 overflow-y-auto border border-rule bg-card py-1 shadow-md"
        >
          {children}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

function Item({ text, hex, note, onSelect }: { text: string; hex?: string; note?: string; onSelect(): void }) {
  return (
    <DropdownMenu.Item
      onSelect={onSelect}
      className="flex cursor-pointer items-center gap-2 px-3 py-1 text-[13px] outline-none data-[highlighted]:bg-sheet data-[highlighted]:underline"
    >
      {hex && <Swatch hex={hex} />}
      {text}
      {note && <span className="ml-auto pl-4 text-xs text-soft">{note}</span>}
    </DropdownMenu.Item>
  );
}
