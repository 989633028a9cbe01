// What a person decided on single areas: found again by a place in each, and laid over what holds for a spot, and for all.
import type { Design } from "../process/index.ts";
import { invertMap, mapPoint, type Point } from "../raster/index.ts";
import { type Area, holdsPlace } from "./area.ts";

/** An entry with a place, in the client's pixels. */
interface PlacedEntry {
  readonly id: string;
  readonly isOn: boolean;
  readonly at: Point;
}

/** A place in the client's pixels as millimetres of the design. */
export function millimetresOf({
  map,
  frame,
  widthMm,
}: Pick<Design, "map" | "frame" | "widthMm">): (place: Point) => Point {
  const toPrepared = invertMap(frame.toSource);
  return (place) => {
    const { x, y } = mapPoint(toPrepared, place);
    return { x: (x * widthMm) / map.width, y: (y * widthMm) / map.width };
  };
}

/** The face of the area that holds a place, mm; -1 where there is none. */
export function faceHolding(areas: readonly Area[], place: Point): number {
  return areas.find(({ rings }) => holdsPlace(rings, place))?.face ?? -1;
}

/** Entries that are switched on, by the face that each finds, in their order; and by id those that find no area. */
export function entriesByFace<E extends PlacedEntry>(
  entries: readonly E[],
  areas: readonly Area[],
  toMm: (place: Point) => Point,
): { readonly of: ReadonlyMap<number, readonly E[]>; readonly lost: readonly string[] } {
  const of = new Map<number, E[]>();
  const lost: string[] = [];
  for (const entry of entries) {
    if (!entry.isOn) continue;
    const face = faceHolding(areas, toMm(entry.at));
    if (face >= 0) of.set(face, [...(of.get(face) ?? []), entry]);
    else lost.push(entry.id);
  }
  return { of, lost };
}

/** What several choices say together: later ones go before earlier ones, and what one leaves open it does not change. */
export function layChoices<C extends object>(choices: readonly C[]): C {
  const said = choices.map((choice) =>
    Object.fromEntries(Object.entries(choice).filter(([, value]) => value !== undefined)),
  );
  return Object.assign({}, ...said);
}
