// Reads a stitch list, as docs/formats.md describes it, with nothing of what wrote it.

export type ListCommand = "stitch" | "jump" | "trim" | "colour" | "end";
const COMMANDS: ReadonlySet<string> = new Set<ListCommand>(["stitch", "jump", "trim", "colour", "end"]);

/** A row: what the machine does, and where; mm from the design's middle, x right, y up. */
export interface ListRow {
  readonly line: number;
  readonly command: ListCommand;
  readonly x: number;
  readonly y: number;
  readonly thread: number;
}

export interface StitchList {
  readonly widthMm: number | null;
  readonly heightMm: number | null;
  readonly hoop: { readonly widthMm: number; readonly heightMm: number } | null;
  readonly threads: readonly string[];
  /** What of the design each thread sews: the id of its spot in shapes.svg, and its colour; where the list says so. */
  readonly spots: readonly { readonly id: string; readonly hex: string }[];
  readonly rows: readonly ListRow[];
  /** Lines that could not be read, and why. */
  readonly unread: readonly { readonly line: number; readonly text: string }[];
}

const HEADER = "n,command,x_mm,y_mm,thread";
const PAIR = /(-?\d+(?:\.\d+)?)\s*x\s*(-?\d+(?:\.\d+)?)/;

export function readStitchList(text: string): StitchList {
  const rows: ListRow[] = [];
  const unread: { line: number; text: string }[] = [];
  const threads: string[] = [];
  const spots: { id: string; hex: string }[] = [];
  const said = new Map<string, readonly [number, number]>();
  let hasHeader = false;
  text.split(/\r?\n/).forEach((one, i) => {
    const line = i + 1;
    if (one.startsWith("#")) {
      const [, word = "", value = ""] = /^#\s*([a-z]+)(?:\s+\d+)?:\s*(.*)$/.exec(one) ?? [];
      const pair = PAIR.exec(value);
      if ((word === "size" || word === "hoop") && pair) said.set(word, [Number(pair[1]), Number(pair[2])]);
      if (word === "thread") threads.push(value);
      const [, id = "", hex = ""] = /^(\S+) (#[0-9a-f]{6})$/.exec(value) ?? [];
      if (word === "spot" && hex !== "") spots.push({ id, hex });
      return;
    }
    if (one.trim() === "") return;
    if (!hasHeader) {
      hasHeader = true;
      if (one.trim() !== HEADER) unread.push({ line, text: `"${HEADER}" should stand before the first row` });
      if (one.trim() === HEADER) return;
    }
    const cells = one.split(",");
    const [n, x, y, thread] = [cells[0], cells[2], cells[3], cells[4]].map(Number);
    const command = cells[1] ?? "";
    if (cells.length !== 5 || !COMMANDS.has(command) || ![n, x, y, thread].every(Number.isFinite))
      unread.push({ line, text: "this is no row of a stitch list" });
    else if (n !== rows.length + 1) unread.push({ line, text: `row ${n} stands where ${rows.length + 1} should` });
    else rows.push({ line, command: command as ListCommand, x, y, thread });
  });
  const size = said.get("size");
  const hoop = said.get("hoop");
  return {
    ...{ widthMm: size?.[0] ?? null, heightMm: size?.[1] ?? null, threads, spots, rows, unread },
    hoop: hoop ? { widthMm: hoop[0], heightMm: hoop[1] } : null,
  };
}
