// What of a recipe the client sees: as long as this stays, a yes stays. Traps, order on the press, formats are not in it.
import { processesIn, type Recipe } from "../recipe/index.ts";
import { hashText } from "../steps/index.ts";

/** Names all of a recipe, on an artwork of that hash, that changes what is seen or ordered. */
export function seenKey(recipe: Recipe, artworkHash: string): string {
  const { artwork, colours, shapes, process, proof } = recipe;
  const inForce = <T extends { readonly isOn: boolean }>(entries: readonly T[]) => entries.filter(({ isOn }) => isOn);
  const decided = Object.entries(colours.decided)
    .map(([id, { name, role, hex, stock, process: own }]) => [id, name, role, hex, stock?.code, stock?.hex, own])
    .filter(([, ...said]) => said.some((one) => one !== undefined))
    .sort(([a = ""], [b = ""]) => (a < b ? -1 : 1));
  return hashText(
    JSON.stringify([
      artworkHash,
      [artwork.width, artwork.height, artwork.garment, artwork.placement, artwork.page, artwork.drawnWidthPx],
      inForce(artwork.actions),
      [
        colours.count,
        colours.merges,
        decided,
        colours.added,
        colours.order,
        inForce(colours.corrections),
        colours.pieces,
      ],
      { ...shapes, entries: inForce(shapes.entries) },
      [process, processesIn(recipe).map((one) => one.seenOf(recipe))],
      [proof.shownOn, proof.belowMm, proof.asideMm, proof.price],
    ]),
  );
}
