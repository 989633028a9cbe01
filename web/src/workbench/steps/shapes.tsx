// Shapes: how closely curves follow the picture, and what is too small to keep.
import type { Computed } from "../../compute/use-compute.ts";
import { useJob } from "../../job/use-job.ts";
import { NumberField } from "../../parts/fields.tsx";
import { Fact, Group, Panel } from "./panel.tsx";

/** Nodes per shape above which a trace follows noise rather than drawing (common practice, no source). */
const MANY_NODES = 40;
const MANY_SHAPES = 1500;

function verdict(shapes: number, nodes: number): string {
  if (shapes === 0) return "Nothing to trace: every colour is dropped.";
  if (shapes > MANY_SHAPES) return "Very many shapes: raise the specks, or use fewer colours.";
  if (nodes / shapes > MANY_NODES) return "Many nodes for each shape: raise the tolerance.";
  return "A sane number for a drawing like this.";
}

export function ShapesStep({ computed, mmPerPx }: { computed: Computed; mmPerPx: number }) {
  const recipe = useJob((state) => state.recipe);
  const edit = useJob((state) => state.edit);
  const { tolerancePx, specksPx } = recipe.shapes;
  const set = (part: Partial<typeof recipe.shapes>) => edit((r) => ({ ...r, shapes: { ...r.shapes, ...part } }));
  const counts = computed.traced?.counts;
  return (
    <Panel step="shapes" next="separations">
      <Group title="Curves">
        <NumberField
          label="Tolerance"
          value={tolerancePx}
          unit="px"
          min={0.02}
          max={5}
          stepBy={0.05}
          hint={`${(tolerancePx * mmPerPx).toFixed(3)} mm on the garment: how far a curve may leave the boundary it stands for`}
          onChange={(value) => set({ tolerancePx: value })}
        />
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
      </Group>
      <Group title="What was traced">
        {counts ? (
          <>
            <dl>
              <Fact label="Shapes">
                <b data-testid="shape-count">{counts.shapes}</b>
              </Fact>
              <Fact label="Nodes, shared edges once">
                <b data-testid="node-count">{counts.nodes}</b>
              </Fact>
            </dl>
            <p className="mt-1 text-xs text-soft">{verdict(counts.shapes, counts.nodes)}</p>
          </>
        ) : (
          <p role="status">Tracing ...</p>
        )}
      </Group>
    </Panel>
  );
}
