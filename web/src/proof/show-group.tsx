// How the design is shown: on what garment, where on it, at what price, with what words.
import { SILHOUETTE_NAMES, silhouetteFor } from "@plain-palette/core/garment";
import type { Proof } from "@plain-palette/core/proof";
import type { Recipe } from "@plain-palette/core/recipe";
import { priceColours } from "@plain-palette/core/shelf";
import { useId } from "react";
import { useJob } from "../job/use-job.ts";
import { Button } from "../parts/button.tsx";
import { MmField } from "../parts/fields.tsx";
import { SelectField } from "../parts/select-field.tsx";
import { useDraft } from "../parts/use-draft.ts";
import { useShop } from "../shop/use-shop.ts";

const AS_PLACED = "";

export function ShowGroup({ live }: { live: Proof | null }) {
  const id = useId();
  const proof = useJob((state) => state.recipe.proof);
  const placement = useJob((state) => state.recipe.artwork.placement);
  const pieces = useJob((state) => state.recipe.colours.pieces);
  const isScreens = useJob((state) => state.recipe.process === "screens");
  const edit = useJob((state) => state.edit);
  const { settings } = useShop();
  const set = (part: Partial<Recipe["proof"]>) =>
    edit((recipe) => ({ ...recipe, proof: { ...recipe.proof, ...part } }));
  const price = useDraft(proof.price, (text) => set({ price: text.trim() }));
  const message = useDraft(proof.message, (text) => set({ message: text.trim() }));
  const silhouette = silhouetteFor(placement, proof.shownOn);
  const usual = silhouette.printAt;
  const proposed = live ? priceColours(live.spots.length, pieces, settings) : 0;
  const words = `${settings.currency}${(proposed / pieces).toFixed(2)} each, ${settings.currency}${proposed.toFixed(2)} in all`;
  return (
    <fieldset className="border border-rule bg-sheet p-3">
      <legend className="float-left w-full pb-1 font-semibold">How it is shown</legend>
      <div className="clear-both">
        {!placement && !proof.shownOn && (
          <p role="note" className="border-l-4 border-wrong bg-card px-2 py-1 text-xs">
            No placement is chosen: the client sees it in the middle of the front. Choose what it is shown on, or its
            placement at Artwork.
          </p>
        )}
        <SelectField
          label="On"
          value={proof.shownOn ?? AS_PLACED}
          options={[
            { value: AS_PLACED, text: proof.shownOn ? "as placed" : `${silhouette.name}, as placed` },
            ...SILHOUETTE_NAMES.map((name) => ({ value: name, text: name })),
          ]}
          onChange={(name) =>
            set({ shownOn: SILHOUETTE_NAMES.find((one) => one === name) ?? null, belowMm: null, asideMm: null })
          }
        />
        <MmField
          label={`Under ${silhouette.edge}`}
          valueMm={proof.belowMm ?? usual.y}
          min={-500}
          max={1500}
          onChange={(belowMm) => set({ belowMm })}
        />
        <MmField
          label="Right of the middle"
          valueMm={proof.asideMm ?? usual.x}
          min={-700}
          max={700}
          onChange={(asideMm) => set({ asideMm })}
        />
        <label htmlFor={`${id}-price`} className="block pt-1">
          Price, as the client reads it
        </label>
        <input
          id={`${id}-price`}
          maxLength={120}
          placeholder="Not shown"
          className={FIELD}
          value={price.shown}
          onChange={(event) => price.type(event.target.value)}
          onBlur={price.take}
        />
        {isScreens && proof.price !== words && live && (
          <Button className="mt-1 px-2 py-0.5" onClick={() => set({ price: words })}>
            {words}
          </Button>
        )}
        <label htmlFor={`${id}-message`} className="block pt-2">
          Your words to the client
        </label>
        <textarea
          id={`${id}-message`}
          rows={2}
          maxLength={1000}
          className={FIELD}
          value={message.shown}
          onChange={(event) => message.type(event.target.value)}
          onBlur={message.take}
        />
      </div>
    </fieldset>
  );
}

const FIELD = "w-full rounded-[3px] border border-edge bg-card px-2 py-1";
