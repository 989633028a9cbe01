// The stitch plan: every stitch, jump, trim and change of colour in the order in which the machine does them.
import type { Ring } from "../area/index.ts";
import type { Rgb } from "../colour/index.ts";
import { lengthOf } from "../geometry/index.ts";
import type { Point } from "../raster/index.ts";
import { divideLine, LEAST_STITCH_MM } from "./needle.ts";
import { nearestOf, orderShort, sampleOutline } from "./order.ts";
import type { MeasuredArea } from "./propose-sewing.ts";
import type { PullAt } from "./satin.ts";
import { type SewNumbers, sewArea, sewBorders } from "./sew-area.ts";
import type { SewnAs } from "./sewn-as.ts";
import { PIECE_KINDS, type PieceKind, type Strand } from "./thread.ts";
import { areaAt, type Cover, findHiddenWay, makeWayGrid } from "./ways.ts";

export const COMMANDS = ["stitch", "jump", "trim", "colour", "end"] as const;
export type Command = (typeof COMMANDS)[number];
const CODE: Readonly<Record<Command, number>> = { stitch: 0, jump: 1, trim: 2, colour: 3, end: 4 };

/** What a stitch is for: its piece's kind, or a tie. */
export const STITCH_KINDS = [...PIECE_KINDS, "tie"] as const;
export type StitchKind = (typeof STITCH_KINDS)[number];

/** No stitch is longer, mm (common practice, no source). */
export const MOST_STITCH_MM = 12.1;
/** A jump that is longer is trimmed, mm (common practice, no source). */
export const TRIM_OVER_MM = 3;
/** At the edge of what is sewn already a row ends so much before it, mm: about where the side of its thread lies (our own). */
const OVER_MM = 0.1;
/** What is sewn as a line. */
const LINES: ReadonlySet<SewnAs> = new Set(["run", "bean"]);
/** Thread is tied with so many stitches of so much, mm, to and fro (from memory). */
const TIES = 4;
const TIE_MM = 0.7;
/** So many commands back there is one that a tie can lie along. */
const LOOK_BACK = 8;

export interface PlanColour {
  readonly spotId: string;
  readonly name: string;
  readonly rgb: Rgb;
}

/** Flat lists with an entry for each command; mm from the design's top left corner, y down. */
export interface StitchPlan {
  readonly widthMm: number;
  readonly heightMm: number;
  /** In the order in which they are threaded. */
  readonly colours: readonly PlanColour[];
  readonly command: Uint8Array;
  readonly x: Float64Array;
  readonly y: Float64Array;
  /** Which of the colours. */
  readonly colour: Uint8Array;
  /** Which of the areas; -1 where it is none's. */
  readonly area: Int32Array;
  /** By STITCH_KINDS. */
  readonly kind: Uint8Array;
}

/** An area with all that was decided on it. */
export interface ChosenArea extends MeasuredArea {
  readonly numbers: SewNumbers;
  /** Where the needle comes in and goes out, as a person chose it; null: as it is proposed. */
  readonly start: Point | null;
  readonly stop: Point | null;
  /** Its place among those whose order a person chose; null: it goes where it is proposed. */
  readonly turn: number | null;
  /** Entries of the recipe that are about it. */
  readonly entryIds: readonly string[];
}

/** An area as it was sewn; the columns in it are the planner's alone. */
export type SewnArea = Omit<ChosenArea, "columns">;

/** An area's own stitches, or a border that another thread sews along it. */
interface Item {
  readonly area: number;
  readonly isBorder: boolean;
}

/** Items sewn in one colour without a change. */
interface Block {
  readonly colour: number;
  readonly items: readonly Item[];
}

