// An embroidery machine that sews what a list says: with a clock of its own, and refusing what a machine would.
import type { ListRow, StitchList } from "./read-stitch-list.ts";

export interface EmbroideryMachine {
  readonly stitchesPerMinute: number;
  /** Stitches from standing to full speed, and after a change of direction of a long stitch. */
  readonly rampStitches: number;
  readonly changeS: number;
  readonly trimS: number;
  readonly jumpMmPerS: number;
}

export const USUAL_MACHINE: EmbroideryMachine = {
  ...{ stitchesPerMinute: 800, rampStitches: 8, changeS: 10, trimS: 6, jumpMmPerS: 250 },
};

export interface SewFault {
  readonly kind:
    | "not understood"
    | "outside the hoop"
    | "too long"
    | "too short"
    | "no tie"
    | "not trimmed"
    | "unknown thread"
    | "no end"
    | "one place";
  readonly text: string;
  /** Line of the file. */
  readonly line: number;
  /** mm from the design's middle. */
  readonly x: number;
  readonly y: number;
}

/** Longest stitch and move, and shortest stitch, mm; what rounding to the list's digits adds. */
const MOST_MM = 12.1;
const LEAST_MM = 0.5;
const ROUNDING_MM = 0.015;
/** A tie is so many stitches in a row of at most so much, mm. */
const TIE_STITCHES = 3;
const TIE_MM = 1;
/** So many needle points within a tenth of a millimetre wear a hole. */
const ONE_PLACE = 12;
const PLACE_MM = 0.1;
/** A jump that is longer leaves a loop on the cloth, mm. */
const LOOP_MM = 3.05;

/** Seconds from the start at which each row is done. */
export function clockList({ rows }: StitchList, machine: EmbroideryMachine): Float64Array {
  const done = new Float64Array(rows.length);
  const full = 60 / machine.stitchesPerMinute;
  let [now, sinceStop] = [0, 0];
  rows.forEach((row, i) => {
    if (row.command === "stitch") {
      sinceStop++;
      // It starts at a quarter of its speed and comes up to all of it evenly.
      const share = Math.min(1, 0.25 + (0.75 * sinceStop) / machine.rampStitches);
      now += full / share;
    } else {
      sinceStop = 0;
      if (row.command === "jump") now += lengthFrom(rows[i - 1], row) / machine.jumpMmPerS;
      if (row.command === "trim") now += machine.trimS;
      if (row.command === "colour") now += machine.changeS;
    }
    done[i] = now;
  });
  return done;
}

/** What a machine, or a person at it, would not let pass. */
export function findSewFaults(list: StitchList): SewFault[] {
  const { rows, unread, hoop, threads } = list;
  const faults: SewFault[] = unread.map(({ line, text }) => ({ kind: "not understood", text, line, x: 0, y: 0 }));
  const fault = (kind: SewFault["kind"], text: string, { line, x, y }: ListRow) =>
    faults.push({ kind, text, line, x, y });
  rows.forEach((row, i) => {
    const before = rows[i - 1];
    const length = lengthFrom(before, row);
    if (hoop && !liesIn(row, hoop)) fault("outside the hoop", "the needle would strike the hoop", row);
    if (threads.length > 0 && (row.thread < 1 || row.thread > threads.length))
      fault("unknown thread", `there is no thread ${row.thread}`, row);
    if (row.command === "stitch" || row.command === "jump")
      if (length > MOST_MM + ROUNDING_MM) fault("too long", `${length.toFixed(1)} mm at once`, row);
    if (row.command === "stitch" && before?.command === "stitch" && length < LEAST_MM - ROUNDING_MM)
      fault("too short", `a stitch of ${length.toFixed(2)} mm`, row);
    if (row.command === "trim" && !isTied(rows, i - 1, -1))
      fault("no tie", "nothing holds the thread that is cut", row);
    if (row.command === "stitch" && isBeginning(rows, i) && !isTied(rows, i + TIE_STITCHES, -1))
      fault("no tie", "nothing holds the thread that begins", row);
    if (row.command === "colour" && rows[i - 1]?.command !== "trim")
      fault("not trimmed", "the thread is changed and was not cut", row);
    if (
      row.command === "stitch" &&
      before?.command === "jump" &&
      i > 1 &&
      !isBeginning(rows, i) &&
      jumped(rows, i) > LOOP_MM
    )
      fault("not trimmed", `a loop of ${jumped(rows, i).toFixed(1)} mm lies on the cloth`, row);
  });
  const last = rows.at(-1);
  if (last && last.command !== "end") fault("no end", "the list does not end", last);
  if (rows.slice(0, -1).some(({ command }) => command === "end") && last)
    fault("no end", "something follows the end", last);
  return [...faults, ...wornPlaces(rows)];
}

function lengthFrom(before: ListRow | undefined, { x, y }: ListRow): number {
  return before ? Math.sqrt((x - before.x) ** 2 + (y - before.y) ** 2) : 0;
}

/** The hoop round the design's middle, turned or not. */
function liesIn({ x, y }: ListRow, { widthMm, heightMm }: { widthMm: number; heightMm: number }): boolean {
  const [a, b] = [Math.abs(x) * 2, Math.abs(y) * 2];
  return (a <= widthMm && b <= heightMm) || (a <= heightMm && b <= widthMm);
}

/** Whether the stitches up to a row, going back, are a tie. */
function isTied(rows: readonly ListRow[], from: number, step: 1 | -1): boolean {
  for (let k = 0; k < TIE_STITCHES; k++) {
    const [row, before] = [rows[from + k * step], rows[from + k * step - 1]];
    if (row?.command !== "stitch" || before === undefined) return false;
    if (lengthFrom(before, row) > TIE_MM + ROUNDING_MM) return false;
  }
  return true;
}

/** The first stitch after thread was cut or changed. */
function isBeginning(rows: readonly ListRow[], i: number): boolean {
  let k = i - 1;
  while (rows[k]?.command === "jump") k--;
  const before = rows[k];
  return before === undefined || before.command === "trim" || before.command === "colour";
}

/** How far the needle jumped before a row. */
function jumped(rows: readonly ListRow[], i: number): number {
  let k = i - 1;
  while (rows[k]?.command === "jump") k--;
  return lengthFrom(rows[k], rows[i - 1] as ListRow);
}

function wornPlaces(rows: readonly ListRow[]): SewFault[] {
  const places = new Map<string, { count: number; row: ListRow }>();
  for (const row of rows) {
    if (row.command !== "stitch") continue;
    const key = `${Math.round(row.x / PLACE_MM)} ${Math.round(row.y / PLACE_MM)}`;
    const place = places.get(key);
    places.set(key, { count: (place?.count ?? 0) + 1, row });
  }
  return [...places.values()]
    .filter(({ count }) => count > ONE_PLACE)
    .map(({ count, row: { line, x, y } }) => ({
      ...{ kind: "one place" as const, text: `${count} stitches go down in one place`, line, x, y },
    }));
}
