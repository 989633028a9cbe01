// Colours: how many, which, and what each is to the press.
import { formatHex } from "@plain-palette/core/colour";
import type { Spot, SpotRole } from "@plain-palette/core/reduce";
import { DropdownMenu } from "radix-ui";
import type { Computed } from "../../compute/use-compute.ts";
import { useJob } from "../../job/use-job.ts";
import { Button } from "../../parts/button.tsx";
import { Choice } from "../../parts/choice.tsx";
import { NumberField } from "../../parts/fields.tsx";
import { InPlaceText } from "../../parts/in-place.tsx";
import { InkStrip, percent } from "../../parts/ink-strip.tsx";
import { Group, Panel } from "./panel.tsx";

const ROLES = [
  { value: "ink", text: "Ink", title: "Printed" },
  { value: "garment", text: "Garment", title: "The garment shows through: no ink, and other inks are knocked out" },
  { value: "drop", text: "Drop", title: "Not part of the design" },
] as const;

export function ColoursStep({ computed }: { computed: Computed }) {
  const recipe = useJob((state) => state.recipe);
  const edit = useJob((state) => state.edit);
  const { reduced } = computed;
  if (!reduced)
    return (
      <Panel step="colours" next="shapes">
        <p role="status">Looking for the colours ...</p>
      </Panel>
    );
  const { spots, proposedCount, rungs, foundCount } = reduced;
  const total = spots.reduce((sum, spot) => sum + spot.areaPx, 0);
  const largest = Math.max(...spots.map((spot) => spot.areaPx)) / total;
  const setCount = (count: number | null) => edit((r) => ({ ...r, colours: { ...r.colours, count } }));
  const nextDown = rungs.find((rung) => rung.countAfter === spots.length - 1);
  const nameOf = (id: string) => spots.find((spot) => spot.id === id || spot.members.includes(id))?.name ?? id;
  return (
    <Panel step="colours" next="shapes">
      <Group title="How many">
        <NumberField
          label="Number of colours"
          value={spots.length}
          unit=""
          min={1}
          max={Math.max(1, rungs.length + 1)}
          stepBy={1}
          hint={
            nextDown
              ? `One fewer puts ${nameOf(nextDown.from)} into ${nameOf(nextDown.into)} (ΔE ${nextDown.difference.toFixed(1)})`
              : "No two colours left to merge"
          }
          onChange={(count) => setCount(Math.round(count))}
        />
        <div className="flex items-center gap-2">
          <Button onClick={() => setCount(null)} disabled={recipe.colours.count === null}>
            Find them
          </Button>
          <span className="text-xs text-soft">
            {recipe.colours.count === null ? "Found by itself" : "Set by hand"}: {foundCount} told apart,{" "}
            {proposedCount} proposed
          </span>
        </div>
      </Group>
      <Group title="Spots">
        <ul aria-label="Spots">
          {spots.map((spot) => (
            <SpotRow key={spot.id} spot={spot} spots={spots} share={spot.areaPx / total} largest={largest} />
          ))}
        </ul>
        <WaitingDecisions spots={spots} />
      </Group>
    </Panel>
  );
}

/** What was decided on colours that this picture does not have: it waits for a picture that has them, or is forgotten. */
function WaitingDecisions({ spots }: { spots: readonly Spot[] }) {
  const decided = useJob((state) => state.recipe.colours.spots);
  const edit = useJob((state) => state.edit);
  const here = new Set(spots.flatMap(({ id, members }) => [id, ...members]));
  const waiting = Object.keys(decided).filter((id) => !here.has(id));
  if (waiting.length === 0) return null;
  const forget = () =>
    edit((r) => {
      const kept = Object.entries(r.colours.spots).filter(([id]) => here.has(id));
      return { ...r, colours: { ...r.colours, spots: Object.fromEntries(kept) } };
    });
  return (
    <div role="note" className="mt-2 text-xs text-soft">
      <p>
        What you decided on {waiting.map((id) => decided[id].name ?? `#${id}`).join(", ")} waits: this picture does not
        have {waiting.length === 1 ? "that colour" : "those colours"}.
      </p>
      <button type="button" className="underline" onClick={forget}>
        Forget it
      </button>
    </div>
  );
}

function SpotRow({
  spot,
  spots,
  share,
  largest,
}: {
  spot: Spot;
  spots: readonly Spot[];
  share: number;
  largest: number;
}) {
  const edit = useJob((state) => state.edit);
  const decide = (decision: { name?: string; role?: SpotRole }) =>
    edit((r) => ({
      ...r,
      colours: { ...r.colours, spots: { ...r.colours.spots, [spot.id]: { ...r.colours.spots[spot.id], ...decision } } },
    }));
  const mergeInto = (into: Spot) =>
    edit((r) => ({
      ...r,
      colours: {
        ...r.colours,
        merges: [...r.colours.merges, { from: spot.id, into: into.id }],
        // The number follows, or the ladder would split another pair to keep it.
        count: r.colours.count === null ? null : Math.max(1, r.colours.count - 1),
      },
    }));
  return (
    <li aria-label={spot.name} className="border-t border-rule py-2 first:border-t-0">
      <div className="flex items-baseline gap-2">
        <InPlaceText
          label={`Name of ${spot.name}`}
          text={spot.name}
          className="flex-1 font-semibold"
          onCommit={(name) => decide({ name })}
        />
        <span className="text-xs text-soft">{formatHex(spot.rgb)}</span>
        <span className="w-12 text-right">{percent(share)}</span>
      </div>
      <InkStrip rgb={spot.rgb} share={share} largest={largest} isFaint={spot.role !== "ink"} />
      <div className="mt-1.5 flex items-center justify-between">
        <Choice
          label={`What ${spot.name} is`}
          value={spot.role}
          options={ROLES}
          onChange={(role) => decide({ role })}
          isSmall
        />
        {spots.length > 1 && (
          <DropdownMenu.Root modal={false}>
            <DropdownMenu.Trigger
              className="rounded-[3px] px-1.5 text-xs underline underline-offset-2 hover:bg-card"
              aria-label={`Merge ${spot.name} into another`}
            >
              Merge into
            </DropdownMenu.Trigger>
            <DropdownMenu.Portal>
              <DropdownMenu.Content align="end" className="z-10 min-w-40 border border-rule bg-card py-1 shadow-md">
                {spots
                  .filter((other) => other.id !== spot.id)
                  .map((other) => (
                    <DropdownMenu.Item
                      key={other.id}
                      onSelect={() => mergeInto(other)}
                      className="flex cursor-pointer items-center gap-2 px-3 py-1 outline-none data-[highlighted]:bg-sheet data-[highlighted]:underline"
                    >
                      <span className="size-3 border border-soft/50" style={{ background: formatHex(other.rgb) }} />
                      {other.name}
                    </DropdownMenu.Item>
                  ))}
              </DropdownMenu.Content>
            </DropdownMenu.Portal>
          </DropdownMenu.Root>
        )}
      </div>
    </li>
  );
}