/** Sews areas colour by colour, in the order of `colours`. */
export function planStitches(
  areas: readonly ChosenArea[],
  colours: readonly PlanColour[],
  widthMm: number,
  heightMm: number,
): StitchPlan {
  const outlines = areas.map(({ rings }) => sampleOutline(rings));
  const middle = { x: widthMm / 2, y: heightMm / 2 };
  const blocks = layBlocks(areas, colours).map(({ colour, items }) => ({
    colour,
    items: orderItems(items, areas, outlines, middle),
  }));
  const turnOf = new Int32Array(areas.length).fill(-1);
  let turn = 0;
  for (const { items } of blocks) for (const { area, isBorder } of items) if (!isBorder) turnOf[area] = turn++;
  // What pulls where depends on which areas are sewn before which, and which as lines.
  const around = areas.map(({ numbers }, i) => `${turnOf[i]}${LINES.has(numbers.as) ? " line" : ""}`).join();
  const grid = makeWayGrid(areas, widthMm, heightMm);
  const writer = new PlanWriter();
  let sewn = -1;
  for (const { colour, items } of blocks) {
    writer.changeTo(colour);
    items.forEach((item, k) => {
      const i = item.area;
      const area = areas[i];
      if (!item.isBorder) sewn = turnOf[i];
      const next = items[k + 1]?.area;
      const from = area.start ?? writer.at ?? middle;
      const to = area.stop ?? (next === undefined ? from : nearestOf(outlines[i], outlines[next]).place);
      const isOver = (other: number) => turnOf[other] >= 0 && turnOf[other] < sewn;
      const coverOf = (other: number): Cover =>
        turnOf[other] >= sewn ? "later" : isOver(other) && areas[other].spotId === area.spotId ? "along" : "no";
      // Over what is sewn already nothing reaches, not even half a thread: that reaches under it. Under lines that are sewn later
      // it reaches to their middle: they are narrower than what they stand for.
      const pullAt: PullAt = (x, y) => {
        const beside = areaAt(grid, x, y);
        const { pullMm } = area.numbers;
        if (beside < 0 || turnOf[beside] < 0) return pullMm;
        if (isOver(beside)) return -OVER_MM;
        return LINES.has(areas[beside].numbers.as) ? pullMm + areas[beside].widthMm / 2 : pullMm;
      };
      sewOnce(area, item, around, pullAt, from, to).forEach((strand, s) => {
        const needles = strand.flatMap((piece) => piece.needles);
        const first = { x: needles[0], y: needles[1] };
        // What has no room for one stitch is not worth a tie.
        if (!spreads(needles, LEAST_STITCH_MM)) return;
        const way = writer.canGoOn(first) ? findHiddenWay(grid, writer.at ?? first, first, coverOf, s === 0) : null;
        if (way) writer.sew("way", divideLine(way, area.numbers.stitchMm), i);
        else writer.goTo(first, needles);
        for (const piece of strand) writer.sew(piece.kind, piece.needles, i);
      });
    });
  }
  writer.end();
  return { widthMm, heightMm, colours, ...writer.lists() };
}

/** What was sewn of areas last, by their outlines: after a change of one of them the others need not be sewn again. */
const sewnLast = new WeakMap<
  readonly Ring[],
  Map<boolean, { readonly key: string; readonly around: string; readonly strands: readonly Strand[] }>
>();

/** The strands of an item, those from before if nothing that they depend on is another; `around` names what lies beside it. */
function sewOnce(
  area: ChosenArea,
  item: Item,
  around: string,
  pullAt: PullAt,
  from: Point,
  to: Point,
): readonly Strand[] {
  const key = JSON.stringify([area.numbers, from, to]);
  const kept = sewnLast.get(area.rings) ?? new Map();
  const last = kept.get(item.isBorder);
  if (last?.key === key && last.around === around) return last.strands;
  const strands = sewItem(area, item, pullAt, from, to);
  sewnLast.set(area.rings, kept.set(item.isBorder, { key, around, strands }));
  return strands;
}

/** An area with its own border right after it; or the border alone, in another thread. */
function sewItem(area: ChosenArea, { isBorder }: Item, pullAt: PullAt, from: Point, to: Point): readonly Strand[] {
  const { rings, columns, numbers, spotId } = area;
  const { border } = numbers;
  if (isBorder) return sewBorders(rings, numbers, () => 0, from);
  const strands = sewArea(area, columns, numbers, pullAt, from, to);
  const isOwn = border.spotId === null || border.spotId === spotId;
  if (!isOwn || numbers.as === "applique") return strands;
  return [...strands, ...sewBorders(rings, numbers, () => 0, to)];
}

/**
 * What is sewn in each colour. A border in another thread is sewn in that one's turn, if that comes after all that it borders;
 * else the thread is put in once more at the end.
 */
