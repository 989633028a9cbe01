// The areas of one thread in the order of sewing, to be chosen and moved.
import type { SewnArea, Stitches, StitchPlan } from "@plain-palette/core/stitch";
import { useMemo, useState } from "react";
import { Button } from "../../parts/button.tsx";
import { SelectField } from "../../parts/select-field.tsx";
import { moveInList, SortableGroups, useSortableRow } from "../../parts/sortable.tsx";
import type { AreaDesk } from "./area-desk.ts";
import { saysOfArea } from "./sewn-settings.tsx";

/** Areas listed at most: who has more moves the first of them. */
const MOST_LISTED = 40;

export function AreaList({ made, desk }: { made: Stitches; desk: AreaDesk }) {
  const { plan, areas } = made;
  const [listed, setListed] = useState<string | null>(null);
  // The thread of the area that is chosen; else the one that was asked for.
  const spotId = desk.chosen?.spotId ?? listed ?? plan.colours[0]?.spotId;
  const order = useMemo(() => sewingOrder(plan, areas, spotId), [plan, areas, spotId]);
  const ids = order.map(({ face }) => String(face));
  return (
    <div className="pt-2">
      <SelectField
        label="Area by area"
        value={spotId ?? ""}
        options={plan.colours.map((colour) => ({ value: colour.spotId, text: colour.name }))}
        onChange={(id) => {
          desk.choose(null);
          setListed(id);
        }}
      />
      <SortableGroups
        groups={[ids]}
        onMove={(id, toPlaceOf) => desk.setSequence(moveInList(ids, id, toPlaceOf).map(Number))}
      >
        {() => (
          <ol aria-label="Areas in the order of sewing" className="max-h-56 overflow-y-auto">
            {order.slice(0, MOST_LISTED).map((area, i) => (
              <AreaRow key={area.face} area={area} number={i + 1} desk={desk} />
            ))}
          </ol>
        )}
      </SortableGroups>
      {order.length > MOST_LISTED && <p className="text-xs text-soft">and {order.length - MOST_LISTED} more</p>}
      {order.some(({ turn }) => turn !== null) && (
        <Button className="mt-1" onClick={() => desk.setSequence([])}>
          Order as proposed
        </Button>
      )}
    </div>
  );
}

function AreaRow({ area, number, desk }: { area: SewnArea; number: number; desk: AreaDesk }) {
  const { row, grip } = useSortableRow(String(area.face), `Move area ${number}`);
  const isChosen = desk.chosen?.face === area.face;
  return (
    <li {...row} className="flex items-center gap-1.5 border-t border-rule py-1">
      {grip}
      <span className="w-5 text-right text-soft">{number}</span>
      <button
        type="button"
        aria-pressed={isChosen}
        className={`flex-1 truncate text-left ${isChosen ? "font-semibold" : ""}`}
        onClick={() => desk.choose(isChosen ? null : area.face)}
      >
        {saysOfArea(area)}
      </button>
    </li>
  );
}

/** Areas of one thread, as the plan comes to them. */
function sewingOrder(plan: StitchPlan, areas: readonly SewnArea[], spotId: string | undefined): SewnArea[] {
  const found = new Set<SewnArea>();
  plan.area.forEach((i) => {
    const area = i >= 0 ? areas[i] : undefined;
    if (area && area.spotId === spotId) found.add(area);
  });
  return [...found];
}
