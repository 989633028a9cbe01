// How the chosen area is sewn, or all of a colour, or everything.
import {
  BORDERS,
  CORNERS,
  type Corners,
  SEWN_AS,
  type SewNumbers,
  type SewnArea,
  type SewnAs,
  type SewnChoice,
  STITCH_LIMITS,
} from "@plain-palette/core/stitch";
import { Button } from "../../parts/button.tsx";
import { Choice } from "../../parts/choice.tsx";
import { CheckField, MmField, NumberField } from "../../parts/fields.tsx";
import { SelectField } from "../../parts/select-field.tsx";

export const SEWN_WORDS: Readonly<Record<SewnAs, { text: string; title: string }>> = {
  fill: { text: "Fill", title: "Rows of stitches across the area" },
  satin: { text: "Satin", title: "To and fro across a column, from edge to edge" },
  run: { text: "Run", title: "A single line along the middle, out and back" },
  bean: { text: "Bean", title: "A bold line along the middle, each stitch three times" },
  applique: { text: "Applique", title: "Cloth laid on, with a satin border over its edge" },
  none: { text: "None", title: "Not sewn: the garment shows" },
};

const CORNER_WORDS: Readonly<Record<Corners, { text: string; title: string }>> = {
  mitred: { text: "Mitred", title: "Each leg square across, cut off at the corner's middle line" },
  rounded: { text: "Rounded", title: "Stitches spread round the corner" },
};

const BORDER_WORDS = { none: "None", satin: "Satin", bean: "Bean" } as const;

interface Props {
  readonly numbers: SewNumbers;
  /** What is as it was decided here; the rest is as proposed. */
  readonly choice: SewnChoice;
  /** Threads that a border can be sewn in. */
  readonly threads: readonly { readonly id: string; readonly name: string }[];
  onChange(part: Partial<SewnChoice>): void;
  onReset(): void;
}

export function SewnSettings({ numbers, choice, threads, onChange, onReset }: Props) {
  const { as, border } = numbers;
  const setBorder = (part: Partial<NonNullable<SewnChoice["border"]>>) => onChange({ border: { ...border, ...part } });
  return (
    <>
      <SelectField
        label="Sewn as"
        value={as}
        options={SEWN_AS.map((value) => ({ value, text: SEWN_WORDS[value].text }))}
        onChange={(value) => onChange({ as: SEWN_AS.find((one) => one === value) })}
      />
      <p className="pb-1 text-xs text-soft">{SEWN_WORDS[as].title}.</p>
      {as === "fill" && (
        <NumberField
          label="Angle of rows"
          value={numbers.angleDeg}
          unit="°"
          {...STITCH_LIMITS.angleDeg}
          stepBy={15}
          onChange={(angleDeg) => onChange({ angleDeg })}
        />
      )}
      {(as === "fill" || as === "satin") && (
        <>
          <MmField
            label="Spacing"
            valueMm={numbers.spacingMm}
            {...STITCH_LIMITS.spacingMm}
            hint="From row to row; more is lighter"
            onChange={(spacingMm) => onChange({ spacingMm })}
          />
          <MmField
            label="Pull"
            valueMm={numbers.pullMm}
            {...STITCH_LIMITS.pullMm}
            hint="Sewn so much longer at both ends, since thread draws cloth together"
            onChange={(pullMm) => onChange({ pullMm })}
          />
          <CheckField
            label="Underlay"
            isOn={numbers.hasUnderlay}
            onChange={(hasUnderlay) => onChange({ hasUnderlay })}
          />
        </>
      )}
      {as === "fill" && (
        <MmField
          label="Stitch length"
          valueMm={numbers.stitchMm}
          {...STITCH_LIMITS.stitchMm}
          onChange={(stitchMm) => onChange({ stitchMm })}
        />
      )}
      {as === "bean" && (
        <div className="flex items-center justify-between py-1">
          <span>Passes</span>
          <Choice
            label="Passes of a bean stitch"
            value={String(numbers.passes)}
            options={[
              { value: "3", text: "Three" },
              { value: "5", text: "Five" },
            ]}
            onChange={(value) => onChange({ passes: value === "5" ? 5 : 3 })}
          />
        </div>
      )}
      {as !== "none" && (
        <div className="flex items-center justify-between py-1">
          <span>Border</span>
          <Choice
            label="Border along its outline"
            value={border.kind}
            options={BORDERS.map((value) => ({ value, text: BORDER_WORDS[value] }))}
            onChange={(kind) => setBorder({ kind })}
          />
        </div>
      )}
      {border.kind !== "none" && (
        <>
          {border.kind === "satin" && (
            <MmField
              label="Border width"
              valueMm={border.widthMm}
              {...STITCH_LIMITS.borderMm}
              onChange={(widthMm) => setBorder({ widthMm })}
            />
          )}
          <SelectField
            label="Border in"
            value={border.spotId ?? ""}
            options={[
              { value: "", text: "The area's thread" },
              ...threads.map(({ id, name }) => ({ value: id, text: name })),
            ]}
            onChange={(id) => setBorder({ spotId: id === "" ? null : id })}
          />
        </>
      )}
      {(as === "satin" || as === "applique" || border.kind === "satin") && (
        <div className="flex items-center justify-between py-1">
          <span>Corners</span>
          <Choice
            label="Sharp corners of satin"
            value={numbers.corners}
            options={CORNERS.map((value) => ({ value, ...CORNER_WORDS[value] }))}
            onChange={(corners) => onChange({ corners })}
          />
        </div>
      )}
      <Button onClick={onReset} disabled={Object.values(choice).every((value) => value === undefined)}>
        Sewn as proposed
      </Button>
    </>
  );
}

/** What of an area is worth a line. */
export function saysOfArea({ numbers, areaMm2, widthMm }: SewnArea): string {
  const { text } = SEWN_WORDS[numbers.as];
  const angle = numbers.as === "fill" ? ` at ${numbers.angleDeg}°` : "";
  const size = areaMm2 < 100 ? `${areaMm2.toFixed(areaMm2 < 10 ? 1 : 0)} mm²` : `${(areaMm2 / 100).toFixed(1)} cm²`;
  return `${text}${angle}, ${size}, ${widthMm.toFixed(1)} mm wide`;
}
