// One letter of the line in hand, put right by itself.
import type { LetteringEntry } from "@plain-palette/core/recipe";
import type { LetteringView } from "../../../compute/messages.ts";
import { Button } from "../../../parts/button.tsx";
import { MmField, NumberField } from "../../../parts/fields.tsx";
import { Group } from "../../panel.tsx";
import type { LetteringDesk } from "./lettering-desk.ts";

interface Props {
  readonly desk: LetteringDesk;
  readonly entry: LetteringEntry;
  readonly view: LetteringView;
  readonly at: number;
}

export function LetterGroup({ desk, entry, view, at }: Props) {
  const { mmPerPx, setLine, change } = desk;
  const letter = view.letters.find((one) => one.at === at);
  if (!letter) return null;
  const nudge = entry.nudges.find((one) => one.at === at) ?? { at, right: 0, down: 0, angleDeg: 0, scale: 1 };
  const others = entry.nudges.filter((one) => one.at !== at);
  const set = (part: Partial<typeof nudge>) => setLine({ ...entry, nudges: [...others, { ...nudge, ...part }] });
  const capMm = view.set.capHeight * mmPerPx;
  const index = view.letters.indexOf(letter);
  const beside = (by: 1 | -1) => {
    const next = view.letters[(index + by + view.letters.length) % view.letters.length];
    if (next) change({ letter: next.at });
  };
  return (
    <Group title={`Letter "${letter.text}"`}>
      <div className="flex flex-wrap gap-2 pb-1">
        <Button onClick={() => beside(-1)}>The one before</Button>
        <Button onClick={() => beside(1)}>The next</Button>
        <Button onClick={() => change({ letter: null })}>All of the line</Button>
      </div>
      <MmField
        label="To the right"
        valueMm={Number((nudge.right * capMm).toFixed(3))}
        min={-500}
        max={500}
        onChange={(mm) => set({ right: mm / capMm })}
      />
      <MmField
        label="Down"
        valueMm={Number((nudge.down * capMm).toFixed(3))}
        min={-500}
        max={500}
        onChange={(mm) => set({ down: mm / capMm })}
      />
      <NumberField
        label="Turned"
        value={nudge.angleDeg}
        unit="°"
        min={-180}
        max={180}
        stepBy={1}
        onChange={(angleDeg) => set({ angleDeg })}
      />
      <NumberField
        label="Size"
        value={Number((nudge.scale * 100).toFixed(2))}
        unit="%"
        min={10}
        max={1000}
        stepBy={1}
        onChange={(percent) => set({ scale: percent / 100 })}
      />
      <Button
        disabled={!entry.nudges.some((one) => one.at === at)}
        onClick={() => setLine({ ...entry, nudges: others })}
      >
        As it was
      </Button>
    </Group>
  );
}
