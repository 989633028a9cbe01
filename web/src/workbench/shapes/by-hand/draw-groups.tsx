// Settings of what is drawn: figures, lines that part or join, the brush.
import type { Spot } from "@plain-palette/core/reduce";
import { Button } from "../../../parts/button.tsx";
import { Choice } from "../../../parts/choice.tsx";
import { CheckField, MmField, NumberField } from "../../../parts/fields.tsx";
import { SelectField } from "../../../parts/select-field.tsx";
import { Group } from "../../panel.tsx";
import { closeOutline, drawnSpot } from "./draw-tool.ts";
import {
  type BrushSettings,
  type DrawSettings,
  type FigureKind,
  type HandDesk,
  type PartSettings,
  sourceScale,
} from "./hand-desk.ts";

interface Props {
  readonly desk: HandDesk;
  readonly spots: readonly Spot[];
}

const FIGURES: readonly { readonly value: FigureKind; readonly text: string }[] = [
  { value: "circle", text: "Circle" },
  { value: "ellipse", text: "Ellipse" },
  { value: "rectangle", text: "Rectangle" },
  { value: "polygon", text: "Regular polygon" },
  { value: "line", text: "Straight line" },
  { value: "curve", text: "Free line" },
  { value: "outline", text: "Outline by nodes" },
];

const GARMENT = { value: "", text: "The garment (a hole)" };

function spotOptions(spots: readonly Spot[]) {
  return [...spots.map(({ id, name }) => ({ value: id, text: name })), GARMENT];
}

export function DrawGroup({ desk, spots }: Props) {
  const { draw, outline, change } = desk;
  const set = (part: Partial<DrawSettings>) => change({ draw: { ...draw, ...part } });
  const { figure } = draw;
  const isBox = figure === "ellipse" || figure === "rectangle";
  const isAcross = isBox || figure === "circle" || figure === "polygon";
  return (
    <Group title="Draw">
      <SelectField
        label="Figure"
        value={figure}
        options={FIGURES}
        onChange={(value) => set({ figure: value as FigureKind })}
      />
      <SelectField
        label="In"
        value={drawnSpot(desk) ?? ""}
        options={spotOptions(spots)}
        onChange={(value) => set({ spotId: value === "" ? null : value })}
      />
      {isAcross && (
        <MmField
          label={isBox ? "Width" : "Diameter"}
          valueMm={draw.widthMm}
          min={0.05}
          max={2000}
          hint="As typed where it is only clicked; a drag draws its own size."
          onChange={(widthMm) => set({ widthMm })}
        />
      )}
      {isBox && (
        <MmField
          label="Height"
          valueMm={draw.heightMm}
          min={0.05}
          max={2000}
          onChange={(heightMm) => set({ heightMm })}
        />
      )}
      {figure === "rectangle" && (
        <MmField
          label="Rounded corners"
          valueMm={draw.radiusMm}
          min={0}
          max={500}
          onChange={(radiusMm) => set({ radiusMm })}
        />
      )}
      {figure === "polygon" && (
        <NumberField
          label="Corners"
          value={draw.corners}
          unit=""
          min={3}
          max={24}
          stepBy={1}
          onChange={(corners) => set({ corners: Math.round(corners) })}
        />
      )}
      {(figure === "line" || figure === "curve") && (
        <MmField label="Line width" valueMm={draw.lineMm} min={0.05} max={200} onChange={(lineMm) => set({ lineMm })} />
      )}
      {isAcross && (
        <CheckField
          label="Hold its measure"
          hint="No simplifying changes it, nor another print size"
          isOn={draw.isHeld}
          onChange={(isHeld) => set({ isHeld })}
        />
      )}
      <DrawnNumbers desk={desk} />
      {figure === "outline" && outline.length > 0 && (
        <div className="flex gap-2 pt-1">
          <Button disabled={outline.length < 6} onClick={() => closeOutline(desk)}>
            Close it
          </Button>
          <Button onClick={() => change({ outline: outline.slice(0, -2) })}>Last node out</Button>
        </div>
      )}
    </Group>
  );
}

