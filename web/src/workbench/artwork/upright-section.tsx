// Upright: turns, flips, straightening, the crop, the trim of a scan, the corners of a photographed sheet.
import type { TrimProposal } from "@plain-palette/core/raster";
import { type Action, type ActionOf, nextActionId } from "@plain-palette/core/recipe";
import { useJob } from "../../job/use-job.ts";
import { Button } from "../../parts/button.tsx";
import { Choice } from "../../parts/choice.tsx";
import { NumberField } from "../../parts/fields.tsx";
import { Group } from "../steps/panel.tsx";
import { addAction, changeAction, removeAction } from "./edit-actions.ts";
import type { SectionProps } from "./section-props.ts";

/** Above this the sides of a sheet lean so much that it was photographed, degrees. */
const LEANS = 1;

export function UprightSection({ computed, ask, desk, change, mmPerPx }: SectionProps) {
  const actions = useJob((state) => state.recipe.artwork.actions);
  const edit = useJob((state) => state.edit);
  const size = computed.prepared?.frame ?? null;
  const add = (...added: Action[]) => edit((r) => addAction(r, ...added));
  const id = nextActionId(actions);
  const { tool } = desk;
  const crop = tool?.kind === "crop" ? (find(actions, "crop", tool.id) ?? null) : null;
  const sheet = tool?.kind === "corners" ? (find(actions, "keystone", tool.id) ?? null) : null;
  const straightened = actions.findLast((action) => action.kind === "straighten");
  const done = () => change({ tool: null, focusId: null });
  const box = computed.prepared?.box ?? null;
  const isLoose = box && size && (box.width < size.width - 2 || box.height < size.height - 2);
  return (
    <>
      <Group title="Turn">
        <div className="flex flex-wrap gap-1.5 pb-1">
          <Button onClick={() => add({ id, isOn: true, kind: "turn", quarters: 3 })}>Quarter left</Button>
          <Button onClick={() => add({ id, isOn: true, kind: "turn", quarters: 1 })}>Quarter right</Button>
          <Button onClick={() => add({ id, isOn: true, kind: "flip", axis: "left-right" })}>Flip sideways</Button>
          <Button onClick={() => add({ id, isOn: true, kind: "flip", axis: "top-bottom" })}>Flip over</Button>
        </div>
        <NumberField
          label="Straighten by"
          value={straightened?.angleDeg ?? 0}
          unit="°"
          min={-45}
          max={45}
          stepBy={0.1}
          hint="Clockwise; or draw a line along something level"
          onChange={(angleDeg) => {
            if (straightened) edit((r) => changeAction(r, { ...straightened, angleDeg }));
            else if (angleDeg !== 0) add({ id, isOn: true, kind: "straighten", angleDeg });
          }}
        />
        <Button
          aria-pressed={tool?.kind === "level"}
          className={tool?.kind === "level" ? "border-ink bg-sheet" : ""}
          onClick={() => change({ tool: tool?.kind === "level" ? null : { kind: "level" }, focusId: null })}
        >
          Draw a level line
        </Button>
      </Group>
      <TrimGroup ask={ask} actions={actions} add={add} desk={desk} change={change} />
      <Group title="Crop">
        {crop ? (
          <>
            {(["x", "y", "width", "height"] as const).map((side) => (
              <NumberField
                key={side}
                label={{ x: "From the left", y: "From the top", width: "Crop width", height: "Crop height" }[side]}
                value={Math.round(crop[side])}
                unit="px"
                min={side === "x" || side === "y" ? 0 : 1}
                max={100_000}
                stepBy={1}
                hint={
                  side === "height"
                    ? `${(crop.width * mmPerPx).toFixed(1)} × ${(crop.height * mmPerPx).toFixed(1)} mm of the whole`
                    : undefined
                }
                onChange={(value) => edit((r) => changeAction(r, { ...crop, [side]: value }))}
              />
            ))}
            <div className="flex gap-1.5 pt-1">
              <Button look="next" onClick={done}>
                Done
              </Button>
              <Button
                onClick={() => {
                  done();
                  edit((r) => removeAction(r, crop.id));
                }}
              >
                No crop
              </Button>
            </div>
          </>
        ) : (
          <div className="flex flex-wrap gap-1.5">
            <Button
              disabled={!size}
              onClick={() => {
                if (!size) return;
                // All of it: nothing goes before the frame is dragged.
                add({ id, isOn: true, kind: "crop", x: 0, y: 0, width: size.width, height: size.height });
                change({ tool: { kind: "crop", id }, focusId: id });
              }}
            >
              Crop by hand
            </Button>
            <Button
              disabled={!isLoose}
              title="Cuts off what is clear all round"
              onClick={() => box && add({ id, isOn: true, kind: "crop", ...box })}
            >
              Crop to the design
            </Button>
          </div>
        )}
      </Group>
      <Group title="Photographed sheet">
        {sheet ? (
          <SheetSettings sheet={sheet} onDone={done} />
        ) : (
          <Button
            disabled={!size}
            onClick={async () => {
              if (!size) return;
              const found = await ask("trim", null);
              const inset = { x: size.width / 10, y: size.height / 10 };
              const [a, b, c, d] = found?.corners ?? [
                { x: inset.x, y: inset.y },
                { x: size.width - inset.x, y: inset.y },
                { x: size.width - inset.x, y: size.height - inset.y },
                { x: inset.x, y: size.height - inset.y },
              ];
              const corners = [a, b, c, d].map(({ x, y }) => ({
                x: Math.round(x * 10) / 10,
                y: Math.round(y * 10) / 10,
              }));
              add({
                id,
                isOn: true,
                kind: "keystone",
                corners: [corners[0], corners[1], corners[2], corners[3]],
                ratio: null,
              });
              change({ tool: { kind: "corners", id }, focusId: id });
            }}
          >
            Lay flat by four corners
          </Button>
        )}
      </Group>
    </>
  );
}

