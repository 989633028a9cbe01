// Fewer nodes: for all shapes, one colour, or a picked one; the new line lies on the old before it is taken.
import { formatHex } from "@plain-palette/core/colour";
import type { ShapeEntry, SimplifyEntry } from "@plain-palette/core/recipe";
import type { Spot } from "@plain-palette/core/reduce";
import type { Computed } from "../../compute/use-compute.ts";
import { useJob } from "../../job/use-job.ts";
import { Button } from "../../parts/button.tsx";
import { Choice } from "../../parts/choice.tsx";
import { EntryRow } from "../../parts/entry-row.tsx";
import { SelectField } from "../../parts/select-field.tsx";
import { SlideField } from "../../parts/slide.tsx";
import { Fact, Group } from "../panel.tsx";
import { type ChangeShapesDesk, type ShapesDesk, startTrying } from "./shapes-desk.ts";

interface Props {
  readonly computed: Computed;
  readonly mmPerPx: number;
  readonly desk: ShapesDesk;
  readonly change: ChangeShapesDesk;
}

type Scope = SimplifyEntry["scope"];

const SCOPES: readonly { readonly value: Scope["kind"]; readonly text: string }[] = [
  { value: "all", text: "All" },
  { value: "spot", text: "One colour" },
  { value: "shape", text: "A shape" },
];

export function SimplifySection({ computed, mmPerPx, desk, change }: Props) {
  const { entries } = useJob((state) => state.recipe.shapes);
  const simplify = entries.filter((one): one is SimplifyEntry => one.kind === "simplify");
  const edit = useJob((state) => state.edit);
  const setEntries = (changed: readonly ShapeEntry[]) =>
    edit((r) => ({ ...r, shapes: { ...r.shapes, entries: [...changed] } }));
  const spots = computed.reduced?.spots ?? [];
  const { trying } = desk;
  const start = (kind: Scope["kind"]) => {
    // A shape is picked on the table; until then nothing is meant.
    const scope: Scope =
      kind === "all"
        ? { kind }
        : kind === "spot"
          ? { kind, spotId: spots[0]?.id ?? "" }
          : { kind, at: { x: -1, y: -1 } };
    const begun = startTrying(entries, scope);
    change({ trying: trying ? { ...begun, tolerancePx: trying.tolerancePx } : begun });
  };
  const counts = computed.traced?.counts;
  return (
    <>
      <Group title="Take nodes out of">
        <Choice label="Take nodes out of" value={trying?.scope.kind ?? "none"} options={SCOPES} onChange={start} />
        {!trying && (
          <p className="pt-1.5 text-xs text-soft">
            Circles, ellipses, straight lengths and corners stay exactly as they are. {counts?.nodes ?? 0} nodes now.
          </p>
        )}
        {trying && (
          <Trying
            trying={trying}
            spots={spots}
            computed={computed}
            mmPerPx={mmPerPx}
            onChange={(next) => change({ trying: next })}
            onTake={() => {
              setEntries([...entries, trying]);
              change({ trying: null });
            }}
            onDrop={() => change({ trying: null })}
          />
        )}
      </Group>
      {simplify.length > 0 && (
        <Group title="Taken">
          <ol aria-label="Taken" className="border border-rule bg-card">
            {simplify.map((entry) => {
              const { id, scope, isOn } = entry;
              const spot = scope.kind === "spot" ? spots.find((one) => one.id === scope.spotId) : undefined;
              return (
                <li key={id} className="border-t border-rule px-1.5 py-0.5 first:border-t-0">
                  <EntryRow
                    words={sayEntry(entry, spot, mmPerPx)}
                    isOn={isOn}
                    {...(spot && { swatch: formatHex(spot.rgb) })}
                    onToggle={(next) =>
                      setEntries(entries.map((one) => (one.id === id ? { ...one, isOn: next } : one)))
                    }
                    onRemove={() => setEntries(entries.filter((one) => one.id !== id))}
                  />
                </li>
              );
            })}
          </ol>
        </Group>
      )}
    </>
  );
}

interface TryingProps {
  readonly trying: SimplifyEntry;
  readonly spots: readonly Spot[];
  readonly computed: Computed;
  readonly mmPerPx: number;
  onChange(trying: SimplifyEntry): void;
  onTake(): void;
  onDrop(): void;
}

function Trying({ trying, spots, computed, mmPerPx, onChange, onTake, onDrop }: TryingProps) {
  const { scope, tolerancePx } = trying;
  const before = computed.traced?.counts.nodes ?? 0;
  const tried = computed.traced?.tried ?? null;
  const isPicking = scope.kind === "shape" && scope.at.x < 0;
  const set = (px: number) => onChange({ ...trying, tolerancePx: Number(Math.min(10, Math.max(0.05, px)).toFixed(3)) });
  return (
    <>
      {scope.kind === "spot" && (
        <SelectField
          label="Colour"
          value={scope.spotId}
          options={spots.map(({ id, name }) => ({ value: id, text: name }))}
          onChange={(spotId) => onChange({ ...trying, scope: { kind: "spot", spotId } })}
        />
      )}
      {isPicking ? (
        <p role="status" className="py-2">
          Click on the shape on the table.
        </p>
      ) : (
        <>
          <SlideField
            label="May move by"
            value={tolerancePx}
            unit="px"
            min={0.05}
            max={10}
            finest={0.01}
            slideMax={4}
            stepBy={0.1}
            hint={`${(tolerancePx * mmPerPx).toFixed(3)} mm on the garment`}
            onChange={set}
          />
          <dl className="mt-1">
            <Fact label="Nodes">
              <span data-testid="tried-nodes">
                {before} → <b>{tried ? tried.nodes : "..."}</b>
              </span>
            </Fact>
          </dl>
          {tried && tried.before.length === 0 && (
            <p className="text-xs text-soft">No boundary has a node to spare within that.</p>
          )}
        </>
      )}
      <div className="mt-2 flex gap-2">
        <Button look="next" onClick={onTake} disabled={isPicking || !tried || tried.before.length === 0}>
          Take it
        </Button>
        <Button onClick={onDrop}>Leave it</Button>
      </div>
      <p className="pt-1.5 text-xs text-soft">
        On the table: the line as it is, wide and light; the new one dark, with its nodes.
      </p>
    </>
  );
}

/** What an entry takes nodes out of, and how far it may go. */
function sayEntry({ scope, tolerancePx }: SimplifyEntry, spot: Spot | undefined, mmPerPx: number): string {
  const what = { all: "All shapes", spot: spot?.name ?? "A colour that is gone", shape: "One shape" }[scope.kind];
  return `${what}, ${tolerancePx} px (${(tolerancePx * mmPerPx).toFixed(2)} mm)`;
}
