// The proof of a job as it stands: its looks, its facts, and what the client should know.
import { formatHex } from "../colour/index.ts";
import { silhouetteFor } from "../garment/index.ts";
import type { Product } from "../process/index.ts";
import { processOf } from "../processes/index.ts";
import { printWidthMm, type Recipe, type Results } from "../recipe/index.ts";
import type { ShopSettings } from "../shelf/index.ts";
import type { Proof } from "./proof.ts";
import { listRemarks } from "./remarks.ts";

/** What is said of a job beside its recipe. */
export interface ProofFacts {
  readonly shopName: string;
  readonly jobNumber: number;
  readonly number: number;
  readonly title: string;
  readonly client: string;
  /** The garment as the shelf names it; null: it has none of that colour. */
  readonly garmentName: string | null;
  readonly shop: ShopSettings;
}

export function makeProof(results: Results, recipe: Recipe, facts: ProofFacts): Proof {
  const { prepared, reduction } = results;
  const { artwork, colours, proof } = recipe;
  const widthMm = printWidthMm(recipe, prepared.raster);
  const heightMm = (widthMm * prepared.raster.height) / prepared.raster.width;
  const silhouette = silhouetteFor(artwork.placement, proof.shownOn);
  const portraits = results.made.map((product: Product) => product.portray());
  const spots = reduction.spots
    .filter(({ role }) => role === "ink")
    .map(({ id, name, rgb }) => {
      const { stock, process } = colours.decided[id] ?? {};
      const madeWith = processOf(process ?? recipe.process).name;
      return { id, name, hex: formatHex(rgb), stock: stock ? `${stock.code} ${stock.name}` : null, madeWith };
    });
  return {
    format: 1,
    ...{ shop: facts.shopName, jobNumber: facts.jobNumber, number: facts.number },
    ...{ title: facts.title, client: facts.client, message: proof.message },
    madeWith: processOf(recipe.process).name,
    garment: { hex: artwork.garment, name: facts.garmentName ?? artwork.garment },
    placement: {
      name: artwork.placement?.name ?? silhouette.name,
      shownOn: silhouette.name,
      belowMm: proof.belowMm ?? silhouette.printAt.y,
      asideMm: proof.asideMm ?? silhouette.printAt.x,
    },
    ...{ widthMm, heightMm, unit: artwork.width.unit },
    pieces: colours.pieces,
    price: proof.price || null,
    spots,
    counts: portraits.flatMap(({ counts }) => counts),
    picture: portraits.flatMap(({ parts }) =>
      parts.map((part) => (part.kind === "stones" ? { ...part, places: [...part.places] } : part)),
    ),
    remarks: listRemarks(results, recipe, facts.shop),
  };
}
