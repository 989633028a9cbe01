// From found colours to the job's spots: the person's merges first, then the ladder down to the wanted number.
import { ciede2000, nameChoices, parseHex, type Rgb, rgbToLab } from "../colour/index.ts";
import { NONE } from "../raster/index.ts";
import type { Findings, FoundColour } from "./find.ts";
import { buildLadder, type Proposal, proposeCount, type Rung } from "./ladder.ts";

/** What a spot is to the press: printed, the garment itself showing through, or not there at all. */
export type SpotRole = "ink" | "garment" | "drop";

/** One spot colour of the job. Everything refers to it by `id`, which is the id of the found colour that leads it. */
export interface Spot {
  readonly id: string;
  readonly name: string;
  /** As it will be printed: the stock's colour, the one given by hand, or the picture's. */
  readonly rgb: Rgb;
  /** As it is in the picture; of a spot that was added by hand, as it was given. */
  readonly pictureRgb: Rgb;
  readonly role: SpotRole;
  /** A locked spot merges with no other by itself. */
  readonly isLocked: boolean;
  /** Pixels of the picture that are this spot. */
  readonly areaPx: number;
  /** Found colours that it gathers, itself included; none if it was added by hand. */
  readonly members: readonly string[];
}

/** What the person decided on one spot. */
export interface SpotDecision {
  readonly name?: string | undefined;
  readonly role?: SpotRole | undefined;
  readonly isLocked?: boolean | undefined;
  /** Colour given by hand. */
  readonly hex?: string | undefined;
  /** What it is printed with. */
  readonly stock?: { readonly name: string; readonly hex: string } | null | undefined;
}

/** The person's decisions about colours, part of the recipe. */
export interface ColourSettings {
  /** How many colours, or null to take the proposed number. Spots added by hand come on top. */
  readonly count: number | null;
  /** Merges made by hand; they stay whatever the number. */
  readonly merges: readonly { readonly from: string; readonly into: string }[];
  readonly decided: Readonly<Record<string, SpotDecision>>;
  /** Spots that the picture did not have: poured into areas, or one side of a dividing line. */
  readonly added: readonly { readonly id: string; readonly hex: string }[];
}

/** Nothing decided yet. */
export const UNDECIDED: ColourSettings = { count: null, merges: [], decided: {}, added: [] };

/** The spots of a job and how found colours map to them. */
export interface Reduction {
  /** Largest first; those added by hand last. */
  readonly spots: readonly Spot[];
  /** For every found colour, by its index: the index in `spots`. */
  readonly spotOfFound: Uint8Array;
  readonly rungs: readonly Rung[];
  readonly proposal: Proposal;
}

/**
 * Applies the person's decisions to the findings. A spot that nobody decided on and that is the garment's own colour is
 * proposed to be the garment: no ink. Cost does not depend on the picture's size.
 */
export function reduceColours(
  { found, noise }: Findings,
  settings: ColourSettings,
  garment: Rgb | null = null,
): Reduction {
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
  const locked = new Set(groups.map(({ id }) => id).filter((id) => settings.decided[id]?.isLocked));
  const rungs = buildLadder(groups, locked);
  const proposal = proposeCount(groups, rungs, noise);
  const wanted = settings.count ?? proposal.count;
  for (const rung of rungs) if (rung.countAfter >= wanted) merge(rung.from, rung.into);

  const leaders = found.filter((colour) => leaderOf.get(colour.id) === colour.id);
  const inPicture = leaders.map((leader) => ({
    id: leader.id,
    pictureRgb: leader.rgb,
    areaPx: sumArea(found, leaderOf, leader.id),
    members: found.filter((colour) => leaderOf.get(colour.id) === leader.id).map((colour) => colour.id),
  }));
  inPicture.sort((a, b) => b.areaPx - a.areaPx);
  const added = settings.added.map(({ id, hex }) => ({ id, pictureRgb: parseHex(hex), areaPx: 0, members: [] }));
  const spots = decideSpots([...inPicture, ...added], settings, garment);
  const indexOf = new Map(spots.map((spot, index) => [spot.id, index]));
  const spotOfFound = new Uint8Array(256).fill(NONE);
  found.forEach((colour, index) => {
    spotOfFound[index] = indexOf.get(leaderOf.get(colour.id) ?? "") ?? NONE;
  });
  return { spots, spotOfFound, rungs, proposal };
}

function sumArea(found: readonly FoundColour[], leaderOf: ReadonlyMap<string, string>, leader: string): number {
  return found.reduce((sum, colour) => (leaderOf.get(colour.id) === leader ? sum + colour.areaPx : sum), 0);
}

/** A spot this near to the garment, CIEDE2000, needs no ink (common practice, no source). */
const IS_GARMENT = 3;

/** Names that mean something else to a RIP (the process inks; ISO 32000-1, 8.6.6.4: All and None) or to this product. */
const RESERVED_NAMES = new Set(["cyan", "magenta", "yellow", "black", "all", "none", "underbase"]);

/**
 * Name, colour and role as decided. A name is the person's, else the stock's, else free words for the colour. Two spots never
 * share a name, since plates are told apart by it; a reserved one gets " ink" behind it, so that "Black" stays a spot of its
 * own at any RIP.
 */
function decideSpots(
  spots: readonly Pick<Spot, "id" | "pictureRgb" | "areaPx" | "members">[],
  settings: ColourSettings,
  garment: Rgb | null,
): Spot[] {
  const taken = new Set<string>();
  const garmentLab = garment && rgbToLab(garment);
  return spots.map((spot) => {
    const { name: given, role: decided, isLocked = false, hex, stock } = settings.decided[spot.id] ?? {};
    const printed = stock?.hex ?? hex;
    const rgb = printed === undefined ? spot.pictureRgb : parseHex(printed);
    const isGarment = garmentLab !== null && ciede2000(garmentLab, rgbToLab(rgb)) <= IS_GARMENT;
    const role = decided ?? (isGarment ? "garment" : "ink");
    const called = given?.trim() || stock?.name;
    const choices = called === undefined ? nameChoices(rgb) : [called];
    const allowed = choices.map((plain) => (RESERVED_NAMES.has(plain.toLowerCase()) ? `${plain} ink` : plain));
    let name = allowed.find((choice) => !taken.has(choice.toLowerCase())) ?? allowed[0];
    for (let n = 2; taken.has(name.toLowerCase()); n++) name = `${allowed[0]} ${n}`;
    taken.add(name.toLowerCase());
    return { ...spot, name, rgb, role, isLocked };
  });
}
