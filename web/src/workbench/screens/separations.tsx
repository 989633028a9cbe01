// Separations: plates in print order, trap, underbase, and any set of them on the table.
import type { ThinPlace } from "@plain-palette/core/checks";
import { parseHex, rgbToLab } from "@plain-palette/core/colour";
import { type Plate, screens, wantsBase } from "@plain-palette/core/screens";
import type { ReactNode } from "react";
import type { Computed } from "../../compute/use-compute.ts";
import { useJob } from "../../job/use-job.ts";
import { Button } from "../../parts/button.tsx";
import { Choice } from "../../parts/choice.tsx";
import { MmField } from "../../parts/fields.tsx";
import { InkStrip, percent } from "../../parts/ink-strip.tsx";
import { moveInList, SortableGroups, useSortableRow } from "../../parts/sortable.tsx";
import { Group, Panel } from "../panel.tsx";
import { setColours } from "../set-colours.ts";

/** Which plates lie on the table. */
export interface PlateChoice {
  readonly hidden: ReadonlySet<string>;
  setHidden(hidden: ReadonlySet<string>): void;
}

const BASE_MODES = [
  { value: "auto", text: "By garment", title: "On dark garments" },
  { value: "on", text: "On" },
  { value: "off", text: "Off" },
] as const;

interface Props {
  readonly computed: Computed;
  readonly choice: PlateChoice;
  /** Shows a place of the art on the table, upright pixels. */
  onPlace(place: { readonly x: number; readonly y: number }): void;
}

/** Thin places of the base listed at most; the rest are counted. */
const MOST_LISTED = 30;

