// Old letters: marked, taken away, and set again in the typeface that covers them best.
import { formatHex } from "@plain-palette/core/colour";
import type { Spot } from "@plain-palette/core/reduce";
import { useId } from "react";
import { type Find, useFind } from "../../../compute/use-find.ts";
import { Button } from "../../../parts/button.tsx";
import { Choice } from "../../../parts/choice.tsx";
import { CheckField, Row } from "../../../parts/fields.tsx";
import { TypefaceSample } from "../../../parts/typeface-sample.tsx";
import { KIND_WORDS } from "../../../shop/typeface-words.ts";
import { Group } from "../../panel.tsx";
import { type LetteringDesk, MOST_MARKED, nameOfTypeface } from "./lettering-desk.ts";

interface Props {
  readonly desk: LetteringDesk;
  readonly spots: readonly Spot[];
}

export function OldGroup({ desk, spots }: Props) {
  const { marked, markedSpots, markedPaths, says, typefaces, change, replaceMarked } = desk;
  const find = useFind();
  const id = useId();
  const counts = new Map<string, number>();
  for (const { spotId } of marked) counts.set(spotId, (counts.get(spotId) ?? 0) + 1);
  const words = says.trim();
  return (
    <>
      <Group title="Old letters">
        <Row label="Mark them by a">
          <Choice
            label="Mark them by a"
            value={desk.marksBy}
            options={[
              { value: "box", text: "Box" },
              { value: "loop", text: "Loop" },
            ]}
            isSmall
            onChange={(marksBy: "box" | "loop") => change({ marksBy })}
          />
        </Row>
        {marked.length === 0 && <p className="text-xs text-soft">Drag round them on the table.</p>}
        <div className="grid grid-cols-2 gap-x-3">
          {[...counts].map(([spotId, number]) => {
            const spot = spots.find((one) => one.id === spotId);
            return (
              <CheckField
                key={spotId}
                label={`${number} of ${spot?.name ?? "a colour"}`}
                isOn={markedSpots.includes(spotId)}
                onChange={(isOn) =>
                  change({
                    markedSpots: isOn ? [...markedSpots, spotId] : markedSpots.filter((one) => one !== spotId),
                  })
                }
              />
            );
          })}
        </div>
        <label htmlFor={id} className="block pt-1">
          What they say
        </label>
        <textarea
          id={id}
          dir="auto"
          rows={1}
          maxLength={200}
          value={says}
          className="w-full resize-y rounded-[3px] border border-edge bg-card px-2 py-1"
          onChange={(event) => change({ says: event.target.value })}
        />
        {desk.isTooMuch && (
          <p role="status" className="text-xs text-wrong">
            More than {MOST_MARKED} shapes are too much at a time: mark fewer.
          </p>
        )}
        {marked.length > 0 && words === "" && (
          <p className="text-xs text-soft">
            Only what is marked: a letter that hangs together with other art is typed in afterwards.
          </p>
        )}
        <div className="flex flex-wrap gap-2 pt-1">
          {find.isRunning ? (
            <Button onClick={find.stop}>Stop</Button>
          ) : (
            <Button
              look={find.best.length > 0 ? "plain" : "next"}
              disabled={markedPaths.length === 0 || words === ""}
              onClick={() => find.start({ paths: markedPaths, text: words, typefaces })}
            >
              Find the typeface
            </Button>
          )}
          <Button disabled={markedPaths.length === 0} onClick={() => replaceMarked(null)}>
            Only take them away
          </Button>
        </div>
      </Group>
      <FoundGroup desk={desk} find={find} words={words} colour={colourOf(spots, markedSpots[0])} />
    </>
  );
}

function colourOf(spots: readonly Spot[], spotId: string | undefined): string {
  const spot = spots.find(({ id }) => id === spotId);
  return spot ? formatHex(spot.rgb) : "#1e1d1a";
}

function FoundGroup({ desk, find, words, colour }: { desk: LetteringDesk; find: Find; words: string; colour: string }) {
  const { typefaces, replaceMarked, change } = desk;
  const { best, done, total, isRunning } = find;
  if (total === 0) return null;
  return (
    <Group title="What covers them best">
      <p role="status" className="pb-1 text-xs text-soft">
        {isRunning ? `${done} of ${total} typefaces tried` : `${done} typefaces tried`}
      </p>
      {isRunning && <progress className="mb-1 h-1 w-full" max={total} value={done} aria-label="Typefaces tried" />}
      <ol aria-label="Proposals">
        {best.map((found) => {
          const typeface = typefaces.find(({ id }) => id === found.id);
          if (!typeface) return null;
          const name = nameOfTypeface(typeface);
          const percent = (found.overlap * 100).toFixed(1);
          return (
            <li key={typeface.family} className="mb-1">
              <Button
                className="w-full flex-col items-stretch gap-0 overflow-hidden px-2 py-0 text-left leading-4"
                aria-label={`Set them again in ${name}, which covers ${percent} %`}
                onPointerEnter={() => change({ tried: found.paths })}
                onPointerLeave={() => change({ tried: [] })}
                onFocus={() => change({ tried: found.paths })}
                onBlur={() => change({ tried: [] })}
                onClick={() => {
                  find.drop();
                  replaceMarked({ lettering: found.lettering, typeface: { id: typeface.id, name } });
                }}
              >
                <span className="flex items-baseline gap-2">
                  <span className="min-w-0 flex-1" style={{ color: colour }}>
                    <TypefaceSample typeface={typeface} words={words} size={18} />
                  </span>
                  <b className="tabular-nums">{percent} %</b>
                </span>
                <span className="block pb-0.5 text-xs leading-4 text-soft">
                  {name}, {KIND_WORDS[typeface.kind].toLowerCase()}
                </span>
              </Button>
            </li>
          );
        })}
      </ol>
      {!isRunning && best.length === 0 && <p>No typeface here has all of these letters.</p>}
    </Group>
  );
}
