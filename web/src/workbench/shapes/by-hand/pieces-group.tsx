// Pieces: picked shapes with what they enclose, moved by numbers, turned, flipped, scaled, copied, taken away, made round.
import { type Bounds, boundsOf } from "@plain-palette/core/geometry";
import type { ShapeEntryOf } from "@plain-palette/core/recipe";
import type { Spot } from "@plain-palette/core/reduce";
import { useState } from "react";
import { Button } from "../../../parts/button.tsx";
import { count } from "../../../parts/count.ts";
import { MmField, NumberField } from "../../../parts/fields.tsx";
import { SelectField } from "../../../parts/select-field.tsx";
import { Group } from "../../panel.tsx";
import { type HandDesk, sourceScale } from "./hand-desk.ts";
import { boxOfPicked, holeAt, pickedFaces, placeAnew, takeAway } from "./pieces-tool.ts";

interface Props {
  readonly desk: HandDesk;
  readonly spots: readonly Spot[];
}

export function PiecesGroup({ desk, spots }: Props) {
  const { shapes, inHand, change, seeksPlace, mmPerPx } = desk;
  const placed = inHand?.kind === "pieces" && inHand.placed.length === 1 ? inHand : null;
  const isPicked = shapes.length > 0;
  const aside = 2 / mmPerPx;
  return (
    <Group title="Pieces">
      <PickedSize desk={desk} />
      <div className="flex flex-wrap gap-1 py-1">
        <Button className={SMALL} disabled={!isPicked} onClick={() => placeAnew(desk, { dx: aside, dy: aside }, true)}>
          Copy
        </Button>
        <Button className={SMALL} disabled={!isPicked} onClick={() => takeAway(desk)}>
          Take away
        </Button>
        <Button
          className={SMALL}
          disabled={!isPicked}
          aria-pressed={seeksPlace}
          onClick={() => change({ seeksPlace: !seeksPlace })}
        >
          Put in place of ...
        </Button>
        <Button className={SMALL} disabled={!isPicked || placed !== null} onClick={() => placeAnew(desk, {})}>
          Place by numbers
        </Button>
      </div>
      {placed && <Placed desk={desk} entry={placed} />}
      <Recolour desk={desk} spots={spots} />
      <MakeRound desk={desk} />
    </Group>
  );
}

const SMALL = "px-2 py-0.5";

function PickedSize({ desk }: { desk: HandDesk }) {
  const picked = pickedFaces(desk);
  const box = boxInHand(desk);
  const mm = (px: number) => (px * desk.mmPerPx).toFixed(2);
  return (
    <p role="status" className="text-xs text-soft">
      {box === null
        ? "Nothing is picked. Click a shape on the table: what it encloses comes along, as a letter with its counter."
        : `Picked: ${desk.hole ? "a hole" : count(picked.length, "shape")}, ${mm(box.right - box.left)} × ${mm(box.bottom - box.top)} mm`}
    </p>
  );
}

/** The box of what is picked, shapes or a hole; null: nothing is. */
function boxInHand(desk: HandDesk): Bounds | null {
  const ring = desk.hole && holeAt(desk.faces, desk.hole);
  if (ring) return boundsOf(ring);
  return pickedFaces(desk).length > 0 ? boxOfPicked(desk) : null;
}

function Placed({ desk, entry }: { desk: HandDesk; entry: ShapeEntryOf<"pieces"> }) {
  const { changeInHand, mmPerPx } = desk;
  const [place] = entry.placed;
  if (!place) return null;
  const set = (part: Partial<typeof place>) =>
    changeInHand({ ...entry, placed: [{ ...place, ...part }] }, { shapes: [] });
  const perMm = sourceScale(desk) / mmPerPx;
  const percent = (scale: number) => Number((Math.abs(scale) * 100).toFixed(2));
  const scaled = (value: number, old: number) => (Math.sign(old) * value) / 100;
  return (
    <>
      <div className="grid grid-cols-2 gap-x-2">
        <MmField
          label="Right"
          isNarrow
          valueMm={Number((place.dx / perMm).toFixed(2))}
          min={-4000}
          max={4000}
          onChange={(mm) => set({ dx: mm * perMm })}
        />
        <MmField
          label="Down"
          isNarrow
          valueMm={Number((place.dy / perMm).toFixed(2))}
          min={-4000}
          max={4000}
          onChange={(mm) => set({ dy: mm * perMm })}
        />
        <NumberField
          label="Wide"
          isNarrow
          value={percent(place.scaleX)}
          unit="%"
          min={1}
          max={2000}
          stepBy={1}
          onChange={(v) => set({ scaleX: scaled(v, place.scaleX) })}
        />
        <NumberField
          label="High"
          isNarrow
          value={percent(place.scaleY)}
          unit="%"
          min={1}
          max={2000}
          stepBy={1}
          onChange={(v) => set({ scaleY: scaled(v, place.scaleY) })}
        />
        <NumberField
          label="Turned"
          isNarrow
          value={place.angleDeg}
          unit="°"
          min={-360}
          max={360}
          stepBy={1}
          onChange={(angleDeg) => set({ angleDeg })}
        />
      </div>
      <div className="flex gap-1 pb-1">
        <Button className={SMALL} onClick={() => set({ scaleX: -place.scaleX })}>
          Flip left and right
        </Button>
        <Button className={SMALL} onClick={() => set({ scaleY: -place.scaleY })}>
          Flip top and bottom
        </Button>
      </div>
    </>
  );
}

/** Another spot for the picked shapes: given a neighbour's, the two are one. */
function Recolour({ desk, spots }: Props) {
  const { shapes, toSource, take } = desk;
  const [first] = shapes;
  if (!first) return null;
  const picks = shapes.map(({ at, spotId }) => ({ at: toSource(at), spotId }));
  return (
    <SelectField
      label="Colour"
      value={first.spotId}
      options={[
        ...spots.map(({ id, name }) => ({ value: id, text: name })),
        { value: "", text: "The garment (a hole)" },
      ]}
      onChange={(value) => {
        const spotId = value === "" ? null : value;
        take(
          { kind: "pieces", picks, stays: { spotId } },
          { shapes: spotId === null ? [] : shapes.map(({ at }) => ({ at, spotId })) },
        );
      }}
    />
  );
}

/** A round shape, or a hole that is there already, at its exact measure. */
function MakeRound({ desk }: { desk: HandDesk }) {
  const { shapes, hole, toSource, take, mmPerPx } = desk;
  const [typed, setTyped] = useState<number | null>(null);
  const box = boxInHand(desk);
  const [first] = shapes;
  const what = hole ? { at: hole, spotId: null } : shapes.length === 1 && first ? first : null;
  if (!box || !what) return null;
  const measured = Number((((box.right - box.left + box.bottom - box.top) / 2) * mmPerPx).toFixed(2));
  const diameterMm = typed ?? measured;
  return (
    <>
      <MmField
        label="Diameter"
        valueMm={diameterMm}
        min={0.05}
        max={2000}
        onChange={setTyped}
        hint="Held: no tolerance and no simplifying changes it, nor another print size."
      />
      <Button
        className={SMALL}
        onClick={() => take({ kind: "round", at: toSource(what.at), spotId: what.spotId, diameterMm })}
      >
        Make it a true circle
      </Button>
    </>
  );
}
