// Layers: film in press order, how each meets those over it, and what does not cut or weed.
import type { ThinPlace } from "@plain-palette/core/checks";
import { MOST_FILMS } from "@plain-palette/core/trade";
import {
  LAYER_MODES,
  type Layer,
  type Layering,
  type LayerMode,
  TRANSFER_LIMITS,
  type TransferSettings,
  transfer,
} from "@plain-palette/core/transfer";
import type { ReactNode } from "react";
import { useJob } from "../../job/use-job.ts";
import { Button } from "../../parts/button.tsx";
import { Choice } from "../../parts/choice.tsx";
import { count } from "../../parts/count.ts";
import { CheckField, MmField } from "../../parts/fields.tsx";
import { moveInList, SortableGroups } from "../../parts/sortable.tsx";
import { SortableMadeRow, type TableChoice } from "../made-rows.tsx";
import { Group, Panel } from "../panel.tsx";
import { ThinList } from "../thin-list.tsx";
import { PrintedSettings } from "./printed-settings.tsx";

const MODES = {
  flush: { text: "Flush", title: "Edge to edge with what is pressed over it" },
  lapped: { text: "Lapped", title: "Runs on under what is pressed over it, by the lap" },
  solid: { text: "Solid", title: "Whole under all that it goes round: more film, never a gap" },
} as const satisfies Record<LayerMode, { text: string; title: string }>;

const WAYS = [
  { value: "layers", text: "In layers", title: "A sheet of coloured film for each spot, pressed one on the other" },
  { value: "printed", text: "In one piece", title: "Printed on white film and cut round" },
] as const;

/** What a place is called beside its layer's name. */
const KINDS: Readonly<Record<string, string>> = { strip: "Strip", "film gap": "Gap", island: "Island" };

/** Places listed at most. */
const MOST_LISTED = 30;

interface Props {
  readonly layering: Layering | null;
  /** Null until it is measured. */
  readonly thin: readonly ThinPlace[] | null;
  readonly choice: TableChoice;
  /** The view in which film moves. */
  readonly movement: ReactNode;
  /** Shows a place of the art on the table, upright pixels. */
  onPlace(place: { readonly x: number; readonly y: number }): void;
}

