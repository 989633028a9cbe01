// What of the line in hand will be too thin, too low or fill in at its size, in the job's way of making.
import { checkLettering } from "@plain-palette/core/lettering";
import { processOf } from "@plain-palette/core/processes";
import type { LetteringEntry } from "@plain-palette/core/recipe";
import { useMemo } from "react";
import { useJob } from "../../../job/use-job.ts";
import { count } from "../../../parts/count.ts";
import { useThinLimits } from "../../../shop/use-shop.ts";
import { Group } from "../../panel.tsx";
import type { LetteringDesk } from "./lettering-desk.ts";

export function ChecksGroup({ desk, entry }: { desk: LetteringDesk; entry: LetteringEntry }) {
  const { view, mmPerPx, drag } = desk;
  const jobProcess = useJob(({ recipe }) => recipe.process);
  const sent = useJob(({ recipe }) =>
    entry.spotId === null ? undefined : recipe.colours.decided[entry.spotId]?.process,
  );
  const process = processOf(sent ?? jobProcess);
  const limits = useThinLimits(process.id);
  const letters = view?.letters;
  const capHeight = view?.set.capHeight ?? 0;
  const isHeld = drag !== null;
  const checked = useMemo(() => {
    if (!letters || isHeld) return null;
    const paths = letters.flatMap(({ paths }) => paths);
    return checkLettering(paths, capHeight, { ...limits, lettersMm: process.lettersMm }, mmPerPx);
  }, [letters, capHeight, limits, process, mmPerPx, isHeld]);
  if (!checked) return null;
  const { strokes, openings, capHeightMm, isTooLow } = checked;
  const mm = (value: number | undefined) => `${(value ?? 0).toFixed(2)} mm`;
  const said = [
    ...(isTooLow
      ? [
          `Capitals are ${mm(capHeightMm)} high; with ${process.name.toLowerCase()} they should be ${process.lettersMm} mm.`,
        ]
      : []),
    ...(strokes.length > 0
      ? [`Strokes under ${limits.lineMm} mm in ${count(strokes.length, "place")}, down to ${mm(strokes[0]?.widthMm)}.`]
      : []),
    ...(openings.length > 0
      ? [
          `Openings under ${limits.gapMm} mm in ${count(openings.length, "place")}, down to ${mm(openings[0]?.widthMm)}: they fill in.`,
        ]
      : []),
  ];
  return (
    <Group title="At this size">
      {said.length === 0 ? (
        <p className="text-xs text-soft">Everything comes out with {process.name.toLowerCase()}.</p>
      ) : (
        <div role="status">
          <ul className="list-disc pl-4 text-xs text-wrong">
            {said.map((text) => (
              <li key={text}>{text}</li>
            ))}
          </ul>
        </div>
      )}
    </Group>
  );
}
