// What happens if film moves: how far it may, and where the shirt would show.
import { type Layering, TRANSFER_LIMITS, transfer } from "@plain-palette/core/transfer";
import { useJob } from "../../job/use-job.ts";
import { Button } from "../../parts/button.tsx";
import { CheckField, MmField, NumberField } from "../../parts/fields.tsx";
import { Group } from "../panel.tsx";
import { type BareShirt, lapFor, type Movement } from "./bare-shirt.ts";

/** What presses and hands do (from memory): film lies within half a millimetre and shrinks by half a percent. */
export const USUAL_MOVEMENT: Movement = { slipMm: 0.4, shrinkShare: 0.002 };

interface Props {
  readonly layering: Layering | null;
  readonly movement: Movement;
  onMovement(movement: Movement): void;
  readonly isShown: boolean;
  onShow(isShown: boolean): void;
  readonly bare: BareShirt | null;
}

export function MovementGroup({ layering, movement, onMovement, isShown, onShow, bare }: Props) {
  const edit = useJob((state) => state.edit);
  const lapMm = useJob((state) => transfer.settingsIn(state.recipe).lapMm);
  const needed = layering ? Math.ceil(lapFor(layering, movement) * 20) / 20 : null;
  const flush = layering?.layers.filter(({ mode }) => mode === "flush").slice(0, -1) ?? [];
  return (
    <Group title="If film moves">
      <CheckField label="Show where the shirt would show" isOn={isShown} onChange={onShow} />
      <MmField
        label="Slips by"
        valueMm={movement.slipMm}
        min={0}
        max={5}
        onChange={(slipMm) => onMovement({ ...movement, slipMm })}
      />
      <NumberField
        label="Shrinks by"
        value={Number((movement.shrinkShare * 100).toFixed(2))}
        unit="%"
        min={0}
        max={5}
        stepBy={0.1}
        onChange={(percent) => onMovement({ ...movement, shrinkShare: percent / 100 })}
      />
      {bare && (
        <p role="status" className={bare.areaMm2 > 0 ? "font-semibold" : ""}>
          {bare.areaMm2 > 0
            ? `${bare.areaMm2.toFixed(bare.areaMm2 < 10 ? 1 : 0)} mm² of shirt would show, marked on the table.`
            : "No shirt would show."}
        </p>
      )}
      {bare && bare.areaMm2 > 0 && flush.length > 0 && (
        <p className="pt-1 text-xs text-soft">
          Flush, so that no lap covers it: {flush.map(({ name }) => name).join(", ")}.
        </p>
      )}
      {needed !== null && needed > lapMm && needed <= TRANSFER_LIMITS.lapMm.max && (
        <div className="flex items-center justify-between gap-2 pt-1">
          <span className="text-xs text-soft">A lap of {needed.toFixed(2)} mm covers this much.</span>
          <Button onClick={() => edit((r) => transfer.withSettings(r, { lapMm: needed }))}>Use it</Button>
        </div>
      )}
    </Group>
  );
}
