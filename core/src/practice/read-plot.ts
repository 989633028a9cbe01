// A cutter's own reading of the plotter language (HP-GL; instructions from memory of its published reference). It knows what
// a machine knows: instructions, not what they were meant for. Nothing is shared with what writes such files.

/** One stroke of a tool: where it goes down, and on to where it is lifted. */
export interface Stroke {
  /** 1 is the blade; others are pens. */
  readonly tool: number;
  /** x, y pairs, mm. */
  readonly points: readonly number[];
}

export interface Plot {
  readonly strokes: readonly Stroke[];
  /** Instructions that this machine does not have, each once. */
  readonly unknown: readonly string[];
}

const MM_PER_UNIT = 0.025;
/** Instructions without which the same lines are cut: how letters look, how fast, with what force. */
const PASSED_OVER = new Set(["VS", "FS", "SI", "SR", "DI", "DR", "LT", "CS", "WU", "PW", "IP", "SC", "RO", "PG", "NR"]);
const END_OF_LABEL = "\x03";

/** Reads all of a file. It never throws: what it does not understand it says, as a machine beeps and goes on. */
export function readPlot(text: string): Plot {
  const strokes: { tool: number; points: number[] }[] = [];
  const unknown = new Set<string>();
  let [x, y, tool] = [0, 0, 1];
  let isDown = false;
  let isRelative = false;
  let stroke: number[] | null = null;
  const lift = () => {
    if (stroke && stroke.length > 2) strokes.push({ tool, points: stroke });
    stroke = null;
  };
  const goTo = (numbers: readonly number[]) => {
    for (let i = 0; i + 1 < numbers.length; i += 2) {
      const [from, to] = [
        [x, y],
        isRelative ? [x + (numbers[i] ?? 0), y + (numbers[i + 1] ?? 0)] : [numbers[i] ?? 0, numbers[i + 1] ?? 0],
      ];
      [x = 0, y = 0] = to;
      if (!isDown) continue;
      stroke ??= from.map((units) => units * MM_PER_UNIT);
      stroke.push(x * MM_PER_UNIT, y * MM_PER_UNIT);
    }
  };
  let at = 0;
  while (at < text.length) {
    const name = /[A-Za-z]{2}/y;
    name.lastIndex = at;
    const found = name.exec(text)?.[0].toUpperCase();
    if (!found) {
      at++;
      continue;
    }
    at += 2;
    if (found === "LB") {
      const end = text.indexOf(END_OF_LABEL, at);
      at = end < 0 ? text.length : end + 1;
      continue;
    }
    const rest = /[^A-Za-z;]*/y;
    rest.lastIndex = at;
    const values = rest.exec(text)?.[0] ?? "";
    at += values.length;
    const numbers = [...values.matchAll(/[-+]?(?:\d+\.?\d*|\.\d+)/g)].map(([number]) => Number(number));
    switch (found) {
      case "IN":
      case "DF":
        lift();
        [x, y, tool, isDown, isRelative] = [0, 0, 1, false, false];
        break;
      case "SP":
        lift();
        tool = numbers[0] ?? 0;
        isDown = false;
        break;
      case "PA":
      case "PR":
        isRelative = found === "PR";
        goTo(numbers);
        break;
      case "PU":
        lift();
        isDown = false;
        goTo(numbers);
        break;
      case "PD":
        isDown = true;
        goTo(numbers);
        break;
      default:
        if (!PASSED_OVER.has(found)) unknown.add(found);
    }
  }
  lift();
  return { strokes, unknown: [...unknown] };
}
