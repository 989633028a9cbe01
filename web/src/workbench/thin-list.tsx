// Places that are thinner than can be made, each with its measure and the way to it.
import type { ThinPlace } from "@plain-palette/core/checks";
import { formatHex, type Rgb } from "@plain-palette/core/colour";
import type { Point } from "@plain-palette/core/raster";

interface Props {
  readonly label: string;
  readonly places: readonly ThinPlace[];
  /** Listed at most; the rest are counted. */
  readonly most: number;
  /** What a place is of; no colour: of nothing that has one. */
  of(place: ThinPlace): { readonly name: string; readonly rgb: Rgb | null };
  /** Shows a place of the art on the table, upright pixels. */
  onPlace(place: Point): void;
}

export function ThinList({ label, places, most, of, onPlace }: Props) {
  if (places.length === 0) return null;
  return (
    <>
      <ul aria-label={label} className="mt-1 border border-rule bg-card">
        {places.slice(0, most).map((place) => {
          const { name, rgb } = of(place);
          return (
            <li
              key={`${place.kind} ${place.spotId} ${place.x} ${place.y}`}
              className="border-t border-rule first:border-t-0"
            >
              <button
                type="button"
                className="flex w-full items-center gap-2 px-2 py-1 text-left hover:underline"
                title="Show it on the table"
                onClick={() => onPlace(place)}
              >
                <span
                  className="size-3 shrink-0 border border-soft/50"
                  style={{ background: rgb ? formatHex(rgb) : "transparent" }}
                />
                <span className="min-w-0 flex-1 truncate">{name}</span>
                <span>{place.widthMm.toFixed(2)} mm</span>
                <span className="w-20 text-right text-xs text-soft">{place.lengthMm.toFixed(1)} mm long</span>
              </button>
            </li>
          );
        })}
      </ul>
      {places.length > most && (
        <p className="pt-1 text-xs text-soft">and {places.length - most} more; the files' report counts them all.</p>
      )}
    </>
  );
}
