// Separations: plates in print order, trap, underbase, and any set of them on the table.
import type { ThinPlace } from "@plain-palette/core/checks";
import { parseHex, rgbToLab } from "@plain-palette/core/colour";
import { type Plate, screens, wantsBase } from "@plain-palette/core/screens";
import type { Computed } from "../../compute/use-compute.ts";
import { useJob } from "../../job/use-job.ts";
import { Button } from "../../parts/button.tsx";
import { Choice } from "../../parts/choice.tsx";
import { MmField } from "../../parts/fields.tsx";
import { moveInList, SortableGroups } from "../../parts/sortable.tsx";
import { MadeRow, SortableMadeRow, type TableChoice } from "../made-rows.tsx";
import { Group, Panel } from "../panel.tsx";
import { setColours } from "../set-colours.ts";
import { ThinList } from "../thin-list.tsx";

const BASE_MODES = [
  { value: "auto", text: "By garment", title: "On dark garments" },
  { value: "on", text: "On" },
  { value: "off", text: "Off" },
] as const;

interface Props {
  readonly computed: Computed;
  readonly choice: TableChoice;
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
  const thinBase = computed.made?.find((made) => made.process === screens.id)?.report?.thin ?? [];
  const plates = separation?.plates ?? [];
  const base = plates.find((plate) => plate.kind === "base");
  const inks = plates.filter((plate) => plate.kind === "spot");
  const items = plates.map((plate) => ({ ...plate, share: plate.coverage }));
  const inkIds = inks.map((plate) => plate.id);
  return (
    <Panel>
      <Group title="Plates in print order">
        {!separation && <p role="status">Separating ...</p>}
        {separation && plates.length === 0 && <p>No inks: every colour is dropped or the garment's.</p>}
        {base && (
          <ul aria-label="Underbase">
            <MadeRow item={{ ...base, share: base.coverage }} all={items} choice={choice} grip={null} />
          </ul>
        )}
        <SortableGroups groups={[inkIds]} onMove={(id, toPlaceOf) => setOrder(moveInList(inkIds, id, toPlaceOf))}>
          {() => (
            <ol aria-label="Plates">
              {items
                .filter(({ kind }) => kind === "spot")
                .map((item) => (
                  <SortableMadeRow key={item.id} item={item} all={items} choice={choice} />
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
                  checked={plate.isBased}
                  onChange={(event) => setBase({ decided: { ...wanted.decided, [plate.id]: event.target.checked } })}
                />
                {plate.name}
              </label>
            ))}
          </div>
        )}
        {base && <ThinBase base={base} places={thinBase} onPlace={onPlace} />}
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
function ThinBase({ base, places, onPlace }: ThinBaseProps) {
  if (places.length === 0) return null;
  return (
    <div className="mt-2">
      <p className="text-xs text-soft">Too thin to print for sure:</p>
      <ThinList
        label="Thin places of the base"
        places={places}
        most={MOST_LISTED}
        of={() => ({ name: "Base", rgb: base.rgb })}
        onPlace={onPlace}
      />
    </div>
  );
}

interface ThinBaseProps extends Pick<Props, "onPlace"> {
  readonly base: Plate;
  readonly places: readonly ThinPlace[];
}
