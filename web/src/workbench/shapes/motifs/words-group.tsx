// Words on each copy of the motif in hand: a name a line, as badges want them; each becomes lettering of its own.
import { lengthOf } from "@plain-palette/core/geometry";
import { type LetteringEntry, makeShapeEntry } from "@plain-palette/core/recipe";
import type { Spot } from "@plain-palette/core/reduce";
import { useId, useState } from "react";
import { useJob } from "../../../job/use-job.ts";
import { Button } from "../../../parts/button.tsx";
import { count } from "../../../parts/count.ts";
import { MmField } from "../../../parts/fields.tsx";
import { SelectField } from "../../../parts/select-field.tsx";
import { nextEntryId } from "../../areas/entry-ids.ts";
import { Group } from "../../panel.tsx";
import { FIRST_TYPEFACE } from "../lettering/lettering-desk.ts";
import { toClient } from "../lettering/places.ts";
import type { MotifDesk, PlacedMotif } from "./motif-desk.ts";
import { onBox } from "./motif-grips.ts";

interface Props {
  readonly desk: MotifDesk;
  readonly placed: PlacedMotif;
  readonly spots: readonly Spot[];
}

/** Height of capitals as a share of the motif's (our own). */
const CAP_SHARE = 0.24;

export function WordsGroup({ desk, placed, spots }: Props) {
  const id = useId();
  const edit = useJob((store) => store.edit);
  const [text, setText] = useState("");
  const [spotId, setSpotId] = useState<string | null>(null);
  const [said, setSaid] = useState("");
  const [capMm, setCapMm] = useState<number | null>(null);
  const [asideMm, setAsideMm] = useState(0);
  const inks = spots.filter(({ role }) => role === "ink");
  const names = text
    .split("\n")
    .map((line) => line.trim())
    .filter(Boolean);
  const { entry, copies } = placed;
  const { frame } = desk;
  if (!frame || copies.length < 2) return null;
  const highMm = heightOnGarment(placed, desk);
  const usual = Number((highMm * CAP_SHARE).toFixed(1));
  const share = (capMm ?? usual) / (highMm || 1);
  const own = spotId ?? entry.spots.find((one) => one !== null) ?? inks[0]?.id ?? null;
  const set = () => {
    edit((recipe) => {
      const entries = [...recipe.shapes.entries];
      names.slice(0, copies.length).forEach((name, k) => {
        const made = onCopy(name, placed, k, { spotId: own, share, asideMm }, desk);
        if (made) entries.push({ ...made, id: nextEntryId(entries, "edit") });
      });
      return { ...recipe, shapes: { ...recipe.shapes, entries } };
    });
    const over = names.length - copies.length;
    setSaid(
      `${count(Math.min(names.length, copies.length), "name")} set${over > 0 ? `, ${over} without a place` : ""}: each is a line under Lettering.`,
    );
    setText("");
  };
  return (
    <Group title="Words on each">
      <label htmlFor={id} className="sr-only">
        One a line, in the order of the row
      </label>
      <textarea
        id={id}
        rows={3}
        maxLength={8000}
        placeholder="One a line, in the order of the row"
        className="w-full rounded-[3px] border border-edge bg-card px-2 py-1"
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <SelectField
        label="In"
        value={own ?? ""}
        options={inks.map((spot) => ({ value: spot.id, text: spot.name }))}
        onChange={setSpotId}
      />
      <MmField label="Capitals" valueMm={capMm ?? usual} min={0.5} max={500} onChange={setCapMm} />
      <MmField label="Right of the middle" valueMm={asideMm} min={-500} max={500} onChange={setAsideMm} />
      <Button className="mt-1 px-2 py-0.5" disabled={names.length === 0} onClick={set}>
        Set them
      </Button>
      <p role="status" className="pt-1 text-xs text-soft">
        {said}
      </p>
    </Group>
  );
}

/** How high the first copy is, mm. */
function heightOnGarment({ entry, copies }: PlacedMotif, { mmPerPx }: MotifDesk): number {
  const [copy] = copies;
  if (!copy) return 0;
  const [top, bottom] = [onBox(copy, entry, 0, -1), onBox(copy, entry, 0, 1)];
  return lengthOf(bottom.x - top.x, bottom.y - top.y) * mmPerPx;
}

/** A line of lettering in the middle of a copy, along it. */
function onCopy(
  text: string,
  { entry, copies }: PlacedMotif,
  k: number,
  { spotId, share, asideMm }: { readonly spotId: string | null; readonly share: number; readonly asideMm: number },
  { frame, mmPerPx }: MotifDesk,
): LetteringEntry | null {
  const copy = copies[k];
  if (!copy || !frame) return null;
  const [left, right] = [onBox(copy, entry, -1, 0), onBox(copy, entry, 1, 0)];
  const isFlipped = right.x < left.x && entry.places.some((place) => place.isFlipped);
  // The middle of the capitals, not their foot, on the middle of the motif.
  const across = lengthOf(right.x - left.x, right.y - left.y) * mmPerPx;
  const foot = onBox(copy, entry, (2 * asideMm) / (across || 1), share);
  const [from, to] = isFlipped ? [right, left] : [left, right];
  const [a, b] = [toClient(frame, from), toClient(frame, to)];
  const angleDeg = Number(((Math.atan2(b.y - a.y, b.x - a.x) * 180) / Math.PI).toFixed(3));
  const capPx = (lengthOf(b.x - a.x, b.y - a.y) * entry.motif.heightMm * share) / entry.motif.widthMm;
  const baseline = { kind: "straight" as const, at: toClient(frame, foot), angleDeg };
  return makeShapeEntry({
    id: "new",
    kind: "lettering",
    text,
    typeface: FIRST_TYPEFACE,
    baseline,
    capPx,
    spotId,
  }) as LetteringEntry;
}
