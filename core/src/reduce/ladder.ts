// The merge ladder: from all found colours down to one, cheapest merge first, so that any number is one step away.
import { ciede2000, rgbToLab } from "../colour/index.ts";
import type { FoundColour } from "./find.ts";

/** One rung: taking `from` into `into` costs `cost` (share of the picture times CIEDE2000) and leaves `countAfter` colours. */
export interface Rung {
  readonly from: string;
  readonly into: string;
  readonly cost: number;
  readonly difference: number;
  readonly countAfter: number;
}

/** An accent weighs this much times the root of its share, but no more than MOST_ACCENT: our own choice. */
const ACCENT = 0.75;
const MOST_ACCENT = 0.1;

/**
 * A colour's weight against merging: its share of the picture, more for a small one, so that a small but distinct accent
 * outlives a near tone; not so much more that a hair-thin line outlives an area.
 */
function weigh(share: number): number {
  return Math.max(share, Math.min(MOST_ACCENT, ACCENT * Math.sqrt(share)));
}

/**
 * All rungs from `colours.length` down to 1, or to where only `locked` colours and one more are left: those never merge.
 * Merging moves the smaller colour into the larger; the cost of a pair is the smaller one's weight times the pair's CIEDE2000.
 * Cubic in the number of colours, which is at most MAX_FOUND; differences are taken once for each pair.
 */
export function buildLadder(colours: readonly FoundColour[], locked: ReadonlySet<string> = new Set()): Rung[] {
  const labs = colours.map(({ rgb }) => rgbToLab(rgb));
  const differences = labs.map((lab) => labs.map((other) => (other === lab ? 0 : ciede2000(lab, other))));
  const groups: Group[] = colours.map(({ id, areaPx }, colour) => ({ id, areaPx, colour, isLocked: locked.has(id) }));
  const total = groups.reduce((sum, group) => sum + group.areaPx, 0);
  const rungs: Rung[] = [];
  while (groups.length > 1) {
    const best = cheapestMerge(groups, differences, total);
    if (!best) break;
    const [from, into] = [groups[best.small], groups[best.large]];
    groups[best.large] = { ...into, areaPx: into.areaPx + from.areaPx };
    groups.splice(best.small, 1);
    const { cost, difference } = best;
    rungs.push({ from: from.id, into: into.id, cost, difference, countAfter: groups.length });
  }
  return rungs;
}

/** A colour with all that was merged into it; `colour` is its place in the list that the ladder begins with. */
interface Group {
  readonly id: string;
  readonly areaPx: number;
  readonly colour: number;
  readonly isLocked: boolean;
}

interface Merge {
  readonly cost: number;
  readonly difference: number;
  readonly small: number;
  readonly large: number;
}

/** The cheapest merge of two groups; null if there is none. */
function cheapestMerge(
  groups: readonly Group[],
  differences: readonly (readonly number[])[],
  total: number,
): Merge | null {
  let least = Number.POSITIVE_INFINITY;
  let first = 0;
  let second = 0;
  for (let i = 0; i < groups.length; i++) {
    if (groups[i].isLocked) continue;
    const { areaPx, colour } = groups[i];
    for (let j = i + 1; j < groups.length; j++) {
      if (groups[j].isLocked) continue;
      const cost = weigh(Math.min(areaPx, groups[j].areaPx) / total) * differences[colour][groups[j].colour];
      if (cost >= least) continue;
      least = cost;
      first = i;
      second = j;
    }
  }
  if (least === Number.POSITIVE_INFINITY) return null;
  const isFirstSmaller = groups[first].areaPx < groups[second].areaPx;
  const [small, large] = isFirstSmaller ? [first, second] : [second, first];
  return { cost: least, difference: differences[groups[first].colour][groups[second].colour], small, large };
}

/** Above 16 colours it is not a spot-colour job; a proposal stays below what one press usually carries (common practice, no source). */
const MOST_PROPOSED = 12;
/** A merge of two colours nearer than this is always proposed. */
const NEAR_TWINS = 2;

/** How far a proposed number is to be trusted, and what speaks against it. */
export interface Proposal {
  readonly count: number;
  readonly sureness: "sure" | "fairly sure" | "unsure";
  /** The two colours kept apart that are nearest each other. */
  readonly nearest: { readonly a: string; readonly b: string; readonly difference: number } | null;
  /** The smallest colour kept, if it is a small one, and its share of the picture. */
  readonly smallest: { readonly id: string; readonly share: number } | null;
  /** More shades were found than a press carries: the number is a choice, not a count. */
  readonly isShaded: boolean;
  /** Grain or compression blurs what is a colour. */
  readonly isNoisy: boolean;
}

/** Two colours nearer than this leave a doubt whether the artist meant two (CIEDE2000); a smaller one, whether it is one. */
const DOUBTFUL_DIFFERENCE = 5;
const DOUBTFUL_SHARE = 0.001;

/**
 * The number of colours to propose: all that were found, less near twins; for art with more colours than a press carries
 * (soft gradients, photographs), as far down as merges stay cheap.
 */
export function proposeCount(colours: readonly FoundColour[], rungs: readonly Rung[], noise: number): Proposal {
  let count = colours.length;
  const kept = new Map(colours.map((colour) => [colour.id, colour]));
  for (const rung of rungs) {
    if (count <= MOST_PROPOSED && rung.difference >= NEAR_TWINS) break;
    count = rung.countAfter;
    kept.delete(rung.from);
  }
  const left = [...kept.values()];
  const total = colours.reduce((sum, { areaPx }) => sum + areaPx, 0);
  const nearest = findNearest(left);
  const last = left.reduce<FoundColour | null>((least, c) => (least && least.areaPx <= c.areaPx ? least : c), null);
  const smallest = last && last.areaPx < total * DOUBTFUL_SHARE ? { id: last.id, share: last.areaPx / total } : null;
  const isShaded = colours.length > MOST_PROPOSED;
  const isNoisy = noise > 0;
  const isDoubtful = isNoisy || smallest !== null || (nearest !== null && nearest.difference < DOUBTFUL_DIFFERENCE);
  return {
    count,
    sureness: isShaded ? "unsure" : isDoubtful ? "fairly sure" : "sure",
    nearest,
    smallest,
    isShaded,
    isNoisy,
  };
}

function findNearest(colours: readonly FoundColour[]): Proposal["nearest"] {
  let nearest: Proposal["nearest"] = null;
  const labs = colours.map(({ rgb }) => rgbToLab(rgb));
  for (let i = 0; i < colours.length; i++)
    for (let j = 0; j < i; j++) {
      const difference = ciede2000(labs[i], labs[j]);
      if (!nearest || difference < nearest.difference) nearest = { a: colours[j].id, b: colours[i].id, difference };
    }
  return nearest;
}
