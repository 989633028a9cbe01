// What will not come out as meant, each with its place and its measure.

import type { ThinPlace } from "@plain-palette/core/checks";
import { formatHex } from "@plain-palette/core/colour";
import type { Spot } from "@plain-palette/core/reduce";
import { LEAST_SHADING } from "@plain-palette/core/trade";
import type { RefObject } from "react";
import type { ChecksView } from "../../compute/messages.ts";
import type { TableControls } from "../../light-table/use-table-view.ts";
import { useShop } from "../../shop/use-shop.ts";
import { Group } from "../panel.tsx";

interface Props {
  readonly checks: ChecksView | null;
  readonly spots: readonly Spot[];
  readonly table: RefObject<TableControls | null>;
}

/** Places listed at most; the rest are counted. */
const MOST_LISTED = 40;

export function ChecksSection({ checks, spots, table }: Props) {
  const { settings } = useShop();
  if (!checks) return <p role="status">Measuring ...</p>;
  const nameOf = (id: string | null) => spots.find((spot) => spot.id === id)?.name ?? "Open garment";
  const { thin, near, shading } = checks;
  return (
    <>
      <Group title="Thinner than prints at this size">
        <p className="text-xs text-soft">
          Lines under {settings.thinnestLineMm} mm and gaps under {settings.thinnestGapMm} mm, the shop's limits.
        </p>
        {thin.length === 0 && <p className="pt-1">Nothing is.</p>}
        {thin.length > 0 && (
          <ul aria-label="Thin places" className="mt-1 border border-rule bg-card">
            {thin.slice(0, MOST_LISTED).map((place) => (
              <ThinRow
                key={`${place.spotId} ${place.x} ${place.y}`}
                place={place}
                spot={spots.find(({ id }) => id === place.spotId) ?? null}
                onShow={() => table.current?.showPlace(place.x, place.y)}
              />
            ))}
          </ul>
        )}
        {thin.length > MOST_LISTED && (
          <p className="pt-1 text-xs text-soft">and {thin.length - MOST_LISTED} more; all are marked on the table.</p>
        )}
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

function ThinRow({ place, spot, onShow }: { place: ThinPlace; spot: Spot | null; onShow(): void }) {
  return (
    <li className="border-t border-rule first:border-t-0">
      <button
        type="button"
        className="flex w-full items-center gap-2 px-2 py-1 text-left hover:underline"
        title="Show it on the table"
        onClick={onShow}
      >
        <span
          className="size-3 shrink-0 border border-soft/50"
          style={{ background: spot ? formatHex(spot.rgb) : "transparent" }}
        />
        <span className="min-w-0 flex-1 truncate">{spot ? spot.name : "Gap"}</span>
        <span>{place.widthMm.toFixed(2)} mm</span>
        <span className="w-20 text-right text-xs text-soft">{place.lengthMm.toFixed(1)} mm long</span>
      </button>
    </li>
  );
}
