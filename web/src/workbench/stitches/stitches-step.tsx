// Stitches: cloth and hoop, threads in the order of sewing, how each area is sewn, and the plan at work.

import type { Warning } from "@plain-palette/core/checks";
import {
  chooseHoop,
  countPlan,
  FABRICS,
  type Fabric,
  readHoops,
  type SewnArea,
  type SewnChoice,
  type Stitches,
  stitches,
} from "@plain-palette/core/stitch";
import { useJob } from "../../job/use-job.ts";
import { Button } from "../../parts/button.tsx";
import { Choice } from "../../parts/choice.tsx";
import { count } from "../../parts/count.ts";
import { CheckField } from "../../parts/fields.tsx";
import { SelectField } from "../../parts/select-field.tsx";
import { moveInList, SortableGroups } from "../../parts/sortable.tsx";
import { useShop } from "../../shop/use-shop.ts";
import { SortableMadeRow, type TableChoice } from "../made-rows.tsx";
import { Fact, Group, Panel } from "../panel.tsx";
import { WarningList } from "../warning-list.tsx";
import type { AreaDesk } from "./area-desk.ts";
import { AreaList } from "./area-list.tsx";
import { waysOf } from "./area-tool.ts";
import { SewnSettings, saysOfArea } from "./sewn-settings.tsx";

const FABRIC_WORDS: Readonly<Record<Fabric, string>> = {
  woven: "Woven",
  knit: "Knit",
  fleece: "Fleece",
  towel: "Towel",
  cap: "Cap",
};

/** What is seen besides thread. */
export interface Shows {
  readonly hoop: boolean;
  readonly needles: boolean;
  readonly ways: boolean;
  readonly density: boolean;
}

interface Props {
  readonly made: Stitches | null;
  readonly warnings: readonly Warning[];
  readonly choice: TableChoice;
  readonly desk: AreaDesk;
  readonly shows: Shows;
  setShows(shows: Shows): void;
  onPlace(place: { readonly x: number; readonly y: number }): void;
}

