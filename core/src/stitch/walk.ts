// A walk over columns that hang together: out along each, with all that hangs on it, and back over it. So everything is passed
// twice, nothing has to be trimmed, and the needle ends where it began.
import { type Columns, STRIDE } from "../area/index.ts";

/** A stretch of a column between two stations, in the direction in which it is passed. Round a ring they are counted on. */
export interface Stretch {
  /** Out: what comes back will lie on it. */
  readonly way: "out" | "back";
  readonly column: number;
  readonly from: number;
  readonly to: number;
}

/** Passes all columns that hang together with one, from a station of it and back there. */
export function walkColumns({ columns, joints }: Columns, column: number, station: number): Stretch[] {
  const isSeen = new Set<number>();
  const jointsOn = columns.map((_, c) => joints.filter((joint) => joint.some((one) => one.column === c)));
  const passed: Stretch[] = [];
  /** The number of a station as it is reached from another: round a ring they are counted on. */
  const onTurn = (c: number, at: number, from: number) =>
    columns[c].isClosed && at < from ? at + columns[c].stations.length / STRIDE - 1 : at;
  /** Out from a station to another, and into whatever hangs on between. */
  const goOut = (c: number, from: number, to: number) => {
    const away = (at: number) => (to >= from ? at - from : from - at);
    const hanging = jointsOn[c]
      .flatMap((joint) =>
        joint.filter((one) => one.column === c).map(({ station }) => ({ joint, at: onTurn(c, station, from) })),
      )
      .filter(({ at }) => away(at) >= 0 && away(at) <= Math.abs(to - from))
      .sort((one, other) => away(one.at) - away(other.at));
    let at = from;
    for (const { joint, at: next } of hanging) {
      const others = joint.filter((one) => one.column !== c && !isSeen.has(one.column));
      if (others.length === 0) continue;
      passed.push({ way: "out", column: c, from: at, to: next });
      at = next;
      for (const other of others) if (!isSeen.has(other.column)) enter(other.column, other.station);
    }
    passed.push({ way: "out", column: c, from: at, to });
  };
  const enter = (c: number, at: number) => {
    isSeen.add(c);
    const { stations, isClosed } = columns[c];
    const last = stations.length / STRIDE - 1;
    // Round a ring and back; else to the nearer end and back first, then to the other.
    const ends = isClosed ? [at + last] : at < last - at ? [0, last] : [last, 0];
    for (const end of ends) {
      if (end === at) continue;
      goOut(c, at, end);
      passed.push({ way: "back", column: c, from: end, to: at });
    }
  };
  enter(column, station);
  return passed.filter(({ from, to }) => from !== to);
}
