// Touch up: strokes, pieces, pinholes, specks, the silhouette.
import { scaleAt } from "@plain-palette/core/raster";
import { type Action, type ActionOf, nextActionId } from "@plain-palette/core/recipe";
import { useId } from "react";
import { useJob } from "../../job/use-job.ts";
import { Button } from "../../parts/button.tsx";
import { Choice } from "../../parts/choice.tsx";
import { MmField, NumberField, Row } from "../../parts/fields.tsx";
import { Group } from "../panel.tsx";
import type { Desk } from "./desk.ts";
import { addAction, changeAction } from "./edit-actions.ts";
import type { SectionProps } from "./section-props.ts";

const MODES = [
  { value: "erase", text: "Erase" },
  { value: "restore", text: "Restore", title: "Brings back what the client sent" },
  { value: "paint", text: "Paint" },
] as const;

export function TouchUpSection(props: SectionProps) {
  return (
    <>
      <BrushGroup {...props} />
      <PieceGroup {...props} />
      <SmallPartsGroup {...props} />
      <SilhouetteGroup />
    </>
  );
}

function BrushGroup({ computed, desk, change, mmPerPx }: SectionProps) {
  const actions = useJob((state) => state.recipe.artwork.actions);
  const edit = useJob((state) => state.edit);
  const stroke = actions.find((one): one is ActionOf<"stroke"> => one.id === desk.focusId && one.kind === "stroke");
  const frame = computed.prepared?.frame;
  const scale = frame ? scaleAt(frame.toSource, { x: frame.width / 2, y: frame.height / 2 }) : 1;
  const acrossMm = stroke ? (stroke.radiusPx * 2 * mmPerPx) / scale : desk.brush.acrossMm;
  const { mode, hex } = stroke ?? desk.brush;
  // A stroke that was taken up is changed; else the brush is.
  const set = (part: Partial<Desk["brush"]>) => {
    if (!stroke) change({ brush: { ...desk.brush, ...part } });
    else {
      const { acrossMm: across, ...rest } = part;
      const radiusPx = across === undefined ? stroke.radiusPx : Math.max(0.25, ((across / 2) * scale) / mmPerPx);
      edit((r) => changeAction(r, { ...stroke, ...rest, radiusPx }));
    }
  };
  const isBrushing = desk.tool?.kind === "brush";
  return (
    <Group title={stroke ? "This stroke" : "Brush"}>
      <div className="flex flex-wrap items-center gap-1.5">
        <Choice label="What the brush does" value={mode} options={MODES} onChange={(next) => set({ mode: next })} />
        {!stroke && (
          <Button
            aria-pressed={isBrushing}
            className={isBrushing ? "border-ink bg-sheet" : ""}
            onClick={() => change({ tool: isBrushing ? null : { kind: "brush" }, focusId: null, draft: null })}
          >
            {isBrushing ? "Put the brush down" : "Take the brush"}
          </Button>
        )}
      </div>
      <MmField
        label="Width of the stroke"
        valueMm={Number(acrossMm.toFixed(3))}
        min={0.05}
        max={500}
        hint="At print size. Shift draws straight lines, the space bar moves the table"
        onChange={(mm) => set({ acrossMm: mm })}
      />
      {mode === "paint" && <ColourField label="Colour" value={hex} onChange={(next) => set({ hex: next })} />}
    </Group>
  );
}

function PieceGroup({ desk, change }: SectionProps) {
  const actions = useJob((state) => state.recipe.artwork.actions);
  const edit = useJob((state) => state.edit);
  const { tool } = desk;
  const piece =
    tool?.kind === "carry"
      ? actions.find((one): one is ActionOf<"move-piece"> => one.id === tool.id && one.kind === "move-piece")
      : undefined;
  const cut = (shape: "lasso" | "rectangle") =>
    change({
      tool: tool?.kind === "cut" && tool.shape === shape ? null : { kind: "cut", shape },
      focusId: null,
      draft: null,
    });
  if (piece)
    return (
      <Group title="The piece">
        {(["dx", "dy"] as const).map((axis) => (
          <NumberField
            key={axis}
            label={axis === "dx" ? "Moved to the right" : "Moved down"}
            value={Math.round(piece[axis] * 10) / 10}
            unit="px"
            min={-100_000}
            max={100_000}
            stepBy={1}
            onChange={(value) => edit((r) => changeAction(r, { ...piece, [axis]: value }))}
          />
        ))}
        <div className="flex gap-1.5 pt-1">
          <Button look="next" onClick={() => change({ tool: null, focusId: null })}>
            Done
          </Button>
          <Button onClick={() => edit((r) => changeAction(r, { ...piece, dx: 0, dy: 0 }))}>Put it back</Button>
        </div>
      </Group>
    );
  return (
    <Group title="Move a piece">
      <div className="flex gap-1.5">
        {(["lasso", "rectangle"] as const).map((shape) => {
          const isHeld = tool?.kind === "cut" && tool.shape === shape;
          return (
            <Button
              key={shape}
              aria-pressed={isHeld}
              className={isHeld ? "border-ink bg-sheet" : ""}
              onClick={() => cut(shape)}
            >
              {shape === "lasso" ? "Cut round it freely" : "Cut a rectangle"}
            </Button>
          );
        })}
      </div>
    </Group>
  );
}

