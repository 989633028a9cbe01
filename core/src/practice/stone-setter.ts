// A stone setter at work: lays the templates on each other, brushes stones into their holes, and compares what lies there with the
// list. It knows docs/formats.md and the stones, and nothing of what wrote the files.
import Flatbush from "flatbush";
import { readTemplate, type TemplateFile } from "./read-template.ts";

/** Stones by their diameters, mm (from memory of suppliers' tables, as in the trade's own page). */
const SIZES: readonly (readonly [string, number])[] = [
  ["SS6", 2],
  ["SS8", 2.4],
  ["SS10", 2.8],
  ["SS12", 3.1],
  ["SS16", 3.9],
  ["SS20", 4.7],
  ["SS30", 6.4],
  ["SS34", 7.2],
];
/** A stone falls into a hole that is so much wider, mm, give or take. */
const PLAY_MM = 0.25;
const EXACT_MM = 0.06;
/** Holes by which templates are laid on each other: their width, and how far the first lies from the design's corner, both ways. */
const REGISTER_MM = 4;
const CORNER_MM = 7;
const REGISTERS = 4;
/** Templates fit if holes lie so near to where they should, mm. */
const PLACE_MM = 0.05;
/** Less film between two holes tears, mm. */
const WEB_MM = 0.02;
/** Places in a list are rounded, mm. */
const ROUNDING_MM = 0.002;

export interface SetFault {
  /** The file that it is in. */
  readonly file: string;
  readonly kind: string;
  readonly text: string;
  /** mm from the design's top left corner. */
  readonly x: number;
  readonly y: number;
}

export interface ListedStone {
  readonly line: number;
  readonly x: number;
  readonly y: number;
  readonly size: string;
  readonly diameterMm: number;
  readonly colour: string;
  readonly spotId: string;
}

/** A hole where it lies on the design, and the stone that falls into it; null: none fits. */
export interface SetHole {
  readonly x: number;
  readonly y: number;
  readonly diameterMm: number;
  readonly size: string | null;
}

export interface SetTemplate {
  readonly name: string;
  readonly isMirrored: boolean;
  readonly holes: readonly SetHole[];
}

export interface SetJob {
  readonly templates: readonly SetTemplate[];
  readonly list: readonly ListedStone[];
  readonly widthMm: number | null;
  readonly heightMm: number | null;
  /** Of each spot, as the list has it: #rrggbb. */
  readonly colours: ReadonlyMap<string, string>;
  readonly faults: readonly SetFault[];
  /** The setter's own count, by size. */
  readonly counts: ReadonlyMap<string, number>;
}

const HEADER = "x_mm,y_mm,size,diameter_mm,colour,spot_id";
const LIST = "stones.csv";

/** Sets a job: `files` are its templates by name, all of one format. */
export function setJob(files: ReadonlyMap<string, string>, listText: string): SetJob {
  const { list, widthMm, heightMm, colours, faults: inList } = readList(listText);
  const laid = [...files].map(([name, text]) => layTemplate(name, readTemplate(name, text)));
  const templates = laid.map(({ template }) => template);
  const counts = new Map<string, number>();
  for (const { holes } of templates)
    for (const { size } of holes) if (size !== null) counts.set(size, (counts.get(size) ?? 0) + 1);
  return {
    ...{ templates, list, widthMm, heightMm, colours, counts },
    faults: [...inList, ...laid.flatMap(({ faults }) => faults), ...lineUp(laid), ...compare(templates, list)],
  };
}

