// Lettering: lines of words, old letters that are set again, and what will not come out.
import { formatHex } from "@plain-palette/core/colour";
import type { Spot } from "@plain-palette/core/reduce";
import { useMemo } from "react";
import type { Computed } from "../../../compute/use-compute.ts";
import { Button } from "../../../parts/button.tsx";
import { Choice } from "../../../parts/choice.tsx";
import { EntryRow } from "../../../parts/entry-row.tsx";
import { Slide } from "../../../parts/slide.tsx";
import { Group } from "../../panel.tsx";
import { sayEdit } from "../by-hand/edit-words.ts";
import { ChecksGroup } from "./checks-group.tsx";
import type { LetteringDesk, LetteringWay } from "./lettering-desk.ts";
import { LineGroup } from "./line-group.tsx";
import { OldGroup } from "./old-group.tsx";

interface Props {
  readonly desk: LetteringDesk;
  readonly computed: Computed;
  readonly size: { readonly width: number; readonly height: number };
}

export function LetteringSection({ desk, computed, size }: Props) {
  const { way, change, inHand, fade } = desk;
  const spots = useMemo(() => (computed.traced?.spots ?? []).filter(({ role }) => role === "ink"), [computed.traced]);
  const misfits = computed.traced?.misfits ?? new Map<string, string>();
  return (
    <>
      <div className="pb-3">
        <Choice
          label="Work on"
          value={way === "mark" ? "mark" : "set"}
          options={[
            { value: "set", text: "Words" },
            { value: "mark", text: "Old letters" },
          ]}
          isSmall
          onChange={(value: LetteringWay) => change({ way: value, letter: null })}
        />
      </div>
      {way === "mark" ? (
        <OldGroup desk={desk} spots={spots} />
      ) : (
        <>
          <LinesGroup desk={desk} spots={spots} misfits={misfits} size={size} />
          {inHand && <LineGroup key={inHand.id} desk={desk} entry={inHand} spots={spots} />}
          {inHand && <ChecksGroup desk={desk} entry={inHand} />}
          <Group title="Old art under it">
            <Slide
              label="Old art shows through"
              value={Math.round(fade * 100)}
              min={0}
              max={100}
              finest={1}
              onChange={(percent) => change({ fade: percent / 100 })}
            />
            <p className="text-xs text-soft">{Math.round(fade * 100)} %, here on the table only</p>
          </Group>
        </>
      )}
    </>
  );
}

interface LinesProps {
  readonly desk: LetteringDesk;
  readonly spots: readonly Spot[];
  readonly misfits: ReadonlyMap<string, string>;
  readonly size: Props["size"];
}

function LinesGroup({ desk, spots, misfits, size }: LinesProps) {
  const { lines, inHand, change, setLine, removeLine, addLine } = desk;
  return (
    <Group title={lines.length > 0 ? `Lettering (${lines.length})` : "Lettering"}>
      <p aria-live="polite" className="sr-only">
        {inHand ? `In hand: ${sayEdit(inHand, spots, 0)}` : ""}
      </p>
      {lines.length === 0 && (
        <p className="pb-2 text-xs text-soft">
          Set words of your own, or mark old letters to set them again in a typeface that is found for you.
        </p>
      )}
      {lines.length > 0 && (
        <ol aria-label="Lettering" className="mb-2 border border-rule bg-card">
          {lines.map((line) => {
            const spot = spots.find(({ id }) => id === line.spotId);
            const misfit = misfits.get(line.id);
            const words = sayEdit(line, spots, 0);
            return (
              <li
                key={line.id}
                className={`border-t border-rule px-1.5 py-0.5 first:border-t-0 ${line.id === inHand?.id ? "bg-sheet" : ""}`}
              >
                <EntryRow
                  words={words}
                  isOn={line.isOn}
                  swatch={spot ? formatHex(spot.rgb) : null}
                  onToggle={(isOn) => setLine({ ...line, isOn })}
                  onRemove={() => removeLine(line.id)}
                >
                  <Button
                    look="quiet"
                    className="px-1"
                    aria-pressed={line.id === inHand?.id}
                    aria-label={`Change "${words}"`}
                    onClick={() => change({ entryId: line.id, isTyping: true, letter: null })}
                  >
                    Change
                  </Button>
                </EntryRow>
                {misfit && line.isOn && (
                  <p role="status" className="pl-5 text-xs text-wrong">
                    {misfit}
                  </p>
                )}
              </li>
            );
          })}
        </ol>
      )}
      <Button onClick={() => addLine(size, spots.at(-1)?.id ?? null)}>New line</Button>
    </Group>
  );
}
