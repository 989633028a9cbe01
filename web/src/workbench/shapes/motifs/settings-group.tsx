// The motif in hand by numbers: where and how large, turned, flipped; its row; its colours.
import { MAX_PRINT_MM, type MotifEntry } from "@plain-palette/core/recipe";
import type { Spot } from "@plain-palette/core/reduce";
import { Button } from "../../../parts/button.tsx";
import { CheckField, MmField, NumberField } from "../../../parts/fields.tsx";
import { SelectField } from "../../../parts/select-field.tsx";
import { Group } from "../../panel.tsx";
import type { MotifDesk, PlacedMotif } from "./motif-desk.ts";
import { copyOf, moved, perMmAt, withinTurn } from "./motif-grips.ts";
import { RowGroup } from "./row-group.tsx";
import { WordsGroup } from "./words-group.tsx";

interface Props {
  readonly desk: MotifDesk;
  readonly placed: PlacedMotif;
  readonly spots: readonly Spot[];
}

/** How far a copy is put from what it is a copy of, mm. */
const ASIDE_MM = 4;

export function SettingsGroup({ desk, placed, spots }: Props) {
  const { entry } = placed;
  const { frame, mmPerPx, place, setEntry, change } = desk;
  const own = entry.places[place];
  const copy = copyOf(placed, place);
  if (!frame || !own || !copy) return null;
  const perMm = perMmAt(frame, copy, mmPerPx);
  const { widthMm, heightMm, name } = entry.motif;
  const put = (part: Partial<typeof own>) =>
    setEntry({ ...entry, places: entry.places.map((one, k) => (k === place ? { ...one, ...part } : one)) });
  const move = (dxMm: number, dyMm: number) => setEntry(moved(entry, place, dxMm / mmPerPx, dyMm / mmPerPx, frame));
  const wide = own.widthPx / perMm;
  const add = () =>
    setEntry(
      {
        ...entry,
        places: [...entry.places, { ...own, at: { x: own.at.x + ASIDE_MM * perMm, y: own.at.y + ASIDE_MM * perMm } }],
      },
      { place: entry.places.length },
    );
  return (
    <>
      <Group title={entry.places.length > 1 ? `${name}: place ${place + 1} of ${entry.places.length}` : name}>
        <MmField
          label="Middle from the left"
          valueMm={fine(copy.x * mmPerPx)}
          min={-MAX_PRINT_MM}
          max={2 * MAX_PRINT_MM}
          onChange={(mm) => move(mm - copy.x * mmPerPx, 0)}
        />
        <MmField
          label="Middle from the top"
          valueMm={fine(copy.y * mmPerPx)}
          min={-MAX_PRINT_MM}
          max={2 * MAX_PRINT_MM}
          onChange={(mm) => move(0, mm - copy.y * mmPerPx)}
        />
        <MmField
          label="Width"
          valueMm={fine(wide)}
          min={0.5}
          max={MAX_PRINT_MM}
          onChange={(mm) => put({ widthPx: mm * perMm })}
        />
        <MmField
          label="Height"
          valueMm={fine((wide * heightMm) / widthMm)}
          min={0.5}
          max={MAX_PRINT_MM}
          onChange={(mm) => put({ widthPx: ((mm * widthMm) / heightMm) * perMm })}
        />
        <NumberField
          label="Turned"
          value={own.angleDeg}
          unit="°"
          min={-360}
          max={360}
          stepBy={1}
          onChange={(deg) => put({ angleDeg: withinTurn(deg) })}
        />
        <CheckField label="Flipped" isOn={own.isFlipped} onChange={(isFlipped) => put({ isFlipped })} />
        <div className="flex flex-wrap gap-1 py-1">
          <Button
            className={SMALL}
            disabled={Math.abs(wide - widthMm) < 0.001}
            onClick={() => put({ widthPx: widthMm * perMm })}
          >
            True size, {fine(widthMm)} mm
          </Button>
          <Button className={SMALL} onClick={add}>
            Once more
          </Button>
          {entry.places.length > 1 && (
            <>
              <Button className={SMALL} onClick={() => change({ place: (place + 1) % entry.places.length })}>
                Next place
              </Button>
              <Button
                className={SMALL}
                onClick={({ currentTarget }) => {
                  // With the last but one it goes itself.
                  currentTarget.parentElement?.querySelector<HTMLElement>("button:nth-of-type(2)")?.focus();
                  setEntry(withoutPlace(entry, place), { place: 0 });
                }}
              >
                Not here
              </Button>
            </>
          )}
        </div>
      </Group>
      <RowGroup entry={entry} perMm={perMm} set={(row) => setEntry({ ...entry, row })} />
      <WordsGroup desk={desk} placed={placed} spots={spots} />
      <ColourFields desk={desk} entry={entry} spots={spots} />
    </>
  );
}

const SMALL = "px-2 py-0.5";
const fine = (mm: number) => Number(mm.toFixed(2));

function withoutPlace(entry: MotifEntry, place: number): MotifEntry {
  return { ...entry, places: entry.places.filter((_, k) => k !== place) };
}

function ColourFields({ desk, entry, spots }: { desk: MotifDesk; entry: MotifEntry; spots: readonly Spot[] }) {
  const { content, setEntry } = desk;
  const inks = spots.filter(({ role }) => role === "ink");
  const options = [...inks.map(({ id, name }) => ({ value: id, text: name })), { value: "", text: "The garment" }];
  return (
    <Group title="Colours">
      {entry.spots.map((spotId, k) => (
        <SelectField
          // biome-ignore lint/suspicious/noArrayIndexKey: a motif's spots are told by their number.
          key={k}
          label={content?.spots[k]?.name ?? `Colour ${k + 1}`}
          value={spotId ?? ""}
          options={
            spotId !== null && !inks.some(({ id }) => id === spotId)
              ? [{ value: spotId, text: "A colour that is gone" }, ...options]
              : options
          }
          onChange={(next) =>
            setEntry({ ...entry, spots: entry.spots.map((one, i) => (i === k ? (next === "" ? null : next) : one)) })
          }
        />
      ))}
    </Group>
  );
}
