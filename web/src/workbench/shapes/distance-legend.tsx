// What the colours of the distance map mean.
import { DISTANCE_CLASSES_PX } from "@plain-palette/core/trace";
import { DISTANCE_COLOURS } from "./shape-layers.ts";

export function DistanceLegend({ mmPerPx }: { mmPerPx: number }) {
  const limits = DISTANCE_CLASSES_PX;
  const text = (i: number) =>
    i < limits.length
      ? `up to ${limits[i]} px (${(limits[i] * mmPerPx).toFixed(3)} mm)`
      : `over ${limits[i - 1]} px (${(limits[i - 1] * mmPerPx).toFixed(3)} mm)`;
  return (
    <dl className="px-2.5 py-1.5 text-xs">
      <dt className="pb-0.5 font-semibold">Curves from the source's boundaries</dt>
      {DISTANCE_COLOURS.map((colour, i) => (
        <dd key={colour} className="flex items-center gap-2">
          <span className="inline-block h-1 w-6" style={{ background: colour }} />
          {text(i)}
        </dd>
      ))}
    </dl>
  );
}
