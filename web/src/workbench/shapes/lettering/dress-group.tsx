// The colours of a line of lettering: letters, a line round them, a shadow.
import type { LetteringEntry } from "@plain-palette/core/recipe";
import type { Spot } from "@plain-palette/core/reduce";
import { CheckField, MmField } from "../../../parts/fields.tsx";
import { SelectField } from "../../../parts/select-field.tsx";
import { Group } from "../../panel.tsx";

interface Props {
  readonly entry: LetteringEntry;
  readonly spots: readonly Spot[];
  /** Client's pixels to a millimetre. */
  readonly perMm: number | null;
  set(part: Partial<LetteringEntry>): void;
}

/** A line and a shadow as they are begun, mm. */
const FIRST_OUTLINE_MM = 0.8;
const FIRST_SHADOW_MM = 1;

export function DressGroup({ entry, spots, perMm, set }: Props) {
  const options = [...spots.map(({ id, name }) => ({ value: id, text: name })), { value: "", text: "The garment" }];
  const spotField = (label: string, value: string | null, put: (spotId: string | null) => void) => (
    <SelectField
      label={label}
      value={value ?? ""}
      options={options}
      onChange={(next) => put(next === "" ? null : next)}
    />
  );
  const { outline, shadow } = entry;
  const other = spots.find(({ id }) => id !== entry.spotId)?.id ?? null;
  if (perMm === null) return null;
  const mm = (px: number) => Number((px / perMm).toFixed(3));
  return (
    <Group title="Colours">
      {spotField("Letters", entry.spotId, (spotId) => set({ spotId }))}
      <CheckField
        label="A line round them"
        isOn={outline !== null}
        onChange={(isOn) =>
          set({ outline: isOn ? { widthPx: FIRST_OUTLINE_MM * perMm, spotId: other, corners: "round" } : null })
        }
      />
      {outline && (
        <>
          <MmField
            label="Its width"
            valueMm={mm(outline.widthPx)}
            min={0.05}
            max={100}
            onChange={(width) => set({ outline: { ...outline, widthPx: width * perMm } })}
          />
          {spotField("In", outline.spotId, (spotId) => set({ outline: { ...outline, spotId } }))}
          <CheckField
            label="Sharp corners"
            isOn={outline.corners === "sharp"}
            onChange={(isSharp) => set({ outline: { ...outline, corners: isSharp ? "sharp" : "round" } })}
          />
        </>
      )}
      <CheckField
        label="A shadow"
        isOn={shadow !== null}
        onChange={(isOn) =>
          set({ shadow: isOn ? { dx: FIRST_SHADOW_MM * perMm, dy: FIRST_SHADOW_MM * perMm, spotId: other } : null })
        }
      />
      {shadow && (
        <>
          <MmField
            label="To the right"
            valueMm={mm(shadow.dx)}
            min={-100}
            max={100}
            onChange={(right) => set({ shadow: { ...shadow, dx: right * perMm } })}
          />
          <MmField
            label="Down"
            valueMm={mm(shadow.dy)}
            min={-100}
            max={100}
            onChange={(down) => set({ shadow: { ...shadow, dy: down * perMm } })}
          />
          {spotField("In", shadow.spotId, (spotId) => set({ shadow: { ...shadow, spotId } }))}
        </>
      )}
    </Group>
  );
}
