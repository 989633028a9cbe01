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
import { boundsOf, linePath, nearestOnSegment, pathArea, velocityOn } from "@plain-palette/core/geometry";
import { Button } from "../../../parts/button.tsx";
import { Choice } from "../../../parts/choice.tsx";
import { count } from "../../../parts/count.ts";
import { MmField } from "../../../parts/fields.tsx";
import { Group } from "../../panel.tsx";
import type { HandDesk } from "./hand-desk.ts";
import { nearestLine } from "./lines-tool.ts";
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
      <PickedSize desk={desk} />
      <NodeActs desk={desk} />
      {nodes.length === 1 && <NodePlace desk={desk} />}
    </Group>
  );
}

function PickedSize({ desk: { nodes, mmPerPx } }: { desk: HandDesk }) {
  const { left, top, right, bottom } = boundsOf(nodes.flatMap(({ x, y }) => [x, y]));
  const mm = (px: number) => (px * mmPerPx).toFixed(2);
  if (nodes.length === 0)
    return (
      <p role="status" className="text-xs text-soft">
        Nothing is picked. Click a node or a line on the table; with the keyboard, arrow keys carry the crosshair and
        Enter picks.
      </p>
    );
  return (
    <p role="status" className="text-xs">
      Picked: <span data-testid="picked-nodes">{count(nodes.length, "node")}</span>
      {nodes.length > 1 && `, ${mm(right - left)} × ${mm(bottom - top)} mm`}
    </p>
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
  const isPicked = refs.length > 0;
  const line = (axis: "x" | "y") => {
    if (!first) return;
    // Each picked node goes to the first one's level, however far that is.
    const places = nodes.map((one) => ({ ...one, [axis]: first[axis] }));
    const changes = moveNodes(edges, refs, (x, y) => (axis === "x" ? [first.x - x, 0] : [0, first.y - y]));
    takeLines(changes, { nodes: places });
  };
  const gap = nodes.length === 4 ? closeGap(edges, refs, OVERLAP_PX) : null;
  const onNodes: readonly Act[] = [
    { text: "Take out", canDo: isPicked, act: () => takeLines(removeNodes(edges, refs), { nodes: [], onLine: null }) },
    { text: "Smooth", canDo: isPicked, act: () => takeLines(shapeNodes(edges, refs, "smooth")) },
    { text: "Corner", canDo: isPicked, act: () => takeLines(shapeNodes(edges, refs, "corner")) },
    { text: "Level", canDo: nodes.length > 1, act: () => line("y") },
    { text: "Upright", canDo: nodes.length > 1, act: () => line("x") },
    { text: "All of the shape", canDo: isPicked, act: () => change({ nodes: allOfShape(desk), onLine: null }) },
  ];
  const onLines: readonly Act[] = [
    { text: "Put a node in", canDo: onLine !== null, act: () => putNodeIn(desk) },
    { text: "Straight", canDo: segments.length > 0, act: () => takeLines(shapeSegments(edges, segments, "straight")) },
    { text: "Curved", canDo: segments.length > 0, act: () => takeLines(shapeSegments(edges, segments, "curved")) },
    { text: "Neighbours one", canDo: onLine !== null, act: () => makeOne(desk) },
    { text: "Break here", canDo: nodes.length === 2, act: () => breakBetween(desk) },
    { text: "Close the ring", canDo: gap !== null, act: () => gap && closeRing(desk, gap) },
  ];
  return (
    <>
      <Acts title="The nodes" acts={onNodes} />
      <Acts title="The lines between them" acts={onLines} />
      <p className="text-xs text-soft">
        Arrow keys move by 0.1 mm, with Shift by 1 mm; Delete takes out. Break: between two nodes. Close the ring: pick
        the two nodes at either end.
      </p>
    </>
  );
}

interface Act {
  readonly text: string;
  readonly canDo: boolean;
  act(): void;
}

function Acts({ title, acts }: { title: string; acts: readonly Act[] }) {
  return (
    <fieldset className="py-1">
      <legend className="text-xs text-soft">{title}</legend>
      <div className="flex flex-wrap gap-1">
        {acts.map(({ text, canDo, act }) => (
          <Button key={text} className="px-2 py-0.5" disabled={!canDo} onClick={act}>
            {text}
          </Button>
        ))}
      </div>
    </fieldset>
  );
}

function closeRing({ take, lineToSource }: HandDesk, { curve, spotId }: { curve: Float64Array; spotId: string }): void {
  const figure = { kind: "outline" as const, curves: [lineToSource(curve)] };
  take({ kind: "draw", act: "join", figure, spotId }, { nodes: [] });
}

function putNodeIn({ edges, onLine, takeLines }: HandDesk): void {
  const found = onLine && nearestLine(edges, onLine, 1);
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

/** How far beside a line its neighbours are looked for, px. */
const BESIDE_PX = 0.6;

/** The smaller of the two shapes beside the clicked line takes the other's spot: the boundary between them is gone. */
function makeOne(desk: HandDesk): void {
  const { edges, refs, onLine, faces, take, toSource, change } = desk;
  const [segment] = segmentsBetween(edges, refs);
  const path = segment && edges[segment.edge]?.path;
  if (!onLine || !segment || !path) return;
  const at = nearestOnSegment(path, segment.s, onLine.x, onLine.y).at - segment.s;
  const [vx, vy] = velocityOn(path, segment.s, at);
  const length = Math.hypot(vx, vy) || 1;
  const beside = [1, -1].map((side) => ({
    x: onLine.x + (side * BESIDE_PX * vy) / length,
    y: onLine.y - (side * BESIDE_PX * vx) / length,
  }));
  const found = beside.flatMap((place) => {
    const face = faces[shapeAt(faces, place)];
    return face ? [{ place, face, area: Math.abs(face.paths.reduce((sum, one) => sum + pathArea(one), 0)) }] : [];
  });
  const [small, large] = found.sort((a, b) => a.area - b.area);
  if (!small || !large || small.face === large.face) {
    change({ refusal: "There is a shape on one side of this line only." });
    return;
  }
  const picks = [{ at: toSource(small.place), spotId: small.face.spotId }];
  take({ kind: "pieces", picks, stays: { spotId: large.face.spotId } }, { nodes: [], onLine: null });
}