function find<K extends Action["kind"]>(actions: readonly Action[], kind: K, id: string): ActionOf<K> | undefined {
  return actions.find((action): action is ActionOf<K> => action.id === id && action.kind === kind);
}

interface TrimProps extends Pick<SectionProps, "ask" | "desk" | "change"> {
  readonly actions: readonly Action[];
  add(...added: Action[]): void;
}

/** Looks for the sheet in a scan and says what it would do; the person accepts it or not. */
function TrimGroup({ ask, actions, add, desk, change }: TrimProps) {
  const proposal = desk.trim;
  const setProposal = (trim: typeof proposal) => change({ trim });
  const look = async () => {
    const found = await ask("trim", null);
    if (found !== undefined) setProposal(found ?? "none");
  };
  const accept = ({ angleDeg, crop }: TrimProposal) => {
    const first = Number(nextActionId(actions).slice(1));
    const turn: Action[] = angleDeg === 0 ? [] : [{ id: `a${first}`, isOn: true, kind: "straighten", angleDeg }];
    add(...turn, { id: `a${first + 1}`, isOn: true, kind: "crop", ...crop });
    setProposal(null);
  };
  return (
    <Group title="Trim the scan">
      {proposal === null && <Button onClick={() => void look()}>Look for the sheet</Button>}
      {proposal === "none" && (
        <p role="status" className="text-xs text-soft">
          No edge of a sheet is seen: paper fills the picture, or the surround is as light as the paper.{" "}
          <button type="button" className="underline" onClick={() => setProposal(null)}>
            Good
          </button>
        </p>
      )}
      {proposal !== null && proposal !== "none" && (
        <div role="status">
          <p>
            The sheet lies <b>{Math.abs(proposal.angleDeg).toFixed(2)}°</b> crooked; inside its edges and shadows{" "}
            <b>
              {proposal.crop.width} × {proposal.crop.height} px
            </b>{" "}
            are left.
          </p>
          {proposal.leanDeg > LEANS && (
            <p className="text-xs text-wrong">
              Its sides lean by {proposal.leanDeg.toFixed(1)}°: it was photographed at an angle. Lay it flat by its
              corners instead.
            </p>
          )}
          <div className="flex gap-1.5 pt-1.5">
            <Button look="next" onClick={() => accept(proposal)}>
              Straighten and crop
            </Button>
            <Button onClick={() => setProposal(null)}>Leave it</Button>
          </div>
        </div>
      )}
    </Group>
  );
}

/** Proportions of sheets: ISO 216 (1 : root 2), and the quarto of American paper (8.5 x 11 in). */
const SHEETS = [
  { value: "seen", text: "As seen", ratio: null },
  { value: "a-tall", text: "A4 tall", ratio: Math.SQRT1_2 },
  { value: "a-wide", text: "A4 wide", ratio: Math.SQRT2 },
  { value: "letter", text: "Letter", ratio: 8.5 / 11 },
] as const;
const CORNER_NAMES = ["Top left", "Top right", "Bottom right", "Bottom left"] as const;

function SheetSettings({ sheet, onDone }: { sheet: ActionOf<"keystone">; onDone(): void }) {
  const edit = useJob((state) => state.edit);
  const set = (part: Partial<ActionOf<"keystone">>) => edit((r) => changeAction(r, { ...sheet, ...part }));
  const shape = SHEETS.find(({ ratio }) => ratio === sheet.ratio || Math.abs((ratio ?? 0) - (sheet.ratio ?? 9)) < 1e-6);
  const moveCorner = (i: number, to: { x: number; y: number }) => {
    const [a, b, c, d] = sheet.corners.map((corner, j) => (j === i ? to : corner));
    set({ corners: [a, b, c, d] });
  };
  return (
    <>
      <div className="pb-1">
        <Choice
          label="Shape of the sheet"
          isSmall
          value={shape?.value ?? "seen"}
          options={SHEETS}
          onChange={(value) => set({ ratio: SHEETS.find((one) => one.value === value)?.ratio ?? null })}
        />
      </div>
      {sheet.corners.map((corner, i) => (
        <div key={CORNER_NAMES[i]} className="grid grid-cols-2 gap-x-3">
          {(["x", "y"] as const).map((axis) => (
            <NumberField
              key={axis}
              label={`${CORNER_NAMES[i]} ${axis}`}
              value={corner[axis]}
              unit=""
              min={-100_000}
              max={200_000}
              stepBy={1}
              isNarrow
              onChange={(value) => moveCorner(i, { ...corner, [axis]: value })}
            />
          ))}
        </div>
      ))}
      <div className="flex gap-1.5 pt-1">
        <Button look="next" onClick={onDone}>
          Done
        </Button>
        <Button
          onClick={() => {
            onDone();
            edit((r) => removeAction(r, sheet.id));
          }}
        >
          Leave it
        </Button>
      </div>
    </>
  );
}