function readList(text: string): Pick<SetJob, "list" | "widthMm" | "heightMm" | "colours" | "faults"> {
  const list: ListedStone[] = [];
  const faults: SetFault[] = [];
  const fail = (kind: string, what: string, x = 0, y = 0) => faults.push({ file: LIST, kind, text: what, x, y });
  const [, widthMm, heightMm] = (/^# size: ([\d.]+) x ([\d.]+) mm/m.exec(text) ?? []).map(Number);
  let hasHeader = false;
  text.split(/\r?\n/).forEach((row, i) => {
    if (row.startsWith("#") || row.trim() === "") return;
    if (!hasHeader) {
      hasHeader = true;
      if (row !== HEADER) fail("not understood", `"${HEADER}" should stand before the first stone`);
      if (row === HEADER) return;
    }
    const cells = cellsOf(row);
    const [x, y, diameterMm] = [cells[0], cells[1], cells[3]].map((cell) => Number(cell || Number.NaN));
    const [size = "", colour = "", spotId = ""] = [cells[2], cells[4], cells[5]];
    if (cells.length !== 6 || ![x, y, diameterMm].every(Number.isFinite)) {
      fail("not understood", `line ${i + 1} is no stone`);
      return;
    }
    const known = SIZES.find(([name]) => name === size);
    if (!known) fail("unknown size", `line ${i + 1}: there are no stones in "${size}"`, x, y);
    else if (Math.abs(known[1] - diameterMm) > 0.005)
      fail("wrong width", `line ${i + 1}: ${size} is ${known[1]} mm wide, not ${diameterMm}`, x, y);
    if (x < 0 || y < 0 || x > widthMm || y > heightMm) fail("outside", `line ${i + 1} lies outside the design`, x, y);
    list.push({ line: i + 1, x, y, size, diameterMm, colour, spotId });
  });
  eachNear(list, (one, other, away) => {
    if (away < (one.diameterMm + other.diameterMm) / 2)
      fail("overlap", `lines ${one.line} and ${other.line} lie on each other`, one.x, one.y);
  });
  const spots = [...text.matchAll(/^# spot \d+: (\S+) (#[0-9a-f]{6})$/gm)];
  const colours = new Map(spots.map(([, id, hex]) => [id, hex]));
  return { list, widthMm: widthMm ?? null, heightMm: heightMm ?? null, colours, faults };
}

/** Cells of a row; those in quotes may hold commas. */
function cellsOf(row: string): string[] {
  return [...row.matchAll(/(?:^|,)(?:"((?:[^"]|"")*)"|([^,]*))/g)].map(
    ([, quoted, plain]) => quoted?.replaceAll('""', '"') ?? plain ?? "",
  );
}

interface Laid {
  readonly template: SetTemplate;
  /** Register holes from the first, mm. */
  readonly registers: readonly (readonly [number, number])[];
  readonly faults: readonly SetFault[];
}

/** Lays a template by its register holes: three in a row at its top, one under the first, or under the last where it is mirrored. */
function layTemplate(name: string, { holes, sheet, unread }: TemplateFile): Laid {
  const faults: SetFault[] = [];
  const fail = (kind: string, text: string, x = 0, y = 0) => faults.push({ file: name, kind, text, x, y });
  for (const what of unread) fail("not understood", what);
  const isRegister = ({ widthMm }: { widthMm: number }) => Math.abs(widthMm - REGISTER_MM) < EXACT_MM;
  const found = holes.filter(isRegister).sort((one, other) => one.y - other.y || one.x - other.x);
  const top = found.filter(({ y }) => Math.abs(y - found[0].y) < 1).sort((one, other) => one.x - other.x);
  const under = found.find(({ y }) => Math.abs(y - found[0].y) >= 1);
  const first = top[0] ?? { x: 0, y: 0 };
  const last = top[top.length - 1] ?? first;
  if (found.length !== REGISTERS || top.length !== 3 || !under)
    fail("not lined up", `${found.length} holes of ${REGISTER_MM} mm where ${REGISTERS} line templates up`);
  const isMirrored = under !== undefined && Math.abs(under.x - last.x) < Math.abs(under.x - first.x);
  const onDesign = (x: number, y: number): [number, number] => [
    (isMirrored ? last.x - x : x - first.x) - CORNER_MM,
    y - first.y - CORNER_MM,
  ];
  const own = holes
    .filter((hole) => !isRegister(hole))
    .map((hole): SetHole => {
      const [x, y] = onDesign(hole.x, hole.y);
      const diameterMm = (hole.widthMm + hole.heightMm) / 2;
      if (!hole.isClosed) fail("open", "a cut does not end where it began", x, y);
      if (Math.abs(hole.widthMm - hole.heightMm) > EXACT_MM) fail("not round", "a hole is not round", x, y);
      const size = SIZES.find(([, wide]) => Math.abs(wide + PLAY_MM - diameterMm) < EXACT_MM)?.[0] ?? null;
      if (size === null) fail("no size", `no stone fits a hole of ${diameterMm.toFixed(2)} mm`, x, y);
      if (sheet && (hole.x < 0 || hole.y < 0 || hole.x > sheet.widthMm || hole.y > sheet.heightMm))
        fail("off the sheet", "a hole lies beside the sheet", x, y);
      return { x, y, diameterMm, size };
    });
  eachNear(own, (one, other, away) => {
    if (away < PLACE_MM) fail("cut twice", "a hole is cut twice", one.x, one.y);
    else if (away - (one.diameterMm + other.diameterMm) / 2 < WEB_MM)
      fail("touching", "two holes run into each other", one.x, one.y);
  });
  const registers = found
    .map(({ x, y }) => onDesign(x, y))
    .sort((one, other) => one[1] - other[1] || one[0] - other[0]);
  return { template: { name, isMirrored, holes: own }, registers, faults };
}

/** Whether templates lie on each other as the first has it. */
function lineUp(laid: readonly Laid[]): SetFault[] {
  const [first, ...others] = laid;
  return others.flatMap(({ template: { name, isMirrored }, registers }): SetFault[] => {
    const fault = (kind: string, text: string) => [{ file: name, kind, text, x: 0, y: 0 }];
    if (isMirrored !== first.template.isMirrored) return fault("mirrored", "it is mirrored, and the first is not");
    const isOff = registers.some(([x, y], i) => {
      const [fx, fy] = first.registers[i] ?? [Number.NaN, Number.NaN];
      return !(Math.abs(x - fx) + Math.abs(y - fy) < 2 * PLACE_MM);
    });
    return isOff ? fault("not lined up", `its register holes are not where those of ${first.template.name} are`) : [];
  });
}

/** Every hole has its stone in the list, and every stone of the list its hole, in one template. */
function compare(templates: readonly SetTemplate[], list: readonly ListedStone[]): SetFault[] {
  const faults: SetFault[] = [];
  const index = indexOf(list);
  const setBy = new Map<ListedStone, string>();
  for (const { name, holes } of templates)
    for (const { x, y, size } of holes) {
      const [nearest] = index?.neighbors(x, y, 1) ?? [];
      const stone = list[nearest];
      const away = stone ? Math.hypot(stone.x - x, stone.y - y) : Number.POSITIVE_INFINITY;
      if (!stone || away > PLACE_MM + ROUNDING_MM) {
        faults.push({ file: name, kind: "no stone", text: "a hole has no stone in the list", x, y });
        continue;
      }
      if (size !== null && size !== stone.size)
        faults.push({
          file: name,
          kind: "wrong size",
          text: `a hole for ${size} where the list has ${stone.size}`,
          x,
          y,
        });
      const before = setBy.get(stone);
      if (before !== undefined && before !== name)
        faults.push({ file: name, kind: "set twice", text: `a stone that ${before} sets already`, x, y });
      setBy.set(stone, name);
    }
  for (const stone of list)
    if (!setBy.has(stone) && templates.length > 0)
      faults.push({
        file: LIST,
        kind: "no hole",
        text: `line ${stone.line} has no hole in any template`,
        x: stone.x,
        y: stone.y,
      });
  return faults;
}

function indexOf(places: readonly { readonly x: number; readonly y: number }[]): Flatbush | null {
  if (places.length === 0) return null;
  const index = new Flatbush(places.length);
  for (const { x, y } of places) index.add(x, y, x, y);
  index.finish();
  return index;
}

/** The widest stone, and some film, mm: what is farther apart does not touch. */
const REACH_MM = 8;

/** Every two places that lie near each other, once. */
function eachNear<T extends { readonly x: number; readonly y: number }>(
  places: readonly T[],
  tell: (one: T, other: T, away: number) => void,
): void {
  const index = indexOf(places);
  places.forEach((one, i) => {
    for (const k of index?.neighbors(one.x, one.y, 12, REACH_MM) ?? [])
      if (k > i) tell(one, places[k], Math.hypot(one.x - places[k].x, one.y - places[k].y));
  });
}
