// Nodes and lines: what can be done with those that are picked.
import {
  addNode,
  closeGap,
  moveNodes,
  removeNodes,
  segmentsBetween,
  shapeNodes,
  shapeSegments,
} from "@plain-palette/core/edit";
import { boundsOf, linePath, nearestOnPath } from "@plain-palette/core/geometry";
import { Button } from "../../../parts/button.tsx";
import { Choice } from "../../../parts/choice.tsx";
import { MmField } from "../../../parts/fields.tsx";
import { Fact, Group } from "../../panel.tsx";
import type { HandDesk } from "./hand-desk.ts";
import { shapeAt } from "./pieces-tool.ts";

/** How far an outline that closes a ring reaches into it, px. */
const OVERLAP_PX = 2;

export function LinesGroup({ desk }: { desk: HandDesk }) {
  const { nodes, picksBy, change } = desk;
  return (
    <Group title="Nodes and lines">
      <div className="flex items-center justify-between gap-2 pb-1">
        <span>Pick several by a</span>
        <Choice
          label="Pick several by a"
          value={picksBy}
          options={[
            { value: "box", text: "Box" },
            { value: "loop", text: "Loop" },
          ]}
          onChange={(value: "box" | "loop") => change({ picksBy: value })}
        />
      </div>
      {nodes.length === 0 ? (
        <p className="text-xs text-soft">
          Nothing is picked. Click a node or a line on the table; with the keyboard, arrow keys carry the crosshair and
          Enter picks.
        </p>
      ) : (
        <>
          <PickedSize desk={desk} />
          <NodeActs desk={desk} />
          {nodes.length === 1 && <NodePlace desk={desk} />}
        </>
      )}
    </Group>
  );
}

function PickedSize({ desk: { nodes, mmPerPx } }: { desk: HandDesk }) {
  const { left, top, right, bottom } = boundsOf(nodes.flatMap(({ x, y }) => [x, y]));
  const mm = (px: number) => (px * mmPerPx).toFixed(2);
  return (
    <dl>
      <Fact label="Picked">
        <span data-testid="picked-nodes">{nodes.length === 1 ? "1 node" : `${nodes.length} nodes`}</span>
        {nodes.length > 1 && `, ${mm(right - left)} × ${mm(bottom - top)} mm`}
      </Fact>
    </dl>
  );
}

/** Where the one picked node is, in millimetres from the picture's corner. */
function NodePlace({ desk }: { desk: HandDesk }) {
  const { nodes, mmPerPx, moveNodesBy } = desk;
  const [node] = nodes;
  if (!node) return null;
  return (
    <>
      <MmField
        label="Across"
        valueMm={Number((node.x * mmPerPx).toFixed(3))}
        min={-2000}
        max={4000}
        onChange={(mm) => moveNodesBy(mm / mmPerPx - node.x, 0)}
      />
      <MmField
        label="Down"
        valueMm={Number((node.y * mmPerPx).toFixed(3))}
        min={-2000}
        max={4000}
        onChange={(mm) => moveNodesBy(0, mm / mmPerPx - node.y)}
      />
    </>
  );
}

function NodeActs({ desk }: { desk: HandDesk }) {
  const { edges, refs, nodes, onLine, takeLines, change } = desk;
  const segments = segmentsBetween(edges, refs);
  const [first] = nodes;
  const line = (axis: "x" | "y") => {
    if (!first) return;
    // Each picked node goes to the first one's level, however far that is.
    const places = nodes.map((one) => ({ ...one, [axis]: first[axis] }));
    const changes = moveNodes(edges, refs, (x, y) => (axis === "x" ? [first.x - x, 0] : [0, first.y - y]));
    takeLines(changes, { nodes: places });
  };
  const gap = nodes.length === 4 ? closeGap(edges, refs, OVERLAP_PX) : null;
  const acts: readonly { text: string; canDo: boolean; act: () => void }[] = [
    { text: "Take out", canDo: true, act: () => takeLines(removeNodes(edges, refs), { nodes: [], onLine: null }) },
    { text: "Put a node in", canDo: onLine !== null, act: () => putNodeIn(desk) },
    { text: "Smooth", canDo: true, act: () => takeLines(shapeNodes(edges, refs, "smooth")) },
    { text: "Corner", canDo: true, act: () => takeLines(shapeNodes(edges, refs, "corner")) },
    { text: "Straight", canDo: segments.length > 0, act: () => takeLines(shapeSegments(edges, segments, "straight")) },
    { text: "Curved", canDo: segments.length > 0, act: () => takeLines(shapeSegments(edges, segments, "curved")) },
    { text: "Level", canDo: nodes.length > 1, act: () => line("y") },
    { text: "Upright", canDo: nodes.length > 1, act: () => line("x") },
    { text: "All of the shape", canDo: true, act: () => change({ nodes: allOfShape(desk), onLine: null }) },
    { text: "Break here", canDo: nodes.length === 2, act: () => breakBetween(desk) },
    {
      text: "Close the ring",
      canDo: gap !== null,
      act: () =>
        gap &&
        desk.take(
          {
            kind: "draw",
            act: "join",
            figure: { kind: "outline", curves: [desk.lineToSource(gap.curve)] },
            spotId: gap.spotId,
          },
          { nodes: [] },
        ),
    },
  ];
  return (
    <>
      <div className="flex flex-wrap gap-1 py-1">
        {acts.map(({ text, canDo, act }) => (
          <Button key={text} className="px-2 py-0.5 text-xs" disabled={!canDo} onClick={act}>
            {text}
          </Button>
        ))}
      </div>
      <p className="text-xs text-soft">
        Arrow keys move by 0.1 mm, with Shift by 1 mm; Delete takes out. Break: between two nodes. Close the ring: pick
        the two nodes at either end.
      </p>
    </>
  );
}

function putNodeIn({ edges, onLine, takeLines }: HandDesk): void {
  if (!onLine) return;
  let best: { edge: number; at: number } | null = null;
  let least = 1;
  edges.forEach(({ path }, edge) => {
    const found = nearestOnPath(path, onLine.x, onLine.y, least);
    if (found && found.distance < least) {
      least = found.distance;
      best = { edge, at: found.at };
    }
  });
  const found = best as { edge: number; at: number } | null;
  if (found) takeLines(addNode(edges, found.edge, found.at), { nodes: [onLine], onLine: null });
}

/** Nodes of the edges to which picked nodes belong. */
function allOfShape({ edges, refs }: HandDesk) {
  const own = new Set(refs.map(({ edge }) => edge));
  const places = new Map<string, { x: number; y: number }>();
  for (const e of own) {
    const path = edges[e]?.path ?? [];
    for (let i = 0; i < path.length; i += 6) {
      const [x, y] = [path[i] ?? 0, path[i + 1] ?? 0];
      places.set(`${x} ${y}`, { x, y });
    }
  }
  return [...places.values()];
}

/** A cut from one picked node to the other, through the shape that lies between them. */
function breakBetween(desk: HandDesk): void {
  const { nodes, take, lineToSource, faces } = desk;
  const [a, b] = nodes;
  if (!a || !b) return;
  const middle = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
  const spotId = faces[shapeAt(faces, middle)]?.spotId;
  if (!spotId) return;
  take({ kind: "cut", curve: lineToSource(linePath([a.x, a.y, b.x, b.y])), spotId }, { nodes: [] });
}
