// Changes of the colour decisions, as changes of the recipe.

import { type Correction, type Recipe, spotsInEntries } from "@plain-palette/core/recipe";
import { MAX_FOUND, NOTHING, type Spot } from "@plain-palette/core/reduce";
import { setColours } from "../set-colours.ts";
import { type PaintDesk, TO_GARMENT } from "./paint-desk.ts";

export type Colours = Recipe["colours"];
export type Decision = Colours["decided"][string];

/** Decides on one spot; what is undefined is forgotten. */
export function decideSpot(recipe: Recipe, id: string, part: Partial<Decision>): Recipe {
  const { decided } = recipe.colours;
  return setColours(recipe, { decided: { ...decided, [id]: { ...decided[id], ...part } } });
}

/** Merges by hand. The number follows, or the ladder would split another pair to keep it. */
export function mergeSpots(recipe: Recipe, from: string, into: string): Recipe {
  const { merges, count } = recipe.colours;
  return setColours(recipe, {
    merges: [...merges, { from, into }],
    count: count === null ? null : Math.max(1, count - 1),
  });
}

/** Takes back all merges by hand into a spot. */
export function unmergeSpot(recipe: Recipe, members: readonly string[]): Recipe {
  const { merges, count } = recipe.colours;
  const kept = merges.filter(({ into }) => !members.includes(into));
  return setColours(recipe, {
    merges: kept,
    count: count === null ? null : Math.min(MAX_FOUND, count + merges.length - kept.length),
  });
}

/** The spot that an area is given to: one that is there, or a new one of a colour. */
export type Target = { readonly spotId: string } | { readonly hex: string; readonly isGarment?: boolean };

/** Adds a correction; a new spot comes with it. Returns the recipe and the id of the spot. */
export function addCorrection(
  recipe: Recipe,
  target: Target,
  make: (id: string, spotId: string) => Correction,
): { readonly recipe: Recipe; readonly spotId: string } {
  const { corrections, added } = recipe.colours;
  const isNew = "hex" in target;
  const spotId = isNew ? nextId("new-", added) : target.spotId;
  const correction = make(nextId("c", corrections), spotId);
  // Another area of a colour that was made new before is of that spot; a line divides off one of its own.
  const same = isNew && correction.kind !== "divide" ? added.find(({ hex }) => hex === target.hex) : undefined;
  return {
    spotId: same?.id ?? spotId,
    recipe: setColours(recipe, {
      ...(isNew && target.isGarment && !same
        ? { decided: { ...recipe.colours.decided, [spotId]: { role: "garment", name: "Garment" } } }
        : {}),
      added: isNew && !same ? [...added, { id: spotId, hex: target.hex }] : added,
      corrections: [...corrections, same ? { ...correction, spotId: same.id } : correction],
    }),
  };
}

export function changeCorrection(recipe: Recipe, changed: Correction): Recipe {
  return setColours(recipe, {
    corrections: recipe.colours.corrections.map((one) => (one.id === changed.id ? changed : one)),
  });
}

/** Takes a correction out, and the spot that was made for it if nothing else uses it. */
export function removeCorrection(recipe: Recipe, id: string): Recipe {
  const corrections = recipe.colours.corrections.filter((one) => one.id !== id);
  const used = spotsInEntries(recipe.shapes.entries);
  for (const { spotId } of corrections) used.add(spotId);
  return setColours(recipe, { corrections, added: recipe.colours.added.filter((spot) => used.has(spot.id)) });
}

/** A name that none of the list has or had before the last of them. */
function nextId(prefix: string, list: readonly { readonly id: string }[]): string {
  return `${prefix}${1 + Math.max(0, ...list.map(({ id }) => Number(id.slice(prefix.length)) || 0))}`;
}

/**
 * Who areas are given to as things are now: a spot that was undone, or is no longer in the picture, is a new one again; the
 * garment is a spot that shows it, an old one or a new one.
 */
export function resolveTarget(
  desk: Pick<PaintDesk, "target" | "hex">,
  spots: readonly Spot[],
  garment: string,
): Target {
  if (desk.target === NOTHING) return { spotId: NOTHING };
  if (desk.target === TO_GARMENT) {
    const shown = spots.find(({ role }) => role === "garment");
    return shown ? { spotId: shown.id } : { hex: garment, isGarment: true };
  }
  return spots.some(({ id }) => id === desk.target) && desk.target !== null
    ? { spotId: desk.target }
    : { hex: desk.hex };
}
