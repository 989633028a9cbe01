// What a person should know before anything is made; a press on one shows its place.
import type { Warning } from "@plain-palette/core/checks";
import type { Point } from "@plain-palette/core/raster";

export function WarningList({ warnings, onPlace }: { warnings: readonly Warning[]; onPlace(place: Point): void }) {
  return (
    <ul className="grid gap-1.5">
      {warnings.map(({ text, place }) => (
        <li key={text}>
          {place ? (
            <button
              type="button"
              className="text-left underline decoration-rule hover:decoration-ink"
              title="Show it on the table"
              onClick={() => onPlace(place)}
            >
              {text}
            </button>
          ) : (
            text
          )}
        </li>
      ))}
    </ul>
  );
}
