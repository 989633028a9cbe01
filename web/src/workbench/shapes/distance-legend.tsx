// What the colours of the distance map mean.
import { DISTANCE_CLASSES_PX } from "@plain-palette/core/trace";
import { DISTANCE_COLOURS } from "./shape-layers.ts";

export function DistanceLegend({ mmPerPx }: { mmPerPx: number }) {
  const measured = (px: number) => `${px} px (${(px * mmPerPx).toFixed(3)} mm)`;
  const texts = DISTANCE_CLASSES_PX.map((px) => `up to ${measured(px)}`);
  texts.push(`over ${measured(Math.max(...DISTANCE_CLASSES_PX))}`);
  return (
    <dl className="px-2.5 py-1.5 text-xs">
      <dt className="pb-0.5 font-semibold">Curves from the source's boundaries</dt>
      {DISTANCE_COLOURS.map((colour, i) => (
        <dd key={colour} className="flex items-center gap-2">
          <span className="inline-block h-1 w-6" style={{ background: colour }} />
          {texts[i]}
        </dd>
      ))}
    </dl>
  );
}