function layBlocks(areas: readonly ChosenArea[], colours: readonly PlanColour[]): Block[] {
  const blocks = colours.map(({ spotId }, colour) => ({
    colour,
    items: areas.flatMap((one, area): Item[] =>
      one.spotId === spotId && one.numbers.as !== "none" ? [{ area, isBorder: false }] : [],
    ),
  }));
  const last: typeof blocks = [];
  areas.forEach(({ spotId, numbers: { border } }, area) => {
    if (border.kind === "none" || border.spotId === null || border.spotId === spotId) return;
    const own = colours.findIndex((one) => one.spotId === spotId);
    const its = colours.findIndex((one) => one.spotId === border.spotId);
    if (its < 0) return;
    const item = { area, isBorder: true };
    if (its > own) blocks[its].items.push(item);
    else {
      const again = last.find(({ colour }) => colour === its);
      if (again) again.items.push(item);
      else last.push({ colour: its, items: [item] });
    }
  });
  return [...blocks, ...last].filter(({ items }) => items.length > 0);
}

/** Areas in the order that a person chose, the others on short ways, borders after them. */
function orderItems(
  items: readonly Item[],
  areas: readonly ChosenArea[],
  outlines: readonly Float64Array[],
  middle: Point,
): Item[] {
  const isChosen = ({ area, isBorder }: Item) => !isBorder && areas[area].turn !== null;
  const chosen = items.filter(isChosen).sort((a, b) => (areas[a.area].turn ?? 0) - (areas[b.area].turn ?? 0));
  const short = (some: readonly Item[], from: Point) =>
    orderShort(
      some.map(({ area }) => outlines[area]),
      from,
    ).map((k) => some[k]);
  const lastOf = (some: readonly Item[], otherwise: Point): Point => {
    const outline = some.length > 0 ? outlines[some[some.length - 1].area] : null;
    return outline ? { x: outline[0], y: outline[1] } : otherwise;
  };
  const first = lastOf(chosen, middle);
  const others = short(
    items.filter((item) => !item.isBorder && !isChosen(item)),
    first,
  );
  const borders = short(
    items.filter(({ isBorder }) => isBorder),
    lastOf(others, first),
  );
  return [...chosen, ...others, ...borders];
}

/** Writes commands down, with ties where thread begins and ends. */
class PlanWriter {
  private readonly command: number[] = [];
  private readonly xs: number[] = [];
  private readonly ys: number[] = [];
  private readonly colour: number[] = [];
  private readonly area: number[] = [];
  private readonly kind: number[] = [];
  private current = -1;
  /** Whether the thread lies loose: it is tied before it is sewn with. */
  private isLoose = true;

  get at(): Point | null {
    const n = this.xs.length;
    return n > 0 ? { x: this.xs[n - 1], y: this.ys[n - 1] } : null;
  }

  awayFrom({ x, y }: Point): number {
    const { at } = this;
    return at ? lengthOf(x - at.x, y - at.y) : Number.POSITIVE_INFINITY;
  }

  /** Whether a place is too far for a loose thread, and the needle could sew its way there. */
  canGoOn(place: Point): boolean {
    return !this.isLoose && this.awayFrom(place) > TRIM_OVER_MM;
  }

  changeTo(colour: number): void {
    if (this.current >= 0) {
      this.tieOff();
      this.put("trim", this.at ?? { x: 0, y: 0 });
      this.current = colour;
      this.put("colour", this.at ?? { x: 0, y: 0 });
    }
    this.current = colour;
    this.isLoose = true;
  }

  /** Moves without sewing; over a long way the thread is tied and cut. */
  goTo(place: Point, onward: readonly number[]): void {
    const { at } = this;
    if (at && !this.isLoose && this.awayFrom(place) > TRIM_OVER_MM) {
      this.tieOff();
      this.put("trim", at);
      this.isLoose = true;
    }
    if (!at || this.awayFrom(place) > LEAST_STITCH_MM || this.isLoose) {
      this.jumpTo(place);
      if (this.isLoose) this.tieIn(place, onward);
    }
  }

  sew(kind: PieceKind, needles: readonly number[], area: number): void {
    // A person is waited for as at a change of colour, with the same thread.
    if (kind === "stop") this.changeTo(this.current);
    for (let i = 0; i < needles.length; i += 2) this.stitchTo(kind, needles[i], needles[i + 1], area);
  }

  end(): void {
    if (this.xs.length > 0) {
      this.tieOff();
      this.put("trim", this.at ?? { x: 0, y: 0 });
    }
    this.put("end", this.at ?? { x: 0, y: 0 });
  }

  lists(): Pick<StitchPlan, "command" | "x" | "y" | "colour" | "area" | "kind"> {
    return {
      command: Uint8Array.from(this.command),
      x: Float64Array.from(this.xs),
      y: Float64Array.from(this.ys),
      colour: Uint8Array.from(this.colour),
      area: Int32Array.from(this.area),
      kind: Uint8Array.from(this.kind),
    };
  }

