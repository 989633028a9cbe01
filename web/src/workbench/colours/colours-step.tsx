// Colours: how many, which, what each is to the press, and which place is which.
import { processOf } from "@plain-palette/core/processes";
import { orderInks, type Spot } from "@plain-palette/core/reduce";
import { matchStock, referStock, SPOT_STOCK_KINDS, STOCK_WORDS, type StockKind } from "@plain-palette/core/shelf";
import type { RefObject } from "react";
import type { ReducedView } from "../../compute/messages.ts";
import type { Computed } from "../../compute/use-compute.ts";
import { useJob } from "../../job/use-job.ts";
import type { TableControls } from "../../light-table/use-table-view.ts";
import { Button } from "../../parts/button.tsx";
import { Choice } from "../../parts/choice.tsx";
import { SectionTabs } from "../../parts/section-tabs.tsx";
import { moveInList, SortableGroups } from "../../parts/sortable.tsx";
import { useEscape } from "../../parts/use-escape.ts";
import { useShop } from "../../shop/use-shop.ts";
import { Group, Panel } from "../panel.tsx";
import { setColours } from "../set-colours.ts";
import { AreasSection } from "./areas-section.tsx";
import { ChecksSection } from "./checks-section.tsx";
import { CountGroup } from "./count-group.tsx";
import { decideSpot } from "./edit-colours.ts";
import { type ChangePaintDesk, PAINT_SECTIONS, type PaintDesk, type PaintSection } from "./paint-desk.ts";
import { SpotRow } from "./spot-row.tsx";

interface Props {
  readonly computed: Computed;
  readonly desk: PaintDesk;
  readonly change: ChangePaintDesk;
  readonly table: RefObject<TableControls | null>;
}

const TITLES: Readonly<Record<PaintSection, string>> = { spots: "Spots", areas: "Areas", checks: "Checks" };

export function ColoursStep({ computed, desk, change, table }: Props) {
  useEscape(() => change({ tool: null, sketch: [] }));
  const { reduced } = computed;
  if (!reduced)
    return (
      <Panel>
        <p role="status">Looking for the colours ...</p>
      </Panel>
    );
  return (
    <Panel isDone={desk.tool === null}>
      <SectionTabs
        label="What to do with the colours"
        value={desk.section}
        sections={PAINT_SECTIONS.map((value) => ({ value, text: TITLES[value] }))}
        onChange={(section) => change({ section, tool: null, sketch: [] })}
      >
        {desk.section === "spots" && (
          <>
            <CountGroup reduced={reduced} />
            <SpotsGroup reduced={reduced} desk={desk} change={change} />
          </>
        )}
        {desk.section === "areas" && <AreasSection reduced={reduced} desk={desk} change={change} />}
        {desk.section === "checks" && <ChecksSection checks={computed.checks} spots={reduced.spots} table={table} />}
      </SectionTabs>
    </Panel>
  );
}

/** All spots, inks in print order first. */
function SpotsGroup({ reduced, desk, change }: { reduced: ReducedView } & Pick<Props, "desk" | "change">) {
  const order = useJob((state) => state.recipe.colours.order);
  const edit = useJob((state) => state.edit);
  const { spots } = reduced;
  const total = spots.reduce((sum, spot) => sum + spot.areaPx, 0) || 1;
  const largest = Math.max(...spots.map((spot) => spot.areaPx)) / total;
  const inks = orderInks(
    spots.filter(({ role }) => role === "ink"),
    order,
  );
  const others = spots.filter(({ role }) => role !== "ink");
  const ids = inks.map(({ id }) => id);
  const rowOf = (spot: Spot) => ({ spot, spots, share: spot.areaPx / total, largest, desk, change });
  const setOrder = (next: string[]) => edit((r) => setColours(r, { order: next }));
  return (
    <Group title="Spots in print order">
      <div className="flex items-center justify-between gap-2 pb-1.5">
        <span className="text-xs text-soft">Shelf of</span>
        <Choice
          label="Shelf of"
          isSmall
          value={desk.stockKind}
          options={SPOT_STOCK_KINDS.map((value) => ({ value, text: STOCK_WORDS[value].many }))}
          onChange={(stockKind) => change({ stockKind })}
        />
      </div>
      <SortableGroups groups={[ids]} onMove={(id, toPlaceOf) => setOrder(moveInList(ids, id, toPlaceOf))}>
        {() => (
          <ul aria-label="Spots">
            {[...inks, ...others].map((spot) => (
              <SpotRow key={spot.id} {...rowOf(spot)} />
            ))}
          </ul>
        )}
      </SortableGroups>
      <MatchAll spots={inks} kind={desk.stockKind} />
      <WaitingDecisions spots={spots} />
    </Group>
  );
}

/** Takes from the shelf whatever is the same colour within the shop's limit. */
function MatchAll({ spots, kind }: { spots: readonly Spot[]; kind: StockKind }) {
  const decided = useJob((state) => state.recipe.colours.decided);
  const edit = useJob((state) => state.edit);
  const { shelf, settings } = useShop();
  const limits = { same: settings.sameDifference, near: settings.nearDifference };
  const found = spots.flatMap((spot) => {
    const { process, stock } = decided[spot.id] ?? {};
    const wanted = process ? processOf(process).stock : kind;
    // What was taken for another way of making it is of no use for this one.
    if (stock?.kind === wanted) return [];
    const best = matchStock(stock ? spot.pictureRgb : spot.rgb, shelf, wanted, limits)[0];
    return best?.verdict === "same" ? [{ spot, best }] : [];
  });
  if (found.length === 0) return null;
  return (
    <Button
      className="mt-1"
      title={`Within ΔE ${limits.same}, the shop's limit`}
      onClick={() =>
        edit((r) =>
          found.reduce(
            (next, { spot, best }) => decideSpot(next, spot.id, { stock: referStock(best.stock, best.difference) }),
            r,
          ),
        )
      }
    >
      Take the {found.length} that the shelf has
    </Button>
  );
}

/** What was decided on colours that this picture does not have: it waits for a picture that has them, or is forgotten. */
function WaitingDecisions({ spots }: { spots: readonly Spot[] }) {
  const decided = useJob((state) => state.recipe.colours.decided);
  const edit = useJob((state) => state.edit);
  const here = new Set(spots.flatMap(({ id, members }) => [id, ...members]));
  const waiting = Object.keys(decided).filter((id) => !here.has(id));
  if (waiting.length === 0) return null;
  const forget = () =>
    edit((r) =>
      setColours(r, { decided: Object.fromEntries(Object.entries(r.colours.decided).filter(([id]) => here.has(id))) }),
    );
  return (
    <div role="note" className="mt-2 text-xs text-soft">
      <p>
        What you decided on {waiting.map((id) => decided[id]?.name ?? `#${id}`).join(", ")} waits: this picture does not
        have {waiting.length === 1 ? "that colour" : "those colours"}.
      </p>
      <button type="button" className="underline" onClick={forget}>
        Forget it
      </button>
    </div>
  );
}
