// The hand among stones: takes one up and lays it elsewhere, sets new ones, ends a stretch; beside stones it picks areas.
import { holdsPlace } from "@plain-palette/core/area";
import type { Point } from "@plain-palette/core/raster";
import type { Stone, Stones } from "@plain-palette/core/stone";
import type { ToolInHand } from "../../light-table/tool.ts";
import { CHOSEN, outlineArea } from "../areas/on-table.ts";
import { type HandMode, type StoneDesk, stoneUnder } from "./stone-desk.ts";
import { ringStones } from "./stone-layers.ts";

/** A press that goes no farther takes a stone up and leaves it where it is, screen px. */
const STILL_PX = 4;

const HINTS: Readonly<Record<HandMode, string>> = {
  choose: "Click a stone to take it up, drag it to lay it elsewhere. Click beside stones to see how an area is set.",
  add: "Click where a stone is to lie.",
  spread: "Click the stone at the other end of the stretch.",
};

/** A stone that is being dragged: from where, to where, mm. */
export interface Drag {
  readonly from: Point;
  readonly to: Point;
}

interface Props {
  readonly made: Stones;
  readonly desk: StoneDesk;
  readonly mmPerPx: number;
  readonly drag: Drag | null;
  setDrag(drag: Drag | null): void;
}

export function stoneTool({ made, desk, mmPerPx, drag, setDrag }: Props): ToolInHand {
  const { stone, chosen, mode } = desk;
  const inMm = ({ x, y }: Point): Point => ({ x: x * mmPerPx, y: y * mmPerPx });
  const under = (place: Point) => stoneUnder(made.stones, place);
  return {
    tool: {
      hint: HINTS[mode],
      cursor: mode === "add" ? "crosshair" : drag ? "grabbing" : "default",
      onPress: (event) => {
        const place = inMm(event);
        if (mode === "add") {
          desk.add(place);
          return;
        }
        const found = under(place);
        if (mode === "spread") {
          if (found) desk.spreadTo(found);
          return;
        }
        desk.takeUp(found);
        if (found) setDrag({ from: place, to: place });
        desk.choose(found ? null : (made.areas.find(({ rings }) => holdsPlace(rings, place))?.face ?? null));
        if (!found) desk.setScope("area");
      },
      onDrag: (event) => drag && setDrag({ ...drag, to: inMm(event) }),
      onRelease: (event) => {
        if (drag && stone) {
          const to = inMm(event);
          const [dx, dy] = [to.x - drag.from.x, to.y - drag.from.y];
          if (Math.hypot(dx, dy) > STILL_PX * event.unitsPerPx * mmPerPx)
            desk.move({ x: stone.x + dx, y: stone.y + dy });
        }
        setDrag(null);
      },
    },
    overlays: [
      ...(chosen ? [outlineArea(chosen.rings, mmPerPx)] : []),
      ...(stone ? [ringStones([dragged(stone, drag)], mmPerPx, CHOSEN.colour)] : []),
    ],
  };
}

function dragged(stone: Stone, drag: Drag | null): Stone {
  return drag ? { ...stone, x: stone.x + drag.to.x - drag.from.x, y: stone.y + drag.to.y - drag.from.y } : stone;
}