  private put(command: Command, { x, y }: Point, kind: StitchKind = "way", area = -1): void {
    this.command.push(CODE[command]);
    this.xs.push(x);
    this.ys.push(y);
    this.colour.push(Math.max(0, this.current));
    this.area.push(area);
    this.kind.push(STITCH_KINDS.indexOf(kind));
  }

  private jumpTo(place: Point): void {
    const { at } = this;
    if (at) {
      const parts = Math.ceil(this.awayFrom(place) / MOST_STITCH_MM);
      for (let k = 1; k < parts; k++)
        this.put("jump", { x: at.x + ((place.x - at.x) * k) / parts, y: at.y + ((place.y - at.y) * k) / parts });
    }
    this.put("jump", place);
  }

  private stitchTo(kind: PieceKind, x: number, y: number, area: number): void {
    const { at } = this;
    const n = this.xs.length;
    const isSewn = n > 0 && this.command[n - 1] === CODE.stitch;
    const away = this.awayFrom({ x, y });
    if (at && isSewn && away < LEAST_STITCH_MM) {
      this.replaceLast(kind, x, y, area);
      return;
    }
    const parts = isSewn ? Math.ceil(away / MOST_STITCH_MM) : 1;
    for (let k = 1; k < parts && at; k++)
      this.put("stitch", { x: at.x + ((x - at.x) * k) / parts, y: at.y + ((y - at.y) * k) / parts }, kind, area);
    this.put("stitch", { x, y }, kind, area);
  }

  /** Where one piece meets the next, what only leads there gives way to what covers. */
  private replaceLast(kind: PieceKind, x: number, y: number, area: number): void {
    const last = this.xs.length - 1;
    const isLeading = STITCH_KINDS[this.kind[last]] === "way" || STITCH_KINDS[this.kind[last]] === "underlay";
    const from = this.command[last - 1] === CODE.stitch ? lengthOf(x - this.xs[last - 1], y - this.ys[last - 1]) : 0;
    // Of its own kind it waits for one that is far enough.
    if (!isLeading || STITCH_KINDS[this.kind[last]] === kind || from < LEAST_STITCH_MM || from > MOST_STITCH_MM) return;
    this.xs[last] = x;
    this.ys[last] = y;
    this.kind[last] = STITCH_KINDS.indexOf(kind);
    this.area[last] = area;
  }

  /** To and fro on the first stitch that is sewn then. */
  private tieIn(place: Point, onward: readonly number[]): void {
    this.isLoose = false;
    let next = { x: place.x + TIE_MM, y: place.y };
    for (let i = onward.length - 2; i >= 0; i -= 2)
      if (lengthOf(onward[i] - place.x, onward[i + 1] - place.y) >= LEAST_STITCH_MM)
        next = { x: onward[i], y: onward[i + 1] };
    const far = towards(place, next);
    this.put("stitch", place, "tie");
    for (let k = 0; k < TIES; k++) this.put("stitch", k % 2 === 0 ? far : place, "tie");
  }

  /** Back over the last stitches and forwards again. */
  private tieOff(): void {
    const { at } = this;
    if (!at || this.isLoose) return;
    let last = { x: at.x + TIE_MM, y: at.y };
    for (let i = Math.max(0, this.xs.length - LOOK_BACK); i < this.xs.length; i++)
      if (lengthOf(this.xs[i] - at.x, this.ys[i] - at.y) >= LEAST_STITCH_MM) last = { x: this.xs[i], y: this.ys[i] };
    const far = towards(at, last);
    for (let k = 0; k < TIES; k++) this.put("stitch", k % 2 === 0 ? far : at, "tie");
  }
}

/** Whether some needle point lies at least so far from the first. */
function spreads(needles: readonly number[], leastMm: number): boolean {
  for (let i = 2; i < needles.length; i += 2)
    if (lengthOf(needles[i] - needles[0], needles[i + 1] - needles[1]) >= leastMm) return true;
  return false;
}

/** The place a tie's length on the way from one place to another, or the other if that is nearer. */
function towards(from: Point, to: Point): Point {
  const t = Math.min(1, TIE_MM / lengthOf(to.x - from.x, to.y - from.y));
  return { x: from.x + t * (to.x - from.x), y: from.y + t * (to.y - from.y) };
}