export function StitchesStep({ made, warnings, choice, desk, shows, setShows, onPlace }: Props) {
  return (
    <Panel>
      <ClothGroup made={made} />
      {!made && <p role="status">Sewing ...</p>}
      {made && made.plan.colours.length === 0 && <p>Nothing is sewn: every colour is dropped or the garment's.</p>}
      {made && (
        <>
          <AreaGroup made={made} desk={desk} />
          <ThreadGroup made={made} choice={choice} />
          <Group title="On the table">
            <CheckField label="Hoop" isOn={shows.hoop} onChange={(hoop) => setShows({ ...shows, hoop })} />
            <CheckField
              label="Needle points"
              isOn={shows.needles}
              onChange={(needles) => setShows({ ...shows, needles })}
            />
            <CheckField
              label="Ways and jumps"
              hint="Green: sewn and hidden. Red: the needle jumps"
              isOn={shows.ways}
              onChange={(ways) => setShows({ ...shows, ways })}
            />
            <CheckField
              label="Density"
              hint="From pale to dark; red is closer than the cloth bears"
              isOn={shows.density}
              onChange={(density) => setShows({ ...shows, density })}
            />
          </Group>
          <CheckGroup warnings={warnings} onPlace={onPlace} />
        </>
      )}
    </Panel>
  );
}

function ClothGroup({ made }: { made: Stitches | null }) {
  const settings = useJob((state) => stitches.settingsIn(state.recipe));
  const edit = useJob((state) => state.edit);
  const set = (part: Partial<typeof settings>) => edit((r) => stitches.withSettings(r, part));
  const { fabric, hoop, machine } = settings;
  const laid = made && chooseHoop(made.plan.widthMm, made.plan.heightMm, settings);
  const size = laid ? `${laid.widthMm} x ${laid.heightMm} mm` : "";
  const own = laid && !laid.fits ? `None holds it; largest ${size}` : `Smallest that fits: ${size}`;
  return (
    <Group title="Cloth and hoop">
      <SelectField
        label="Cloth"
        value={fabric}
        options={FABRICS.map((value) => ({ value, text: FABRIC_WORDS[value] }))}
        onChange={(value) => set({ fabric: FABRICS.find((one) => one === value) })}
      />
      <SelectField
        label="Hoop"
        isWide
        value={hoop ? `${hoop.widthMm}x${hoop.heightMm}` : ""}
        options={[
          { value: "", text: hoop ? "Smallest that fits" : own },
          ...readHoops(machine.hoops).map(({ widthMm, heightMm }) => ({
            value: `${widthMm}x${heightMm}`,
            text: `${widthMm} x ${heightMm} mm`,
          })),
        ]}
        onChange={(value) => set({ hoop: value === "" ? null : (readHoops(value)[0] ?? null) })}
      />
      {laid?.isTurned && <p className="text-xs text-soft">The design lies in it turned by a quarter.</p>}
    </Group>
  );
}

function ThreadGroup({ made, choice }: { made: Stitches; choice: TableChoice }) {
  const settings = useJob((state) => stitches.settingsIn(state.recipe));
  const edit = useJob((state) => state.edit);
  const { settings: shop } = useShop();
  const { plan } = made;
  const counts = countPlan(plan, settings);
  const all = counts.stitches || 1;
  const items = counts.colours.map(({ spotId, name, stitches: own, threadM }, i) => ({
    ...{ id: spotId, name, order: i + 1, share: own / all, stitches: own, threadM },
    rgb: plan.colours.find((colour) => colour.spotId === spotId)?.rgb ?? ([0, 0, 0] as const),
  }));
  const ids = items.map(({ id }) => id);
  const setOrder = (order: readonly string[]) => edit((r) => stitches.withSettings(r, { order: [...order] }));
  return (
    <Group title="Threads in the order of sewing">
      <SortableGroups groups={[ids]} onMove={(id, toPlaceOf) => setOrder(moveInList(ids, id, toPlaceOf))}>
        {() => (
          <ol aria-label="Threads">
            {items.map((item) => (
              <SortableMadeRow key={item.id} item={item} all={items} choice={choice}>
                <p className="text-xs text-soft">
                  {count(item.stitches, "stitch", "stitches")}, {item.threadM.toFixed(1)} m
                </p>
              </SortableMadeRow>
            ))}
          </ol>
        )}
      </SortableGroups>
      <dl className="border-t border-rule pt-1.5" data-testid="stitch-counts">
        <Fact label="Stitches">{counts.stitches.toLocaleString("en")}</Fact>
        <Fact label="Changes, trims">
          {counts.changes}, {counts.trims}
        </Fact>
        <Fact label="At the machine">{counts.minutes.toFixed(0)} min</Fact>
        <Fact label="A piece">
          {shop.currency} {counts.price.toFixed(2)}
        </Fact>
        <Fact label="From the bobbin">{counts.bobbinM.toFixed(1)} m</Fact>
      </dl>
      <div className="mt-2 flex gap-2">
        <Button onClick={() => choice.setHidden(new Set())} disabled={choice.hidden.size === 0}>
          All on the table
        </Button>
        <Button onClick={() => setOrder([])} disabled={settings.order.length === 0}>
          Threads as proposed
        </Button>
      </div>
    </Group>
  );
}

/** How the chosen area is sewn, those of its thread, or all. */
function AreaGroup({ made, desk }: { made: Stitches; desk: AreaDesk }) {
  const { chosen, scope, setScope } = desk;
  const threads = made.plan.colours.map(({ spotId, name }) => ({ id: spotId, name }));
  const nameOf = (area: SewnArea) => threads.find(({ id }) => id === area.spotId)?.name ?? "this thread";
  const shown = chosen ?? made.areas.find(({ numbers }) => numbers.as !== "none") ?? null;
  if (!shown) return null;
  const scopes = [
    ...(chosen ? [{ value: "area" as const, text: "This area" }] : []),
    ...(chosen ? [{ value: "spot" as const, text: `All ${nameOf(chosen).toLowerCase()}` }] : []),
    { value: "all" as const, text: "Everything" },
  ];
  const at = chosen ? scope : "all";
  return (
    <Group title="How it is sewn">
      {chosen ? (
        <p aria-live="polite" className="pb-1">
          {nameOf(chosen)}: {saysOfArea(chosen)}.{" "}
          <span className="block text-xs text-soft" data-testid="area-ways">
            {saysOfWays(chosen)}
          </span>
        </p>
      ) : (
        <p className="pb-1 text-soft">Click an area on the table, or choose one below.</p>
      )}
      <div className="pb-1">
        <Choice label="What changes are for" value={at} options={scopes} onChange={setScope} />
      </div>
      <SewnSettings
        numbers={shown.numbers}
        choice={desk.choiceAt(at)}
        threads={threads}
        onChange={(part: Partial<SewnChoice>) => desk.decide(at, part)}
        onReset={() => desk.reset(at)}
      />
      <AreaList made={made} desk={desk} />
    </Group>
  );
}

/** Where the needle comes in and goes out, mm; the rings on the table move them. */
function saysOfWays(area: SewnArea): string {
  const [start, stop] = waysOf(area).map(({ x, y }) => `${x.toFixed(1)}, ${y.toFixed(1)}`);
  const whose = area.start || area.stop ? "" : ", as proposed";
  return `Needle in at ${start}, out at ${stop} mm${whose}`;
}

function CheckGroup({ warnings, onPlace }: Pick<Props, "warnings" | "onPlace">) {
  return (
    <Group title="Before you sew">
      {warnings.length === 0 && <p>Nothing that the machine or the cloth would not take.</p>}
      <WarningList warnings={warnings} onPlace={onPlace} />
    </Group>
  );
}
