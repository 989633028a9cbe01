// Areas: given another spot, poured full, divided by a line; everything done is listed.
import { formatHex } from "@plain-palette/core/colour";
import type { Correction } from "@plain-palette/core/recipe";
import { NOTHING, type Spot, spotOfId } from "@plain-palette/core/reduce";
import type { ReducedView } from "../../compute/messages.ts";
import { useJob } from "../../job/use-job.ts";
import { Button } from "../../parts/button.tsx";
import { EntryRow } from "../../parts/entry-row.tsx";
import { Row } from "../../parts/fields.tsx";
import { SelectField } from "../../parts/select-field.tsx";
import { Group } from "../panel.tsx";
import { changeCorrection, removeCorrection } from "./edit-colours.ts";
import { type AreaReach, type ChangePaintDesk, type PaintDesk, type PaintTool, TO_GARMENT } from "./paint-desk.ts";

interface Props {
  readonly reduced: ReducedView;
  readonly desk: PaintDesk;
  readonly change: ChangePaintDesk;
}

const TOOLS: readonly { readonly tool: PaintTool; readonly text: string; readonly hint: string }[] = [
  { tool: { kind: "recolour" }, text: "Recolour an area", hint: "What hangs together becomes the spot." },
  {
    tool: { kind: "pour" },
    text: "Pour into an area",
    hint: "Fills what lines enclose and runs under them to their middle: no shirt shows between line and fill.",
  },
  {
    tool: { kind: "divide" },
    text: "Draw a dividing line",
    hint: "Through touching parts of one colour; the smaller side becomes the spot.",
  },
];

const REACHES: readonly { readonly value: AreaReach; readonly text: string }[] = [
  { value: "area", text: "One area" },
  { value: "enclosed", text: "All enclosed of its colour" },
  { value: "everywhere", text: "Everywhere its colour is" },
  { value: "loop", text: "All in a loop I draw" },
];

export function AreasSection({ reduced, desk, change }: Props) {
  const corrections = useJob((state) => state.recipe.colours.corrections);
  const { spots, misfits } = reduced;
  const isSpot = spots.some(({ id }) => id === desk.target);
  const target = isSpot || desk.target === NOTHING || desk.target === TO_GARMENT ? desk.target : null;
  return (
    <>
      <Group title="Give areas to">
        <SelectField
          label="Spot"
          value={target ?? ""}
          options={[
            { value: "", text: "A new spot" },
            { value: TO_GARMENT, text: "The garment" },
            { value: NOTHING, text: "Nothing" },
            ...spots.map(({ id, name }) => ({ value: id, text: name })),
          ]}
          onChange={(value) => change({ target: value || null })}
        />
        {target === null && (
          <Row label="Its colour">
            <input
              type="color"
              aria-label="Colour of the new spot"
              className="h-7 w-full rounded-[3px] border border-rule bg-card"
              value={desk.hex}
              onChange={(event) => change({ hex: event.target.value })}
            />
          </Row>
        )}
        <SelectField
          label="How far"
          value={desk.reach}
          options={REACHES}
          onChange={(value) => change({ reach: REACHES.find((one) => one.value === value)?.value ?? "area" })}
        />
        <div className="mt-1 flex flex-col gap-1.5">
          {TOOLS.map(({ tool, text, hint }) => {
            const isInHand = desk.tool?.kind === tool.kind;
            return (
              <div key={tool.kind}>
                <Button
                  aria-pressed={isInHand}
                  className={`w-full ${isInHand ? "border-ink bg-sheet font-semibold" : ""}`}
                  onClick={() => change({ tool: isInHand ? null : tool, sketch: [] })}
                >
                  {isInHand ? `Stop: ${text.toLowerCase()}` : text}
                </Button>
                <p className="pt-0.5 text-xs text-soft">{hint}</p>
              </div>
            );
          })}
        </div>
      </Group>
      {corrections.length > 0 && (
        <Group title="Done to areas">
          <ol aria-label="Done to areas" className="border border-rule bg-card">
            {corrections.map((correction) => (
              <CorrectionRow
                key={correction.id}
                correction={correction}
                spots={spots}
                misfit={misfits.get(correction.id) ?? null}
                isWaiting={!reduced.corrections.has(correction.id)}
              />
            ))}
          </ol>
        </Group>
      )}
    </>
  );
}

const WORDS = { recolour: "Area to", pour: "Poured", divide: "Divided off" } as const;

interface RowProps {
  readonly correction: Correction;
  readonly spots: readonly Spot[];
  readonly misfit: string | null;
  /** Not computed yet. */
  readonly isWaiting: boolean;
}

function CorrectionRow({ correction, spots, misfit, isWaiting }: RowProps) {
  const edit = useJob((state) => state.edit);
  const spot = spots[spotOfId(spots, correction.spotId)];
  const to = correction.spotId === NOTHING ? "nothing" : (spot?.name ?? "a spot that is gone");
  const words = `${correction.kind !== "divide" && correction.reach !== "area" ? "Areas to" : WORDS[correction.kind]} ${to}`;
  return (
    <li className="border-t border-rule px-1.5 py-0.5 first:border-t-0">
      <EntryRow
        words={words}
        isOn={correction.isOn}
        swatch={spot ? formatHex(spot.rgb) : null}
        onToggle={(isOn) => edit((r) => changeCorrection(r, { ...correction, isOn }))}
        onRemove={() => edit((r) => removeCorrection(r, correction.id))}
      >
        {correction.kind === "divide" && (
          <button
            type="button"
            className="px-1 text-xs underline underline-offset-2"
            aria-pressed={correction.isFlipped}
            onClick={() => edit((r) => changeCorrection(r, { ...correction, isFlipped: !correction.isFlipped }))}
          >
            Other side
          </button>
        )}
      </EntryRow>
      {isWaiting && <p className="pb-0.5 text-xs text-soft">On its way ...</p>}
      {misfit && (
        <p role="note" className="pb-0.5 text-xs text-wrong">
          Does nothing here: {misfit}.
        </p>
      )}
    </li>
  );
}
