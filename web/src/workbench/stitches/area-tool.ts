// The hand on an area: picks it, turns its rows by a handle, moves where the needle comes in and goes out.
import { holdsPlace, placeInside } from "@plain-palette/core/area";
import type { Point } from "@plain-palette/core/raster";
import type { SewnArea } from "@plain-palette/core/stitch";
import { GRIP_PX, type TableLayer } from "../../light-table/layers.ts";
import { makePolylinePath } from "../../light-table/pieces.ts";
import type { ToolInHand } from "../../light-table/tool.ts";
import { CHOSEN, outlineArea } from "../areas/on-table.ts";

/** Length of the handle that turns rows, mm; longer on a large area. */
const HANDLE_MM = 8;
/** Angles that are nearly round are round, degrees. */
const ROUND_DEG = 5;

/** Half of how far rings that nobody moved lie apart, mm. */
const READY_MM = 1.5;

export type Grip = "angle" | "start" | "stop";

/** What is in hand, and where it is. */
export interface Hand {
  readonly grip: Grip;
  /** mm of the design. */
  readonly at: Point;
}

interface Props {
  readonly areas: readonly SewnArea[];
  readonly chosen: SewnArea | null;
  readonly mmPerPx: number;
  readonly hand: Hand | null;
  setHand(hand: Hand | null): void;
  choose(face: number | null): void;
  /** Lets go: the rows' angle in degrees, or a place, mm. */
  turn(angleDeg: number): void;
  move(grip: "start" | "stop", place: Point): void;
}

export function areaTool(props: Props): ToolInHand {
  const { areas, chosen, mmPerPx, hand, setHand, choose, turn, move } = props;
  const inMm = ({ x, y }: Point): Point => ({ x: x * mmPerPx, y: y * mmPerPx });
  const middle = chosen && placeInside(chosen.rings);
  const grips = chosen && middle ? gripsOf(chosen, middle, hand) : [];
  return {
    tool: {
      hint: chosen
        ? "Click an area to see how it is sewn. Drag the handle to turn its rows, the rings to move start and stop."
        : "Click an area to see how it is sewn.",
      cursor: hand ? "grabbing" : "default",
      onPress: (event) => {
        const place = inMm(event);
        const reach = 2 * GRIP_PX * event.unitsPerPx * mmPerPx;
        const near = grips.find(({ at }) => Math.hypot(at.x - place.x, at.y - place.y) <= reach);
        if (near) setHand({ grip: near.grip, at: place });
        else choose(areas.find(({ rings }) => holdsPlace(rings, place))?.face ?? null);
      },
      onDrag: (event) => hand && setHand({ ...hand, at: inMm(event) }),
      onRelease: (event) => {
        if (!hand || !middle) return;
        const place = inMm(event);
        if (hand.grip === "angle") turn(angleTo(middle, place));
        else move(hand.grip, place);
        setHand(null);
      },
    },
    overlays: chosen && middle ? drawHand(chosen, middle, grips, mmPerPx) : [],
  };
}

/** Degrees from x to y, from 0 to 180; nearly round ones are made round. */
export function angleTo(middle: Point, place: Point): number {
  const degrees = (Math.atan2(place.y - middle.y, place.x - middle.x) * 180) / Math.PI;
  const half = ((degrees % 180) + 180) % 180;
  const round = Math.round(half / 45) * 45;
  return Math.abs(half - round) < ROUND_DEG ? round % 180 : Math.round(half);
}

/** Where the rings for coming in and going out lie: as they were chosen, or ready in the area's middle. */
export function waysOf({ rings, start, stop }: SewnArea): readonly [Point, Point] {
  const { x, y } = placeInside(rings);
  return [start ?? { x: x - READY_MM, y }, stop ?? { x: x + READY_MM, y }];
}

function gripsOf(area: SewnArea, middle: Point, hand: Hand | null): { grip: Grip; at: Point }[] {
  const at = (grip: Grip, own: Point | null) => (hand?.grip === grip ? hand.at : own);
  const radians = (area.numbers.angleDeg * Math.PI) / 180;
  const length = Math.max(HANDLE_MM, Math.sqrt(area.areaMm2) / 3);
  const end = { x: middle.x + length * Math.cos(radians), y: middle.y + length * Math.sin(radians) };
  const [start, stop] = waysOf(area);
  const all: { grip: Grip; at: Point | null }[] = [
    ...(area.numbers.as === "fill" ? [{ grip: "angle" as const, at: at("angle", end) }] : []),
    { grip: "start", at: at("start", start) },
    { grip: "stop", at: at("stop", stop) },
  ];
  return all.flatMap(({ grip, at: place }) => (place ? [{ grip, at: place }] : []));
}

function drawHand(
  { rings }: SewnArea,
  middle: Point,
  grips: readonly { grip: Grip; at: Point }[],
  mmPerPx: number,
): TableLayer[] {
  const onTable = (points: ArrayLike<number>) => Array.from(points, (mm) => mm / mmPerPx);
  const handle = grips.find(({ grip }) => grip === "angle");
  const px = ({ x, y }: Point) => ({ x: x / mmPerPx, y: y / mmPerPx });
  return [
    outlineArea(rings, mmPerPx),
    ...(handle
      ? [{ ...CHOSEN, path: makePolylinePath(onTable([middle.x, middle.y, handle.at.x, handle.at.y]), false) }]
      : []),
    { kind: "grips", points: grips.map(({ at }) => px(at)) },
    ...grips
      .filter(({ grip }) => grip !== "angle")
      .map(({ grip, at }): TableLayer => {
        const { x, y } = px(at);
        const size = 2.2 / mmPerPx;
        return {
          kind: "text",
          lines: [grip === "start" ? "in" : "out"],
          x,
          y: y + 0.2 * size,
          size,
          leading: size,
          isHaloed: true,
        };
      }),
  ];
}