/** What is looked for by size: it is tried and counted first, and done when the person says so. */
function SmallPartsGroup({ computed, desk, change }: SectionProps) {
  const actions = useJob((state) => state.recipe.artwork.actions);
  const edit = useJob((state) => state.edit);
  const focus = computed.prepared?.focus;
  const existing = actions.find(
    (one): one is ActionOf<"specks" | "pinholes"> =>
      one.id === desk.focusId && (one.kind === "specks" || one.kind === "pinholes"),
  );
  const draft = desk.draft?.kind === "specks" || desk.draft?.kind === "pinholes" ? desk.draft : null;
  const current = existing ?? draft;
  const begin = (kind: "specks" | "pinholes") => {
    const id = nextActionId(actions);
    const action: Action =
      kind === "specks" ? { id, isOn: true, kind, maxPx: 12, which: "both" } : { id, isOn: true, kind, maxPx: 30 };
    change({ draft: action, focusId: id, tool: null });
  };
  const set = (changed: ActionOf<"specks" | "pinholes">) => {
    if (existing) edit((r) => changeAction(r, changed));
    else change({ draft: changed });
  };
  if (!current)
    return (
      <Group title="Small parts">
        <div className="flex gap-1.5">
          <Button onClick={() => begin("specks")}>Look for specks</Button>
          <Button onClick={() => begin("pinholes")}>Look for pinholes</Button>
        </div>
      </Group>
    );
  const count = focus?.id === current.id ? focus.count : null;
  const noun = current.kind === "specks" ? "speck" : "pinhole";
  const counted = count === null ? "Counting ..." : `${count} ${noun}${count === 1 ? "" : "s"}`;
  return (
    <Group title={current.kind === "specks" ? "Specks" : "Pinholes"}>
      {current.kind === "specks" && (
        <Choice
          label="Which specks"
          isSmall
          value={current.which}
          options={[
            { value: "both", text: "All" },
            { value: "dark", text: "Dark in light" },
            { value: "light", text: "Light in dark" },
          ]}
          onChange={(which) => set({ ...current, which })}
        />
      )}
      <NumberField
        label="Up to"
        value={current.maxPx}
        unit="px"
        min={1}
        max={1_000_000}
        stepBy={1}
        hint={
          <span role="status" data-testid="speck-count">
            {counted} marked on the table
          </span>
        }
        onChange={(value) => set({ ...current, maxPx: value })}
      />
      <div className="flex gap-1.5">
        {draft && !existing ? (
          <>
            <Button
              look="next"
              disabled={!count}
              onClick={() => {
                edit((r) => addAction(r, draft));
                change({ draft: null, focusId: null });
              }}
            >
              {current.kind === "specks" ? "Take them away" : "Fill them"}
            </Button>
            <Button onClick={() => change({ draft: null, focusId: null })}>Leave them</Button>
          </>
        ) : (
          <Button look="next" onClick={() => change({ focusId: null })}>
            Done
          </Button>
        )}
      </div>
    </Group>
  );
}

function SilhouetteGroup() {
  const actions = useJob((state) => state.recipe.artwork.actions);
  const edit = useJob((state) => state.edit);
  const silhouette = actions.find((one): one is ActionOf<"silhouette"> => one.kind === "silhouette");
  return (
    <Group title="Silhouette">
      {silhouette ? (
        <ColourField
          label="Whole design in"
          value={silhouette.hex}
          onChange={(hex) => edit((r) => changeAction(r, { ...silhouette, hex }))}
        />
      ) : (
        <Button
          onClick={() =>
            edit((r) => addAction(r, { id: nextActionId(actions), isOn: true, kind: "silhouette", hex: "#1e1d1a" }))
          }
        >
          Whole design in one colour
        </Button>
      )}
    </Group>
  );
}

function ColourField({ label, value, onChange }: { label: string; value: string; onChange(hex: string): void }) {
  const id = useId();
  return (
    <Row label={label} htmlFor={id}>
      <input
        id={id}
        type="color"
        value={value}
        onChange={(event) => onChange(event.target.value)}
        className="h-7 w-full cursor-pointer rounded-[3px] border border-rule bg-card p-0.5"
      />
    </Row>
  );
}
