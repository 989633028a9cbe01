// Stones: gaps, how each area is set, what was done by hand, and how many of which there are.
import type { ThinPlace, Warning } from "@plain-palette/core/checks";
import { formatHex } from "@plain-palette/core/colour";
import { chosenStock } from "@plain-palette/core/recipe";
import type { Spot } from "@plain-palette/core/reduce";
import {
  countOf,
  gapsOf,
  STONE_LIMITS,
  type StoneSettings,
  type Stones,
  stoneName,
  stones,
} from "@plain-palette/core/stone";
import { useJob } from "../../job/use-job.ts";
import { Choice } from "../../parts/choice.tsx";
import { CheckField, MmField } from "../../parts/fields.tsx";
import { SelectField } from "../../parts/select-field.tsx";
import { useShop } from "../../shop/use-shop.ts";
import { Group, Panel } from "../panel.tsx";
import { ThinList } from "../thin-list.tsx";
import { WarningList } from "../warning-list.tsx";
import { HandGroup } from "./hand-group.tsx";
import { SetSettings, saysOfSetArea } from "./set-settings.tsx";
import type { StoneDesk } from "./stone-desk.ts";

/** How much of a stone may lie over the design's edge, as it is offered. */
const OVER = [
  { value: "0.5", text: "Half a stone: on the line" },
  { value: "0.25", text: "A quarter" },
  { value: "0", text: "Nothing" },
];

/** Places listed at most, the narrowest first. */
const MOST_THIN = 8;

/** What is seen besides stones. */
export interface Shows {
  readonly gaps: boolean;
  readonly shapes: boolean;
}

interface Props {
  readonly made: Stones | null;
  readonly spots: readonly Spot[];
  readonly warnings: readonly Warning[];
  /** What no stone is small enough for. */
  readonly thin: readonly ThinPlace[];
  readonly hidden: ReadonlySet<string>;
  setHidden(hidden: ReadonlySet<string>): void;
  readonly desk: StoneDesk;
  readonly shows: Shows;
  setShows(shows: Shows): void;
  onPlace(place: { readonly x: number; readonly y: number }): void;
}

