// What is decided on areas, and done to single stones by hand: entries of the recipe.
import type { Frame, Point } from "@plain-palette/core/raster";
import {
  type HandEntry,
  type SetAreaEntry,
  type SetChoice,
  type Stone,
  type StoneSettings,
  type Stones,
  stones,
} from "@plain-palette/core/stone";
import { diameterOf, type StoneSize } from "@plain-palette/core/trade";
import { useState } from "react";
import { useJob } from "../../job/use-job.ts";
import { type AreaDecisions, toSourceBy, useAreaDecisions } from "../areas/area-decisions.ts";
import { nextEntryId } from "../areas/entry-ids.ts";

type MadeArea = Stones["areas"][number];

/** What a press on the table does: choose a stone or an area, set a new stone, or end a stretch that is spread evenly. */
export type HandMode = "choose" | "add" | "spread";

export interface StoneDesk extends AreaDecisions<MadeArea, SetChoice, SetAreaEntry> {
  readonly settings: StoneSettings;
  /** The stone in hand, as it lies now. */
  readonly stone: Stone | null;
  /** By a place, mm; null: none. */
  takeUp(place: Point | null): void;
  readonly mode: HandMode;
  setMode(mode: HandMode): void;
  readonly givesWay: boolean;
  setGivesWay(givesWay: boolean): void;
  move(to: Point): void;
  /** In the size and spot that were used last. */
  add(at: Point): void;
  readonly next: { readonly size: StoneSize; readonly spotId: string } | null;
  setNext(part: { readonly size?: StoneSize; readonly spotId?: string }): void;
  takeAway(): void;
  changeStone(part: { readonly size?: StoneSize; readonly spotId?: string }): void;
  shift(halfGaps: number): void;
  spreadTo(place: Point): void;
  setHand(hand: readonly HandEntry[]): void;
}

const choiceOf = ({ id: _, isOn: __, at: ___, ...choice }: SetAreaEntry): SetChoice => choice;

/** A stone is meant by a press up to so much of its width from its middle. */
const REACH_SHARE = 0.6;

/** The stone under a place, mm. */
export function stoneUnder(all: readonly Stone[], { x, y }: Point): Stone | null {
  let [best, least]: [Stone | null, number] = [null, Number.POSITIVE_INFINITY];
  for (const stone of all) {
    const away = Math.hypot(stone.x - x, stone.y - y);
    if (away < least && away <= REACH_SHARE * diameterOf(stone.size)) [best, least] = [stone, away];
  }
  return best;
}

/** An entry without what says which it is. */
type Deed = HandEntry extends infer E ? (E extends HandEntry ? Omit<E, "id" | "isOn"> : never) : never;

export function useStoneDesk(made: Stones | null, frame: Frame | null, mmPerPx: number): StoneDesk {
  const settings = useJob((state) => stones.settingsIn(state.recipe));
  const edit = useJob((state) => state.edit);
  const set = (part: Partial<StoneSettings>) => edit((r) => stones.withSettings(r, part));
  const toSource = toSourceBy(frame, mmPerPx);
  const decisions = useAreaDecisions(made?.areas ?? [], settings, set as (part: object) => void, {
    toSource,
    choiceOf,
  });
  /** Where the stone in hand lies, mm. */
  const [at, setAt] = useState<Point | null>(null);
  const [mode, setMode] = useState<HandMode>("choose");
  const [givesWay, setGivesWay] = useState(true);
  const [wanted, setWanted] = useState<{ readonly size?: StoneSize; readonly spotId?: string }>({});
  const stone = (at && made?.stones.find(({ x, y }) => Math.hypot(x - at.x, y - at.y) < 0.6)) ?? null;
  const area = made?.areas.find(({ numbers }) => numbers.as !== "none");
  const next = area ? { size: wanted.size ?? area.numbers.size, spotId: wanted.spotId ?? area.spotId } : null;
  const enter = (deed: Deed) =>
    set({ hand: [...settings.hand, { ...deed, id: nextEntryId(settings.hand, "stone"), isOn: true } as HandEntry] });
  return {
    ...decisions,
    ...{ settings, stone, mode, setMode, givesWay, setGivesWay, next },
    takeUp: setAt,
    setNext: (part) => setWanted({ ...wanted, ...part }),
    move: (to) => {
      if (!stone) return;
      enter({ kind: "move", at: toSource(stone), to: toSource(to), givesWay });
      setAt(to);
    },
    add: (place) => {
      if (!next) return;
      enter({ kind: "add", at: toSource(place), ...next, givesWay });
      setAt(place);
    },
    takeAway: () => {
      if (stone) enter({ kind: "take", at: toSource(stone) });
      setAt(null);
    },
    changeStone: (part) => {
      if (stone) enter({ kind: "change", at: toSource(stone), ...part });
    },
    shift: (halfGaps) => {
      if (!stone) return;
      // One entry for one row: pressed again it goes on.
      const last = settings.hand.at(-1);
      const from = toSource(stone);
      if (last?.kind === "shift" && last.isOn && Math.hypot(last.at.x - from.x, last.at.y - from.y) * mmPerPx < 2)
        set({ hand: [...settings.hand.slice(0, -1), { ...last, halfGaps: last.halfGaps + halfGaps }] });
      else enter({ kind: "shift", at: from, halfGaps });
    },
    spreadTo: (place) => {
      if (stone) enter({ kind: "spread", at: toSource(stone), to: toSource(place) });
      setMode("choose");
    },
    setHand: (hand) => set({ hand: [...hand] }),
  };
}
