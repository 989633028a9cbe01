// From found colours to the job's spots: the person's merges first, then the ladder down to the wanted number.
import { describeColour, type Rgb } from "../colour/index.ts";
import { NONE } from "../raster/index.ts";
import type { Findings, FoundColour } from "./find.ts";
import { buildLadder, proposeCount, type Rung } from "./ladder.ts";

/** What a spot is to the press: printed, the garment itself showing through, or not there at all. */
export type SpotRole = "ink" | "garment" | "drop";

/** One spot colour of the job. Everything refers to it by `id`, which is the id of the found colour that leads it. */
export interface Spot {
  readonly id: string;
  readonly name: string;
  readonly rgb: Rgb;
  readonly role: SpotRole;
  /** Pixels of the picture that are this spot. */
  readonly areaPx: number;
  /** Found colours that it gathers, itself included. */
  readonly members: readonly string[];
}

/** The person's decisions about colours, part of the recipe. */
export interface ColourSettings {
  /** How many colours, or null to take the proposed number. */
  readonly count: number | null;
  /** Merges made by hand; they stay whatever the number. */
  readonly merges: readonly { readonly from: string; readonly into: string }[];
  readonly spots: Readonly<Record<string, { readonly name?: string; readonly role?: SpotRole }>>;
}

/** The spots of a job and how found colours map to them. */
export interface Reduction {
  readonly spots: readonly Spot[];
  /** For every found colour, by its index: the index in `spots`. */
  readonly spotOfFound: Uint8Array;
  readonly rungs: readonly Rung[];
  readonly proposedCount: number;
}

/** Applies the person's decisions to the findings. Cost does not depend on the picture's size. */
export function reduceColours({ found }: Findings, settings: ColourSettings): Reduction {
  const leaderOf = new Map(found.map((colour) => [colour.id, colour.id]));
  const merge = (from: string, into: string) => {
    for (const [id, leader] of leaderOf) if (leader === from) leaderOf.set(id, into);
  };
  for (const { from, into } of settings.merges) {
    const a = leaderOf.get(from);
    const b = leaderOf.get(into);
    // A merge made on an earlier artwork or count may name colours that are no longer there: it waits.
    if (a !== undefined && b !== undefined && a !== b) merge(a, b);
  }
  const groups = found
    .filter((colour) => leaderOf.get(colour.id) === colour.id)
    .map((colour) => ({ ...colour, areaPx: sumArea(found, leaderOf, colour.id) }));
  const rungs = buildLadder(groups);
  const proposedCount = proposeCount(groups.length, rungs);
  const wanted = settings.count ?? proposedCount;
  for (const rung of rungs) if (rung.countAfter >= wanted) merge(rung.from, rung.into);

  const leaders = found.filter((colour) => leaderOf.get(colour.id) === colour.id);
  const spots = nameSpots(
    leaders.map((leader) => ({
      id: leader.id,
      rgb: leader.rgb,
      areaPx: sumArea(found, leaderOf, leader.id),
      members: found.filter((colour) => leaderOf.get(colour.id) === leader.id).map((colour) => colour.id),
    })),
    settings,
  );
  spots.sort((a, b) => b.areaPx - a.areaPx);
  const indexOf = new Map(spots.map((spot, index) => [spot.id, index]));
  const spotOfFound = new Uint8Array(256).fill(NONE);
  found.forEach((colour, index) => {
    spotOfFound[index] = indexOf.get(leaderOf.get(colour.id) ?? "") ?? NONE;
  });
  return { spots, spotOfFound, rungs, proposedCount };
}

function sumArea(found: readonly FoundColour[], leaderOf: ReadonlyMap<string, string>, leader: string): number {
  return found.reduce((sum, colour) => (leaderOf.get(colour.id) === leader ? sum + colour.areaPx : sum), 0);
}

/** Names that mean something else to a RIP (the process inks; ISO 32000-1, 8.6.6.4: All and None) or to this product. */
const RESERVED_NAMES = new Set(["cyan", "magenta", "yellow", "black", "all", "none", "underbase"]);

/**
 * Names that the person gave, else words for the colour. Two spots never share a name, since plates are told apart by
 * it; a reserved one gets " ink" behind it, so that "Black" stays a spot of its own at any RIP.
 */
function nameSpots(spots: Omit<Spot, "name" | "role">[], settings: ColourSettings): Spot[] {
  const taken = new Set<string>();
  return spots.map((spot) => {
    const decision = settings.spots[spot.id];
    const plain = decision?.name?.trim() || describeColour(spot.rgb);
    const wanted = RESERVED_NAMES.has(plain.toLowerCase()) ? `${plain} ink` : plain;
    let name = wanted;
    for (let n = 2; taken.has(name.toLowerCase()); n++) name = `${wanted} ${n}`;
    taken.add(name.toLowerCase());
    return { ...spot, name, role: decision?.role ?? "ink" };
  });
}
