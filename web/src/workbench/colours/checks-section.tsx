// What will not come out as meant, each with its place and its measure.

import type { Spot } from "@plain-palette/core/reduce";
import { LEAST_SHADING } from "@plain-palette/core/trade";
import type { RefObject } from "react";
import type { ChecksView } from "../../compute/messages.ts";
import { useJob } from "../../job/use-job.ts";
import type { TableControls } from "../../light-table/use-table-view.ts";
import { useThinLimits } from "../../shop/use-shop.ts";
import { Group } from "../panel.tsx";
import { ThinList } from "../thin-list.tsx";

interface Props {
  readonly checks: ChecksView | null;
  readonly spots: readonly Spot[];
  readonly table: RefObject<TableControls | null>;
}

/** Places listed at most; the rest are counted. */
const MOST_LISTED = 40;

export function ChecksSection({ checks, spots, table }: Props) {
  const { lineMm, gapMm } = useThinLimits(useJob((state) => state.recipe.process));
  if (!checks) return <p role="status">Measuring ...</p>;
  const nameOf = (id: string | null) => spots.find((spot) => spot.id === id)?.name ?? "Open garment";
  const { thin, near, shading } = checks;
  return (
    <>
      <Group title="Thinner than can be made at this size">
        <p className="text-xs text-soft">
          Lines under {lineMm} mm and gaps under {gapMm} mm, the shop's limits.
        </p>
        {thin.length === 0 && <p className="pt-1">Nothing is.</p>}
        <ThinList
          label="Thin places"
          places={thin}
          most={MOST_LISTED}
          of={({ spotId }) => {
            const spot = spots.find(({ id }) => id === spotId);
            return { name: spot?.name ?? "Gap", rgb: spot?.rgb ?? null };
          }}
          onPlace={({ x, y }) => table.current?.showPlace(x, y)}
        />
      </Group>
      <Group title="Nearly the same">
        {near.length === 0 && <p>No two inks are.</p>}
        <ul aria-label="Near inks">
          {near.map(({ a, b, difference }) => (
            <li key={`${a} ${b}`}>
              {nameOf(a)} and {nameOf(b)}: ΔE {difference.toFixed(1)}
            </li>
          ))}
        </ul>
      </Group>
      <Group title="Shading">
        <p>
          {shading < LEAST_SHADING
            ? "Flat spots carry all of the picture."
            : `${(shading * 100).toFixed(1)} % of the picture shades away from its flat spots: its gradients will show as steps.`}
        </p>
      </Group>
    </>
  );
}
