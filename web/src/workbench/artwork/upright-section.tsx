// Upright: turns, flips, straightening, the crop, the trim of a scan, the corners of a photographed sheet.
import type { Corners, Point, TrimProposal } from "@plain-palette/core/raster";
import { type Action, type ActionOf, nextActionId } from "@plain-palette/core/recipe";
import type { PreparedPicture } from "../../compute/use-compute.ts";
import { useJob } from "../../job/use-job.ts";
import { Button } from "../../parts/button.tsx";
import { Choice } from "../../parts/choice.tsx";
import { NumberField } from "../../parts/fields.tsx";
import { Group } from "../panel.tsx";
import { addAction, changeAction, removeAction } from "./edit-actions.ts";
import { mapCorners, toTenths } from "./frame-tools.ts";
import type { SectionProps } from "./section-props.ts";

/** Above this the sides of a sheet lean so much that it was photographed, degrees. */
const LEANS = 1;

export function UprightSection({ computed, ask, desk, change, mmPerPx }: SectionProps) {
  const actions = useJob((state) => state.recipe.artwork.actions);
  const edit = useJob((state) => state.edit);
  const add = (...added: Action[]) => edit((r) => addAction(r, ...added));
  const done = () => change({ tool: null, focusId: null });
  const hand: Hand = { actions, desk, change, ask, add, done };
  return (
    <>
      <TurnGroup {...hand} />
      <TrimGroup {...hand} />
      <CropGroup {...hand} prepared={computed.prepared} mmPerPx={mmPerPx} />
      <SheetGroup {...hand} size={computed.prepared?.frame ?? null} />
    </>
  );
}

/** What every group works with. */
interface Hand extends Pick<SectionProps, "ask" | "desk" | "change"> {
  readonly actions: readonly Action[];
  add(...added: Action[]): void;
  /** Lays down what is in hand. */
  done(): void;
}

function TurnGroup({ actions, desk: { tool }, change, add }: Hand) {
  const edit = useJob((state) => state.edit);
  const id = nextActionId(actions);
  const straightened = actions.findLast((action) => action.kind === "straighten");
  const isLevelling = tool?.kind === "level";
  return (
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
        aria-pressed={isLevelling}
        className={isLevelling ? "border-ink bg-sheet" : ""}
        onClick={() => change({ tool: isLevelling ? null : { kind: "level" }, focusId: null })}
      >
        Draw a level line
      </Button>
    </Group>
  );
}

interface CropProps extends Hand {
  readonly prepared: PreparedPicture | null;
  readonly mmPerPx: number;
}

function CropGroup({ actions, desk: { tool }, change, add, done, prepared, mmPerPx }: CropProps) {
  const id = nextActionId(actions);
  const crop = tool?.kind === "crop" ? find(actions, "crop", tool.id) : undefined;
  if (crop)
    return (
      <Group title="Crop">
        <CropNumbers crop={crop} mmPerPx={mmPerPx} done={done} />
      </Group>
    );
  const size = prepared?.frame ?? null;
  const box = prepared?.box ?? null;
  const isLoose = box && size && (box.width < size.width - 2 || box.height < size.height - 2);
  return (
    <Group title="Crop">
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
    </Group>
  );
}

const SIDES = { x: "From the left", y: "From the top", width: "Crop width", height: "Crop height" } as const;

function CropNumbers({ crop, mmPerPx, done }: { crop: ActionOf<"crop"> } & Pick<CropProps, "mmPerPx" | "done">) {
  const edit = useJob((state) => state.edit);
  const inMm = `${(crop.width * mmPerPx).toFixed(1)} × ${(crop.height * mmPerPx).toFixed(1)} mm of the whole`;
  return (
    <>
      {(["x", "y", "width", "height"] as const).map((side) => (
        <NumberField
          key={side}
          label={SIDES[side]}
          value={Math.round(crop[side])}
          unit="px"
          min={side === "x" || side === "y" ? 0 : 1}
          max={100_000}
          stepBy={1}
          hint={side === "height" ? inMm : undefined}
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
  );
}

function SheetGroup({ actions, desk: { tool }, change, ask, add, done, size }: Hand & { size: Size | null }) {
  const sheet = tool?.kind === "corners" ? find(actions, "keystone", tool.id) : undefined;
  const layFlat = async () => {
    if (!size) return;
    const id = nextActionId(actions);
    const found = await ask("trim", null);
    const corners = mapCorners(found?.corners ?? insetCorners(size), toTenths);
    add({ id, isOn: true, kind: "keystone", corners, ratio: null });
    change({ tool: { kind: "corners", id }, focusId: id });
  };
  return (
    <Group title="Photographed sheet">
      {sheet ? (
        <SheetSettings sheet={sheet} onDone={done} />
      ) : (
        <Button disabled={!size} onClick={layFlat}>
          Lay flat by four corners
        </Button>
      )}
    </Group>
  );
}

type Size = { readonly width: number; readonly height: number };

/** Where corners begin that were not found: a tenth inside the picture. */
function insetCorners({ width, height }: Size): Corners {
  const [x, y] = [width / 10, height / 10];
  return [
    { x, y },
    { x: width - x, y },
    { x: width - x, y: height - y },
    { x, y: height - y },
  ];
}

function find<K extends Action["kind"]>(actions: readonly Action[], kind: K, id: string): ActionOf<K> | undefined {
  return actions.find((action): action is ActionOf<K> => action.id === id && action.kind === kind);
}

/** Looks for the sheet in a scan and says what it would do; the person accepts it or not. */
function TrimGroup({ ask, actions, add, desk, change }: Hand) {
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
  const moveCorner = (i: number, to: Point) =>
    set({ corners: mapCorners(sheet.corners, (corner, j) => (j === i ? to : corner)) });
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
