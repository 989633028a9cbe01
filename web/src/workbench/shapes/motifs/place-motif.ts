// A motif into the recipe of a job: its spots matched to the job's or added, with their stock; and out again.
import type { ListedMotif } from "@plain-palette/contract";
import { type JobSpot, type Motif, matchSpots } from "@plain-palette/core/motif";
import { type MotifEntry, makeShapeEntry, type Recipe, spotsInEntries } from "@plain-palette/core/recipe";
import { nextEntryId } from "../../areas/entry-ids.ts";

/** What is placed: the motif as it is listed, and its content. */
export interface Placeable {
  readonly listed: Pick<ListedMotif, "hash" | "name">;
  readonly content: Motif;
}

type Changed = { readonly recipe: Recipe; readonly entry: MotifEntry };

/** The recipe with the motif placed, its spots among the job's. `there`: those that the job has now. */
export function placeMotif(
  recipe: Recipe,
  { listed, content }: Placeable,
  there: readonly JobSpot[],
  how: Pick<MotifEntry, "places"> & Partial<Pick<MotifEntry, "over">>,
): Changed {
  const matched = withSpots(recipe, content, there, []);
  const { widthMm, heightMm } = content;
  const entry = makeShapeEntry({
    ...{ id: nextEntryId(recipe.shapes.entries, "edit"), kind: "motif", spots: matched.spots, ...how },
    motif: { hash: listed.hash, name: listed.name, widthMm, heightMm },
  }) as MotifEntry;
  const { shapes } = matched.recipe;
  return { recipe: { ...matched.recipe, shapes: { ...shapes, entries: [...shapes.entries, entry] } }, entry };
}

/** The recipe with a newer content in place of an entry's: colours that it had before stay what they are here. */
export function takeOver(
  recipe: Recipe,
  entry: MotifEntry,
  before: Motif,
  { listed, content }: Placeable,
  there: readonly JobSpot[],
): Changed {
  const known = content.spots.map(({ name, hex }) => {
    const k = before.spots.findIndex((spot) => spot.hex === hex || spot.name === name);
    return k < 0 ? undefined : entry.spots[k];
  });
  const matched = withSpots(recipe, content, there, known);
  const { widthMm, heightMm } = content;
  const grown = widthMm / entry.motif.widthMm;
  const next: MotifEntry = {
    ...entry,
    motif: { hash: listed.hash, name: listed.name, widthMm, heightMm },
    spots: matched.spots,
    places: entry.places.map((place) => ({ ...place, widthPx: place.widthPx * grown })),
  };
  const { shapes } = matched.recipe;
  const entries = shapes.entries.map((one) => (one.id === entry.id ? next : one));
  return { recipe: withoutIdle({ ...matched.recipe, shapes: { ...shapes, entries } }), entry: next };
}

/** The recipe without an entry, and without spots that were added for it. */
export function removeMotif(recipe: Recipe, id: string): Recipe {
  const { shapes } = recipe;
  return withoutIdle({ ...recipe, shapes: { ...shapes, entries: shapes.entries.filter((one) => one.id !== id) } });
}

/** What each spot of a motif is here: as it is known to be, matched, or new. */
function withSpots(
  recipe: Recipe,
  { spots }: Motif,
  there: readonly JobSpot[],
  known: readonly (string | null | undefined)[],
): { readonly recipe: Recipe; readonly spots: (string | null)[] } {
  const taken = new Set(known);
  const matched = matchSpots(
    spots,
    there.filter(({ id }) => !taken.has(id)),
  );
  let { colours } = recipe;
  const ids = spots.map(({ name, hex, stock }, k) => {
    const is = known[k];
    if (is !== undefined) return is;
    const found = matched[k];
    if (found) return found;
    const id = `new-${1 + Math.max(0, ...colours.added.map((one) => Number(one.id.slice(4)) || 0))}`;
    colours = {
      ...colours,
      added: [...colours.added, { id, hex }],
      decided: { ...colours.decided, [id]: { name, ...(stock ? { stock } : {}) } },
    };
    return id;
  });
  return { recipe: { ...recipe, colours }, spots: ids };
}

/** Without spots that were added by hand and that nothing uses any more. */
function withoutIdle(recipe: Recipe): Recipe {
  const { added, corrections } = recipe.colours;
  const used = spotsInEntries(recipe.shapes.entries);
  for (const { spotId } of corrections) used.add(spotId);
  return { ...recipe, colours: { ...recipe.colours, added: added.filter(({ id }) => used.has(id)) } };
}

/** A spot of the job as it is compared. */
export function jobSpot(
  { id, rgb }: { readonly id: string; readonly rgb: readonly [number, number, number] },
  { colours }: Recipe,
): JobSpot {
  return { id, rgb: [...rgb], stock: colours.decided[id]?.stock ?? null };
}
