// Single stones: the one in hand and what can be done with it, and the list of what was done.
import { HAND_LOSSES, type HandEntry, type Stones } from "@plain-palette/core/stone";
import { Button } from "../../parts/button.tsx";
import { count } from "../../parts/count.ts";
import { EntryRow } from "../../parts/entry-row.tsx";
import { CheckField } from "../../parts/fields.tsx";
import { SelectField } from "../../parts/select-field.tsx";
import { Group } from "../panel.tsx";
import { SIZE_OPTIONS, sizeOf } from "./set-settings.tsx";
import type { StoneDesk } from "./stone-desk.ts";

/** Entries listed at most: the last of them. */
const MOST_LISTED = 12;

interface Named {
  readonly id: string;
  readonly name: string;
}

/** What of an entry is worth a line. */
export function saysOfDeed(entry: HandEntry): string {
  switch (entry.kind) {
    case "move":
      return "Stone moved";
    case "add":
      return `Stone added, ${entry.size}`;
    case "take":
      return "Stone taken away";
    case "change":
      return `Stone changed${entry.size ? `, ${entry.size}` : ""}`;
    case "shift":
      return `Row shifted by ${count(Math.abs(entry.halfGaps), "half gap")}`;
    case "spread":
      return "Stretch spread evenly";
  }
}

export function HandGroup({ made, desk, spots }: { made: Stones; desk: StoneDesk; spots: readonly Named[] }) {
  const { mode, setMode, givesWay, setGivesWay } = desk;
  const colours = coloursOf(spots);
  return (
    <Group title="By hand">
      <div className="flex flex-wrap gap-2 pb-1">
        <Button aria-pressed={mode === "add"} onClick={() => setMode(mode === "add" ? "choose" : "add")}>
          {mode === "add" ? "Done adding" : "Add stones"}
        </Button>
      </div>
      <CheckField
        label="Others give way"
        hint="Else a stone goes only where there is room"
        isOn={givesWay}
        onChange={setGivesWay}
      />
      {mode === "add" && desk.next && (
        <>
          <SelectField
            label="New stones"
            isWide
            value={desk.next.size}
            options={SIZE_OPTIONS}
            onChange={(value) => desk.setNext({ size: sizeOf(value) })}
          />
          <SelectField
            label="Their colour"
            value={desk.next.spotId}
            options={colours}
            onChange={(spotId) => desk.setNext({ spotId })}
          />
        </>
      )}
      {mode !== "add" && <StoneInHand desk={desk} spots={spots} />}
      <DeedList made={made} desk={desk} />
    </Group>
  );
}

const coloursOf = (spots: readonly Named[]) => spots.map(({ id, name }) => ({ value: id, text: name }));

/** What can be done with the stone in hand. Its buttons stay when it is gone: focus is not lost with it. */
function StoneInHand({ desk, spots }: { desk: StoneDesk; spots: readonly Named[] }) {
  const { stone, mode, setMode } = desk;
  const isInRow = stone !== null && stone.row >= 0;
  const name = spots.find(({ id }) => id === stone?.spotId)?.name;
  return (
    <div data-testid="stone-in-hand">
      <p aria-live="polite" className={stone ? "pb-1" : "pb-1 text-soft"}>
        {stone
          ? `${name}, ${stone.size}, at ${stone.x.toFixed(1)}, ${stone.y.toFixed(1)} mm`
          : "Click a stone on the table to take it up."}
      </p>
      {stone && (
        <>
          <SelectField
            label="Size"
            isWide
            value={stone.size}
            options={SIZE_OPTIONS}
            onChange={(value) => desk.changeStone({ size: sizeOf(value) })}
          />
          <SelectField
            label="Colour"
            value={stone.spotId}
            options={coloursOf(spots)}
            onChange={(spotId) => desk.changeStone({ spotId })}
          />
        </>
      )}
      <div className="flex flex-wrap gap-2 py-1">
        <Button disabled={!stone} onClick={desk.takeAway}>
          Take away
        </Button>
        <Button disabled={!isInRow} onClick={() => desk.shift(-1)} aria-label="Shift its row back by half a gap">
          Row −½ gap
        </Button>
        <Button disabled={!isInRow} onClick={() => desk.shift(1)} aria-label="Shift its row on by half a gap">
          Row +½ gap
        </Button>
        <Button
          disabled={!stone}
          aria-pressed={mode === "spread"}
          onClick={() => setMode(mode === "spread" ? "choose" : "spread")}
        >
          Spread evenly to …
        </Button>
      </div>
    </div>
  );
}

function DeedList({ made, desk }: { made: Stones; desk: StoneDesk }) {
  const { hand } = desk.settings;
  const lossOf = (id: string) => made.missed.find((one) => one.id === id)?.why;
  const listed = hand.slice(-MOST_LISTED).reverse();
  return (
    <div className="border-t border-rule pt-1.5">
      <ul aria-label="Done by hand" className="grid gap-0.5">
        {listed.map((entry) => {
          const why = lossOf(entry.id);
          return (
            <li key={entry.id}>
              <EntryRow
                words={saysOfDeed(entry)}
                isOn={entry.isOn}
                onToggle={(isOn) => desk.setHand(hand.map((one) => (one === entry ? { ...one, isOn } : one)))}
                onRemove={() => desk.setHand(hand.filter((one) => one !== entry))}
              />
              {why && <p className="pl-5 text-xs text-wrong">It {HAND_LOSSES[why]}.</p>}
            </li>
          );
        })}
      </ul>
      {hand.length > MOST_LISTED && (
        <p className="text-xs text-soft">and {hand.length - MOST_LISTED} that were done before</p>
      )}
      <Button className="mt-1" disabled={hand.length === 0} onClick={() => desk.setHand([])}>
        Take all of it back
      </Button>
    </div>
  );
}