export function LayersStep({ layering, thin, choice, movement, onPlace }: Props) {
  const { lapMm, order, decided, limits, thickensStrips, givesIslands, printed } = useJob((state) =>
    transfer.settingsIn(state.recipe),
  );
  const edit = useJob((state) => state.edit);
  const set = (part: Parameters<typeof transfer.withSettings>[1]) => edit((r) => transfer.withSettings(r, part));
  const layers = layering?.layers ?? [];
  const ids = layers.map(({ spotId }) => spotId);
  const items = layers.map((layer) => ({ ...layer, id: layer.spotId, share: shareOf(layer, layering) }));
  const decide = (id: string, mode: LayerMode) => set({ decided: { ...decided, [id]: { ...decided[id], mode } } });
  const setPrinted = (part: Partial<typeof printed>) => set({ printed: { ...printed, ...part } });
  const way = (
    <Group title="Film">
      <Choice
        label="How film is made"
        value={printed.isWanted ? "printed" : "layers"}
        options={WAYS}
        onChange={(value) => setPrinted({ isWanted: value === "printed" })}
      />
    </Group>
  );
  if (printed.isWanted)
    return (
      <Panel>
        {way}
        <PrintedSettings printed={printed} onChange={setPrinted} />
      </Panel>
    );
  return (
    <Panel>
      {way}
      <Group title="Layers in press order">
        {!layering && <p role="status">Laying film over film ...</p>}
        {layering && layers.length === 0 && <p>No film: every colour is dropped or the garment's.</p>}
        <SortableGroups groups={[ids]} onMove={(id, toPlaceOf) => set({ order: moveInList(ids, id, toPlaceOf) })}>
          {() => (
            <ol aria-label="Layers">
              {items.map((item) => (
                <SortableMadeRow key={item.id} item={item} all={items} choice={choice}>
                  <LayerLine layer={item} onMode={(mode) => decide(item.id, mode)} />
                </SortableMadeRow>
              ))}
            </ol>
          )}
        </SortableGroups>
        {layering && layers.length > 0 && (
          <p className="border-t border-rule pt-1.5 text-xs text-soft">
            {layering.stack.most === 1
              ? "No whole film lies on another."
              : `Up to ${layering.stack.most} films lie on each other${layering.stack.most > MOST_FILMS ? "; that feels stiff" : ""}.`}
          </p>
        )}
        {layers.length > 0 && (
          <div className="mt-2 flex gap-2">
            <Button onClick={() => choice.setHidden(new Set())} disabled={choice.hidden.size === 0}>
              All on the table
            </Button>
            <Button
              onClick={() => set({ order: [], decided: withoutModes(decided) })}
              disabled={order.length === 0 && Object.values(decided).every(({ mode }) => mode === undefined)}
            >
              As proposed
            </Button>
          </div>
        )}
      </Group>
      <Group title="Lap">
        <MmField
          label="Lap width"
          valueMm={lapMm}
          {...TRANSFER_LIMITS.lapMm}
          hint="A lapped layer runs on under the next by this much, only where film really lies over it"
          onChange={(mm) => set({ lapMm: mm })}
        />
      </Group>
      <Group title="What does not cut or weed">
        <CheckField
          label={`Thicken strips to ${limits.stripMm} mm`}
          hint={
            layering && thickensStrips ? saysOfThickened(layering) : "Where film is too thin to cut, and nowhere else"
          }
          isOn={thickensStrips}
          onChange={(isOn) => set({ thickensStrips: isOn })}
        />
        <CheckField
          label={`Give islands under ${limits.islandMm} mm to the film beside them`}
          hint={
            layering && givesIslands
              ? `${count(layering.given.length, "island")} given away, ringed on the table`
              : null
          }
          isOn={givesIslands}
          onChange={(isOn) => set({ givesIslands: isOn })}
        />
        {thin === null && <p role="status">Measuring ...</p>}
        {thin?.length === 0 && <p>Everything cuts and weeds.</p>}
        <ThinList
          label="Places that do not cut or weed"
          places={thin ?? []}
          most={MOST_LISTED}
          of={({ kind, spotId }) => {
            const layer = layers.find((one) => one.spotId === spotId);
            return { name: `${KINDS[kind] ?? kind}, ${layer?.name}`, rgb: layer?.rgb ?? null };
          }}
          onPlace={onPlace}
        />
      </Group>
      {movement}
    </Panel>
  );
}

/** How a layer meets those over it, and what it takes of film. */
function LayerLine({ layer, onMode }: { layer: Layer; onMode(mode: LayerMode): void }) {
  const { name, mode, proposedMode, areaMm2, underMm2, pieces } = layer;
  const options = LAYER_MODES.map((value) => ({
    ...{ value, text: MODES[value].text },
    title: `${MODES[value].title}${value === proposedMode ? "; proposed" : ""}`,
  }));
  return (
    <div className="flex items-center justify-between gap-2 pt-1">
      <Choice label={`How ${name} meets what lies over it`} value={mode} options={options} onChange={onMode} isSmall />
      <p
        className="text-right text-xs leading-4 text-soft"
        title={underMm2 >= 1 ? `${cm2(underMm2)} of it lies under other film` : undefined}
      >
        {cm2(areaMm2)} <span className="block">{count(pieces, "piece")}</span>
      </p>
    </div>
  );
}

/** What was decided on layers besides how they meet what lies over them. */
function withoutModes(decided: TransferSettings["decided"]): TransferSettings["decided"] {
  return Object.fromEntries(Object.entries(decided).map(([id, { mode: _, ...rest }]) => [id, rest]));
}

function saysOfThickened({ layers }: Layering): string {
  const names = layers.filter(({ thickened }) => thickened.length > 0).map(({ name }) => name);
  return names.length > 0 ? `Changed, outlined on the table: ${names.join(", ")}` : "Nothing was too thin";
}

function shareOf({ areaMm2 }: Layer, layering: Layering | null): number {
  if (!layering) return 0;
  const { widthPx, heightPx, mmPerPx } = layering;
  return areaMm2 / (widthPx * heightPx * mmPerPx * mmPerPx);
}

const cm2 = (mm2: number) => `${(mm2 / 100).toFixed(mm2 < 1000 ? 1 : 0)} cm²`;