/** The figure in hand, by its numbers: its size and where its middle is. */
function DrawnNumbers({ desk }: { desk: HandDesk }) {
  const { inHand, changeInHand, mmPerPx, toSource, toPrepared } = desk;
  if (inHand?.kind !== "draw" || !("at" in inHand.figure)) return null;
  const { figure, heldMm } = inHand;
  const perMm = sourceScale(desk) / mmPerPx;
  const middle = toPrepared(figure.at);
  const put = (x: number, y: number) => changeInHand({ ...inHand, figure: { ...figure, at: toSource({ x, y }) } });
  const size = (mm: number) => {
    const grown = { ...figure, width: mm * perMm };
    const isCircle = figure.kind === "ellipse" && figure.width === figure.height;
    return {
      ...inHand,
      figure: isCircle ? { ...grown, height: mm * perMm } : grown,
      heldMm: heldMm === null ? null : mm,
    };
  };
  return (
    <fieldset className="mt-2 border-t border-rule pt-1">
      <legend className="font-semibold">The one in hand</legend>
      <MmField
        label="Its width"
        valueMm={Number((heldMm ?? figure.width / perMm).toFixed(4))}
        min={0.05}
        max={2000}
        onChange={(mm) => changeInHand(size(mm))}
      />
      <MmField
        label="Its middle across"
        valueMm={Number((middle.x * mmPerPx).toFixed(3))}
        min={-2000}
        max={4000}
        onChange={(mm) => put(mm / mmPerPx, middle.y)}
      />
      <MmField
        label="Its middle down"
        valueMm={Number((middle.y * mmPerPx).toFixed(3))}
        min={-2000}
        max={4000}
        onChange={(mm) => put(middle.x, mm / mmPerPx)}
      />
    </fieldset>
  );
}

export function PartGroup({ desk, spots }: Props) {
  const { part, change } = desk;
  const set = (more: Partial<PartSettings>) => change({ part: { ...part, ...more } });
  return (
    <Group title="Part and join">
      <Choice
        label="Part or join"
        value={part.act}
        options={[
          { value: "part", text: "Part a shape" },
          { value: "join", text: "Join two" },
        ]}
        onChange={(act: PartSettings["act"]) => set({ act })}
      />
      {part.act === "part" ? (
        <>
          <MmField
            label="Gap"
            valueMm={part.gapMm}
            min={0}
            max={100}
            hint={part.gapMm === 0 ? "Just parted: two shapes that touch." : undefined}
            onChange={(gapMm) => set({ gapMm })}
          />
          {part.gapMm > 0 && (
            <SelectField
              label="The gap becomes"
              value={part.becomes ?? ""}
              options={spotOptions(spots)}
              onChange={(value) => set({ becomes: value === "" ? null : value })}
            />
          )}
        </>
      ) : (
        <MmField
          label="Bridge"
          valueMm={part.bridgeMm}
          min={0.05}
          max={100}
          onChange={(bridgeMm) => set({ bridgeMm })}
        />
      )}
      <CheckField
        label="Free line"
        hint="As the hand goes, not straight"
        isOn={part.isFree}
        onChange={(isFree) => set({ isFree })}
      />
    </Group>
  );
}

export function BrushGroup({ desk }: { desk: HandDesk }) {
  const { brush, change } = desk;
  const set = (more: Partial<BrushSettings>) => change({ brush: { ...brush, ...more } });
  return (
    <Group title="Smooth or straighten">
      <Choice
        label="What the brush does"
        value={brush.does}
        options={[
          { value: "smooth", text: "Smooth" },
          { value: "straighten", text: "Straighten" },
        ]}
        onChange={(does: BrushSettings["does"]) => set({ does })}
      />
      <MmField
        label="Reach"
        valueMm={brush.radiusMm}
        min={0.1}
        max={100}
        hint="Boundaries nearer to the brush than this change."
        onChange={(radiusMm) => set({ radiusMm })}
      />
      {brush.does === "smooth" && (
        <MmField
          label="Strength"
          valueMm={brush.strengthMm}
          min={0.05}
          max={50}
          hint="Lumps shorter than this go."
          onChange={(strengthMm) => set({ strengthMm })}
        />
      )}
      <CheckField label="Keep corners" isOn={brush.keepsCorners} onChange={(keepsCorners) => set({ keepsCorners })} />
    </Group>
  );
}