export function StonesStep({ made, spots, warnings, thin, hidden, setHidden, desk, shows, setShows, onPlace }: Props) {
  return (
    <Panel>
      <GapGroup />
      {!made && <p role="status">Setting stones ...</p>}
      {made && made.areas.length === 0 && <p>Nothing is set: every colour is dropped or the garment's.</p>}
      {made && made.areas.length > 0 && (
        <>
          <AreaGroup made={made} spots={spots} desk={desk} />
          <HandGroup
            made={made}
            desk={desk}
            spots={spots.filter(({ id }) => made.areas.some((a) => a.spotId === id))}
          />
          <CountGroup made={made} spots={spots} hidden={hidden} setHidden={setHidden} />
          <Group title="On the table">
            <CheckField
              label="Gaps"
              hint="Green: even. Amber: too wide. Red: too near"
              isOn={shows.gaps}
              onChange={(gaps) => setShows({ ...shows, gaps })}
            />
            <CheckField
              label="Shapes under them"
              isOn={shows.shapes}
              onChange={(shapes) => setShows({ ...shows, shapes })}
            />
          </Group>
          <Group title="Before you set">
            {warnings.length === 0 && <p>Nothing that the shelf or the eye would miss.</p>}
            <WarningList warnings={warnings} onPlace={onPlace} />
            <ThinList
              label="Too small for stones"
              places={thin}
              most={MOST_THIN}
              of={({ spotId }) => {
                const spot = spots.find(({ id }) => id === spotId);
                return { name: spot?.name ?? "", rgb: spot?.rgb ?? null };
              }}
              onPlace={onPlace}
            />
          </Group>
        </>
      )}
    </Panel>
  );
}

function GapGroup() {
  const settings = useJob((state) => stones.settingsIn(state.recipe));
  const edit = useJob((state) => state.edit);
  const set = (part: Partial<StoneSettings>) => edit((r) => stones.withSettings(r, part));
  return (
    <Group title="Gap and edge">
      <MmField
        label="Gap"
        valueMm={gapsOf(settings).gapMm}
        {...STONE_LIMITS.gapMm}
        hint={`From edge to edge; never under the shop's ${settings.shop.leastMm} mm`}
        onChange={(gapMm) => set({ gapMm })}
      />
      <SelectField
        label="Over the edge"
        isWide
        value={String(settings.overShare)}
        options={OVER}
        onChange={(value) => set({ overShare: Number(value) })}
      />
    </Group>
  );
}

/** How the chosen area is set, those of its spot, or all. */
function AreaGroup({ made, spots, desk }: { made: Stones; spots: readonly Spot[]; desk: StoneDesk }) {
  const { chosen, scope, setScope } = desk;
  const nameOf = (spotId: string) => spots.find(({ id }) => id === spotId)?.name ?? "this colour";
  const shown = chosen ?? made.areas.find(({ numbers }) => numbers.as !== "none") ?? made.areas[0];
  if (!shown) return null;
  const scopes = [
    ...(chosen ? [{ value: "area" as const, text: "This area" }] : []),
    ...(chosen ? [{ value: "spot" as const, text: `All ${nameOf(chosen.spotId).toLowerCase()}` }] : []),
    { value: "all" as const, text: "Everything" },
  ];
  const at = chosen ? scope : "all";
  return (
    <Group title="How it is set">
      {chosen ? (
        <p aria-live="polite" className="pb-1">
          {nameOf(chosen.spotId)}: {saysOfSetArea(chosen)}.
        </p>
      ) : (
        <p className="pb-1 text-soft">Click an area on the table, or choose one here.</p>
      )}
      <AreaField made={made} nameOf={nameOf} desk={desk} />
      <div className="py-1">
        <Choice label="What changes are for" value={at} options={scopes} onChange={setScope} />
      </div>
      <SetSettings
        numbers={shown.numbers}
        choice={desk.choiceAt(at)}
        onChange={(part) => desk.decide(at, part)}
        onReset={() => desk.reset(at)}
      />
    </Group>
  );
}

/** Areas listed at most, the largest first. */
const MOST_LISTED = 60;

/** Areas by name, for who has no pointer. */
function AreaField({ made, nameOf, desk }: { made: Stones; nameOf(spotId: string): string; desk: StoneDesk }) {
  const bySize = [...made.areas].sort((one, other) => other.areaMm2 - one.areaMm2).slice(0, MOST_LISTED);
  return (
    <SelectField
      label="Area"
      value={desk.chosen ? String(desk.chosen.face) : ""}
      options={[
        { value: "", text: "None" },
        ...bySize.map((area) => ({
          value: String(area.face),
          text: `${nameOf(area.spotId)}: ${saysOfSetArea(area)}`,
        })),
      ]}
      onChange={(face) => {
        desk.choose(face === "" ? null : Number(face));
        desk.setScope("area");
      }}
    />
  );
}

function CountGroup({
  made,
  spots,
  hidden,
  setHidden,
}: Pick<Props, "hidden" | "setHidden"> & { made: Stones; spots: readonly Spot[] }) {
  const recipe = useJob((state) => state.recipe);
  const { settings: shop } = useShop();
  const { pieces } = recipe.colours;
  const stock = chosenStock(recipe);
  const counts = countOf(made, { spots, stock, pieces }, stones.settingsIn(recipe));
  const all = counts.reduce((sum, { count }) => sum + count, 0);
  const prices = counts.map(({ price }) => price ?? 0);
  const price = prices.reduce((sum, one) => sum + one, 0);
  const toggle = (spotId: string) => {
    const next = new Set(hidden);
    if (next.has(spotId)) next.delete(spotId);
    else next.add(spotId);
    setHidden(next);
  };
  return (
    <Group title="Stones by size and colour">
      <table className="w-full" data-testid="stone-counts">
        <thead className="text-left text-xs text-soft">
          <tr>
            <th scope="col" className="font-normal">
              <span className="sr-only">On the table</span>
            </th>
            <th scope="col" className="font-normal">
              Stone
            </th>
            <th scope="col" className="font-normal">
              Size
            </th>
            <th scope="col" className="text-right font-normal">
              A piece
            </th>
            <th scope="col" className="text-right font-normal" title="For all pieces, with losses">
              Needed
            </th>
            <th scope="col" className="text-right font-normal">
              Shelf
            </th>
          </tr>
        </thead>
        <tbody>
          {counts.map(({ spotId, size, count, needed, kept, isKept }) => {
            const name = stoneName({ spots, stock }, spotId);
            const rgb = spots.find(({ id }) => id === spotId)?.rgb;
            const isShort = !isKept || (kept !== null && kept < needed);
            return (
              <tr key={`${spotId} ${size}`} className="border-t border-rule">
                <td className="w-5 py-0.5">
                  <input
                    type="checkbox"
                    aria-label={`${name} in ${size} on the table`}
                    checked={!hidden.has(spotId)}
                    onChange={() => toggle(spotId)}
                  />
                </td>
                <td className="max-w-0 w-1/3">
                  <span className="flex items-center gap-1">
                    <span
                      className="size-2.5 shrink-0 rounded-full border border-soft/50"
                      style={{ background: rgb && formatHex(rgb) }}
                    />
                    <span className="truncate" title={name}>
                      {name}
                    </span>
                  </span>
                </td>
                <td>{size}</td>
                <td className="text-right">{count.toLocaleString("en")}</td>
                <td className="text-right">{needed.toLocaleString("en")}</td>
                <td className={`text-right ${isShort ? "font-semibold text-wrong" : ""}`}>
                  {kept?.toLocaleString("en") ?? (isKept ? "–" : "none")}
                </td>
              </tr>
            );
          })}
        </tbody>
        <tfoot>
          <tr className="border-t border-rule font-semibold">
            <td />
            <td colSpan={2}>All</td>
            <td className="text-right" data-testid="stones-in-all">
              {all.toLocaleString("en")}
            </td>
            <td className="text-right" colSpan={2}>
              {shop.currency} {price.toFixed(2)}
            </td>
          </tr>
        </tfoot>
      </table>
      <p className="pt-1 text-xs text-soft">
        Needed: {pieces} {pieces === 1 ? "piece" : "pieces"}, {stones.settingsIn(recipe).shop.lossPercent} % lost on the
        way; a piece costs {shop.currency} {(price / pieces).toFixed(2)} in stones.
      </p>
    </Group>
  );
}