export function SeparationsStep({ computed, choice, onPlace }: Props) {
  const { artwork, colours } = useJob((state) => state.recipe);
  const { trapMm, base: wanted } = useJob((state) => screens.settingsIn(state.recipe));
  const edit = useJob((state) => state.edit);
  const setBase = (part: Partial<typeof wanted>) =>
    edit((r) => screens.withSettings(r, { base: { ...wanted, ...part } }));
  const setOrder = (order: string[]) => edit((r) => setColours(r, { order }));
  const separation = computed.made && screens.resultIn(computed.made);
  const thinBase = computed.made?.find((made) => made.process === screens.id)?.report.thin ?? [];
  const plates = separation?.plates ?? [];
  const base = plates.find((plate) => plate.kind === "base");
  const inks = plates.filter((plate) => plate.kind === "spot");
  const largest = Math.max(0, ...plates.map((plate) => plate.coverage));
  const inkIds = inks.map((plate) => plate.id);
  return (
    <Panel>
      <Group title="Plates in print order">
        {!separation && <p role="status">Separating ...</p>}
        {separation && plates.length === 0 && <p>No inks: every colour is dropped or the garment's.</p>}
        {base && (
          <ul aria-label="Underbase">
            <PlateRow plate={base} largest={largest} choice={choice} plates={plates} grip={null} />
          </ul>
        )}
        <SortableGroups groups={[inkIds]} onMove={(id, toPlaceOf) => setOrder(moveInList(inkIds, id, toPlaceOf))}>
          {() => (
            <ol aria-label="Plates">
              {inks.map((plate) => (
                <SortablePlate key={plate.id} plate={plate} largest={largest} choice={choice} plates={plates} />
              ))}
            </ol>
          )}
        </SortableGroups>
        {plates.length > 0 && (
          <div className="mt-2 flex gap-2">
            <Button onClick={() => choice.setHidden(new Set())} disabled={choice.hidden.size === 0}>
              All on the table
            </Button>
            <Button onClick={() => setOrder([])} disabled={colours.order.length === 0}>
              Light to dark
            </Button>
          </div>
        )}
      </Group>
      <Group title="Trap">
        <MmField
          label="Trap width"
          valueMm={trapMm}
          min={0}
          max={3}
          hint="The lighter ink spreads under the darker one, only where two inks meet; thinner where a feature is thin"
          onChange={(mm) => edit((r) => screens.withSettings(r, { trapMm: mm }))}
        />
      </Group>
      <Group title="Underbase">
        <div className="py-1">
          <Choice label="Underbase" value={wanted.mode} options={BASE_MODES} onChange={(mode) => setBase({ mode })} />
        </div>
        {wanted.mode === "auto" && <p className="pb-1 text-xs text-soft">{saysOfGarment(artwork.garment)}</p>}
        <MmField
          label="Choke"
          valueMm={wanted.chokeMm}
          min={0}
          max={3}
          hint="How far the base stays inside bare garment; it runs on under darker inks, and gives way under thin ones"
          onChange={(chokeMm) => setBase({ chokeMm })}
        />
        <MmField
          label="Thinnest base"
          valueMm={wanted.thinnestMm}
          min={0}
          max={10}
          hint="What still prints: a choke leaves at least this"
          onChange={(thinnestMm) => setBase({ thinnestMm })}
        />
        {base && (
          <div className="mt-1">
            <p className="text-xs text-soft">White under:</p>
            {inks.map((plate) => (
              <label key={plate.id} className="flex items-center gap-2 py-0.5">
                <input
                  type="checkbox"
                  className="size-4 accent-ink"
                  checked={plate.isBased}
                  onChange={(event) => setBase({ decided: { ...wanted.decided, [plate.id]: event.target.checked } })}
                />
                {plate.name}
              </label>
            ))}
          </div>
        )}
        {base && <ThinBase places={thinBase} onPlace={onPlace} />}
      </Group>
    </Panel>
  );
}

/** What the rule decided, and by what. */
function saysOfGarment(garment: string): string {
  const rgb = parseHex(garment);
  const lightness = `L* ${Math.round(rgbToLab(rgb)[0])}`;
  return wantsBase(rgb)
    ? `The garment is dark (${lightness}): white goes under every ink that is lighter than it.`
    : `The garment is light (${lightness}): no white under the inks.`;
}

/** Where the base is thinner than prints: what lies on it may look dim. */
function ThinBase({ places, onPlace }: { places: readonly ThinPlace[]; onPlace: Props["onPlace"] }) {
  if (places.length === 0) return null;
  return (
    <div className="mt-2">
      <p className="text-xs text-soft">Too thin to print for sure:</p>
      <ul aria-label="Thin places of the base" className="mt-1 border border-rule bg-card">
        {places.slice(0, MOST_LISTED).map(({ x, y, widthMm, lengthMm }) => (
          <li key={`${x} ${y}`} className="border-t border-rule first:border-t-0">
            <button
              type="button"
              className="flex w-full gap-2 px-2 py-1 text-left hover:underline"
              title="Show it on the table"
              onClick={() => onPlace({ x, y })}
            >
              <span className="flex-1">Base</span>
              <span>{widthMm.toFixed(2)} mm</span>
              <span className="w-20 text-right text-xs text-soft">{lengthMm.toFixed(1)} mm long</span>
            </button>
          </li>
        ))}
      </ul>
      {places.length > MOST_LISTED && <p className="pt-1 text-xs text-soft">and {places.length - MOST_LISTED} more.</p>}
    </div>
  );
}

interface PlateProps {
  readonly plate: Plate;
  readonly plates: readonly Plate[];
  readonly largest: number;
  readonly choice: PlateChoice;
}

function SortablePlate(props: PlateProps) {
  const { row, grip } = useSortableRow(props.plate.id, `Move ${props.plate.name}`);
  return (
    <div {...row}>
      <PlateRow {...props} grip={grip} />
    </div>
  );
}

function PlateRow({ plate, plates, largest, choice, grip }: PlateProps & { grip: ReactNode }) {
  const isShown = !choice.hidden.has(plate.id);
  const isAlone = isShown && plates.every((other) => other.id === plate.id || choice.hidden.has(other.id));
  const toggle = () => {
    const hidden = new Set(choice.hidden);
    if (isShown) hidden.add(plate.id);
    else hidden.delete(plate.id);
    choice.setHidden(hidden);
  };
  return (
    <li
      aria-label={plate.name}
      className="grid grid-cols-[1rem_1.25rem_1fr_auto] items-center gap-x-2 border-t border-rule py-1.5"
    >
      <span>{grip}</span>
      <span className="text-right text-soft">{plate.order}</span>
      <span className="flex items-baseline gap-2">
        <span className="truncate font-semibold">{plate.name}</span>
        <span className="ml-auto text-xs text-soft">{percent(plate.coverage)}</span>
      </span>
      <span className="flex items-center gap-1">
        <button
          type="button"
          aria-pressed={isAlone}
          className="rounded-[3px] border border-rule bg-card px-1.5 text-xs leading-5 aria-pressed:bg-ink aria-pressed:text-white"
          onClick={() =>
            choice.setHidden(isAlone ? new Set() : new Set(plates.filter((p) => p.id !== plate.id).map((p) => p.id)))
          }
        >
          Alone
        </button>
        <input
          type="checkbox"
          aria-label={`${plate.name} on the table`}
          className="size-4 accent-ink"
          checked={isShown}
          onChange={toggle}
        />
      </span>
      <span className="col-span-2 col-start-3 mt-1">
        <InkStrip rgb={plate.rgb} share={plate.coverage} largest={largest} isFaint={!isShown} />
      </span>
    </li>
  );
}
