// How the chosen area is set, or all of a colour, or everything.
import {
  PATTERNS,
  type Pattern,
  SET_AS,
  type SetAs,
  type SetChoice,
  type SetNumbers,
  STONE_LIMITS,
  type Stones,
} from "@plain-palette/core/stone";
import { diameterOf, STONE_SIZES, type StoneSize } from "@plain-palette/core/trade";
import { Button } from "../../parts/button.tsx";
import { Choice } from "../../parts/choice.tsx";
import { CheckField, NumberField } from "../../parts/fields.tsx";
import { SelectField } from "../../parts/select-field.tsx";

export const SET_WORDS: Readonly<Record<SetAs, { text: string; title: string }>> = {
  outline: { text: "Outline", title: "A row along its outline, a stone on each corner" },
  middle: { text: "One row", title: "One row along the middle of its strokes" },
  fill: { text: "Filled", title: "Stones all over it" },
  scatter: { text: "Scattered", title: "Dense at one side, fewer and fewer towards the other" },
  none: { text: "None", title: "No stones: what lies there is seen" },
};

const PATTERN_WORDS: Readonly<Record<Pattern, { text: string; title: string }>> = {
  hexagons: { text: "Hexagons", title: "Each row in the gaps of the one before: most stones" },
  squares: { text: "Squares", title: "Rows and columns" },
  edge: { text: "Along the edge", title: "Row by row inwards from the edge" },
};

/** Sizes as a person chooses among them. */
export const SIZE_OPTIONS = STONE_SIZES.map((size) => ({ value: size, text: `${size} · ${diameterOf(size)} mm` }));

export function sizeOf(text: string): StoneSize | undefined {
  return STONE_SIZES.find((size) => size === text);
}

interface Props {
  readonly numbers: SetNumbers;
  /** What is as it was decided here; the rest is as proposed. */
  readonly choice: SetChoice;
  onChange(part: Partial<SetChoice>): void;
  onReset(): void;
}

export function SetSettings({ numbers, choice, onChange, onReset }: Props) {
  const { as, pattern } = numbers;
  return (
    <>
      <SelectField
        label="Set as"
        value={as}
        options={SET_AS.map((value) => ({ value, text: SET_WORDS[value].text }))}
        onChange={(value) => onChange({ as: SET_AS.find((one) => one === value) })}
      />
      <p className="pb-1 text-xs text-soft">{SET_WORDS[as].title}.</p>
      {as !== "none" && (
        <SelectField
          label="Stone size"
          isWide
          value={numbers.size}
          options={SIZE_OPTIONS}
          onChange={(value) => onChange({ size: sizeOf(value) })}
        />
      )}
      {as === "outline" && (
        <div className="flex items-center justify-between py-1">
          <span>Row</span>
          <Choice
            label="Where the row lies"
            value={numbers.isInside ? "inside" : "on"}
            options={[
              { value: "on", text: "On the line" },
              { value: "inside", text: "Inside it", title: "Touching the line from within" },
            ]}
            onChange={(value) => onChange({ isInside: value === "inside" })}
          />
        </div>
      )}
      {as === "fill" && (
        <>
          <SelectField
            label="Rows"
            value={pattern}
            options={PATTERNS.map((value) => ({ value, text: PATTERN_WORDS[value].text }))}
            onChange={(value) => onChange({ pattern: PATTERNS.find((one) => one === value) })}
          />
          <p className="pb-1 text-xs text-soft">{PATTERN_WORDS[pattern].title}.</p>
          <CheckField
            label="Smaller stones in the gaps"
            isOn={numbers.isMixed}
            onChange={(isMixed) => onChange({ isMixed })}
          />
        </>
      )}
      {((as === "fill" && pattern !== "edge") || as === "scatter") && (
        <NumberField
          label={as === "fill" ? "Angle of rows" : "Thins out towards"}
          value={numbers.angleDeg}
          unit="°"
          {...STONE_LIMITS.angleDeg}
          stepBy={15}
          onChange={(angleDeg) => onChange({ angleDeg })}
        />
      )}
      {as === "scatter" && (
        <NumberField
          label="Apart at the thin side"
          value={numbers.thinning}
          unit="×"
          {...STONE_LIMITS.thinning}
          stepBy={0.5}
          onChange={(thinning) => onChange({ thinning })}
        />
      )}
      <Button onClick={onReset} disabled={Object.values(choice).every((value) => value === undefined)}>
        Set as proposed
      </Button>
    </>
  );
}

/** What of an area is worth a line. */
export function saysOfSetArea({ numbers, areaMm2, widthMm }: Stones["areas"][number]): string {
  const size = areaMm2 < 100 ? `${areaMm2.toFixed(areaMm2 < 10 ? 1 : 0)} mm²` : `${(areaMm2 / 100).toFixed(1)} cm²`;
  const stones = numbers.as === "none" ? "" : ` in ${numbers.size}`;
  return `${SET_WORDS[numbers.as].text.toLowerCase()}${stones}, ${size}, ${widthMm.toFixed(1)} mm wide`;
}
