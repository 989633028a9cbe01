// How curves follow the picture, with what came of it: counts with a verdict, and the distance from the source.
import { RECIPE_LIMITS } from "@plain-palette/core/recipe";
import type { RefObject } from "react";
import type { TracedView } from "../../compute/messages.ts";
import { useJob } from "../../job/use-job.ts";
import type { TableControls } from "../../light-table/use-table-view.ts";
import { CheckField, MmField, NumberField } from "../../parts/fields.tsx";
import { SlideField } from "../../parts/slide.tsx";
import { Fact, Group } from "../panel.tsx";

/** Nodes per shape above which a trace follows noise rather than drawing (common practice, no source). */
const MANY_NODES = 40;
const MANY_SHAPES = 1500;
const TOLERANCE = RECIPE_LIMITS.tolerancePx;
/** The slide goes up to what drawings want; the fields take more. */
const SLIDE_MOST_PX = 2;

function verdict(shapes: number, nodes: number): string {
  if (shapes === 0) return "Nothing to trace: every colour is dropped.";
  if (shapes > MANY_SHAPES) return "Very many shapes: raise the specks, or use fewer colours.";
  if (nodes / shapes > MANY_NODES) return "Many nodes for each shape: raise the tolerance, or take fewer nodes.";
  return "A sane number for a drawing like this.";
}

interface Props {
  readonly traced: TracedView | null;
  readonly mmPerPx: number;
  readonly table: RefObject<TableControls | null>;
}

export function TraceSection({ traced, mmPerPx, table }: Props) {
  const { tolerancePx, cornerDeg, specksPx, thinnestPx, keepsText } = useJob((state) => state.recipe.shapes);
  const edit = useJob((state) => state.edit);
  const set = (part: Partial<Parameters<Parameters<typeof edit>[0]>[0]["shapes"]>) =>
    edit((r) => ({ ...r, shapes: { ...r.shapes, ...part } }));
  const setTolerance = (px: number) =>
    set({ tolerancePx: Number(Math.min(TOLERANCE.max, Math.max(TOLERANCE.min, px)).toFixed(4)) });
  return (
    <>
      <Group title="Curves">
        <SlideField
          label="Tolerance"
          value={Number(tolerancePx.toFixed(3))}
          unit="px"
          min={TOLERANCE.min}
          max={TOLERANCE.max}
          finest={0.01}
          slideMax={SLIDE_MOST_PX}
          stepBy={0.05}
          hint="How far a curve may leave the boundary it stands for."
          onChange={setTolerance}
        />
        <MmField
          label="The same on the garment"
          valueMm={Number((tolerancePx * mmPerPx).toFixed(4))}
          min={TOLERANCE.min * mmPerPx}
          max={TOLERANCE.max * mmPerPx}
          onChange={(mm) => setTolerance(mm / mmPerPx)}
        />
        <SlideField
          label="Corners from"
          value={cornerDeg}
          unit="°"
          min={5}
          max={85}
          hint="Turns of more than this stay sharp; gentler ones are rounded"
          onChange={(value) => set({ cornerDeg: value })}
        />
        {traced !== null && traced.fine > 0 && (
          <CheckField
            label="Keep small text crisp"
            hint={`${traced.fine} small shapes; they keep to 0.2 px whatever the tolerance`}
            isOn={keepsText}
            onChange={(isOn) => set({ keepsText: isOn })}
          />
        )}
      </Group>
      <Group title="Too small to keep">
        <NumberField
          label="Specks"
          value={specksPx}
          unit="px"
          min={0}
          max={100}
          stepBy={1}
          hint={`Regions up to ${specksPx} px square (${(specksPx * mmPerPx).toFixed(2)} mm) go to their neighbour, dark and light alike`}
          onChange={(value) => set({ specksPx: value })}
        />
        <NumberField
          label="Thinnest line kept"
          value={Number((thinnestPx * mmPerPx).toFixed(3))}
          unit="mm"
          min={0}
          max={Number((50 * mmPerPx).toFixed(3))}
          stepBy={0.05}
          hint={thinnestPx === 0 ? "All are kept" : "Thinner regions go to their neighbour"}
          onChange={(mm) => set({ thinnestPx: Number(Math.min(50, mm / mmPerPx).toFixed(4)) })}
        />
      </Group>
      <Group title="What was traced">
        {traced ? <Traced traced={traced} mmPerPx={mmPerPx} table={table} /> : <p role="status">Tracing ...</p>}
      </Group>
    </>
  );
}

function Traced({ traced, mmPerPx, table }: Props & { readonly traced: TracedView }) {
  const { counts, deviation } = traced;
  const both = (px: number) => `${(px * mmPerPx).toFixed(3)} mm, ${px.toFixed(2)} px`;
  return (
    <>
      <dl>
        <Fact label="Shapes">
          <b data-testid="shape-count">{counts.shapes}</b>
        </Fact>
        <Fact label="Nodes, shared edges once">
          <b data-testid="node-count">{counts.nodes}</b>
        </Fact>
      </dl>
      <p className="pb-1 text-xs text-soft">{verdict(counts.shapes, counts.nodes)}</p>
      {deviation?.worst && (
        <dl>
          <Fact label="From the source, mean">
            <span data-testid="mean-distance">{both(deviation.meanPx)}</span>
          </Fact>
          <Fact label="Largest">
            <button
              type="button"
              className="underline underline-offset-2"
              title="Show it on the table"
              onClick={() => deviation.worst && table.current?.showPlace(deviation.worst.x, deviation.worst.y)}
            >
              {both(deviation.largestPx)}
            </button>
          </Fact>
        </dl>
      )}
    </>
  );
}
