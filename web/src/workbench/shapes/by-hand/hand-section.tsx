// Shapes by hand: the way of working, its settings, counts before and after, and all that was done.
import type { RefObject } from "react";
import type { Computed } from "../../../compute/use-compute.ts";
import type { TableControls } from "../../../light-table/use-table-view.ts";
import { Choice } from "../../../parts/choice.tsx";
import { Fact, Group } from "../../panel.tsx";
import { BrushGroup, DrawGroup, PartGroup } from "./draw-groups.tsx";
import { EditList } from "./edit-list.tsx";
import type { HandDesk, HandMode } from "./hand-desk.ts";
import { LinesGroup } from "./lines-group.tsx";
import { PiecesGroup } from "./pieces-group.tsx";

const MODES: readonly { readonly value: HandMode; readonly text: string }[] = [
  { value: "lines", text: "Lines" },
  { value: "pieces", text: "Pieces" },
  { value: "draw", text: "Draw" },
  { value: "part", text: "Part, join" },
  { value: "brush", text: "Brush" },
];

interface Props {
  readonly desk: HandDesk;
  readonly computed: Computed;
  readonly table: RefObject<TableControls | null>;
}

export function HandSection({ desk, computed, table }: Props) {
  const { mode, refusal, letGo, change } = desk;
  const spots = computed.traced?.spots ?? [];
  const traced = computed.traced;
  return (
    <>
      <div className="pb-3">
        <Choice
          label="Work on"
          value={mode}
          options={MODES}
          isSmall
          onChange={(value: HandMode) => {
            letGo();
            change({ mode: value });
          }}
        />
      </div>
      <p role="status" className={refusal ? "pb-2 text-xs text-wrong" : ""}>
        {refusal}
      </p>
      {mode === "lines" && <LinesGroup desk={desk} />}
      {mode === "pieces" && <PiecesGroup desk={desk} spots={spots} />}
      {mode === "draw" && <DrawGroup desk={desk} spots={spots} />}
      {mode === "part" && <PartGroup desk={desk} spots={spots} />}
      {mode === "brush" && <BrushGroup desk={desk} />}
      {traced && (
        <Group title="As traced, and now">
          <dl>
            <Fact label="Shapes">
              {traced.asTraced.shapes} → <b data-testid="hand-shapes">{traced.counts.shapes}</b>
            </Fact>
            <Fact label="Nodes">
              {traced.asTraced.nodes} → <b data-testid="hand-nodes">{traced.counts.nodes}</b>
            </Fact>
          </dl>
        </Group>
      )}
      <EditList
        desk={desk}
        spots={spots}
        misfits={traced?.misfits ?? new Map()}
        showPlace={(x, y) => table.current?.showPlace(x, y)}
      />
    </>
  );
}
