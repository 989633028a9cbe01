// What can wait for the server: each kind of change as something that is kept, sent, and may be sent again without being
// done twice.
import {
  type Job,
  jobPatchSchema,
  MOST_RECIPE_BYTES,
  RECIPE_TOO_LARGE,
  type RecipeSave,
  recipeSaveSchema,
  type ShopPlacement,
  type ShopStock,
  settingsSaveSchema,
  shopPlacementSchema,
  shopStockSchema,
} from "@plain-palette/contract";
import type { ShopSettings } from "@plain-palette/core/shelf";
import { z } from "zod";
import { api } from "../api/client.ts";
import { RequestProblem } from "../api/requests.ts";

const deedSchema = z.enum(["add", "change", "putAway", "return"]);

export const contentSchema = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("recipe"), job: z.string(), save: recipeSaveSchema }),
  z.object({ kind: z.literal("ticket"), job: z.string(), patch: jobPatchSchema }),
  z.object({ kind: z.literal("settings"), patch: settingsSaveSchema }),
  z.object({ kind: z.literal("stock"), deed: deedSchema, thing: shopStockSchema }),
  z.object({ kind: z.literal("placement"), deed: deedSchema, thing: shopPlacementSchema }),
]);
export type Content = z.infer<typeof contentSchema>;
export type ContentOf<Kind extends Content["kind"]> = Extract<Content, { kind: Kind }>;

/** What the server has after a letter. */
export type Answer =
  | { readonly of: "job"; readonly job: Job }
  | { readonly of: "settings"; readonly settings: ShopSettings }
  | { readonly of: "stock"; readonly thing: ShopStock }
  | { readonly of: "placement"; readonly thing: ShopPlacement };

/** Letters of one thread are sent one after the other; those of others do not wait for them. */
export function threadOf(content: Content): string {
  switch (content.kind) {
    case "recipe":
    case "ticket":
      return `${content.kind} ${content.job}`;
    case "settings":
      return "settings";
    default:
      return `${content.kind} ${content.thing.id}`;
  }
}

/** Throws a RequestProblem. */
export async function sendContent(content: Content): Promise<Answer> {
  switch (content.kind) {
    case "recipe":
      if (!fitsIn(content.save)) throw new RequestProblem(RECIPE_TOO_LARGE);
      return { of: "job", job: await api.saveRecipe(content.job, content.save) };
    case "ticket":
      return { of: "job", job: await api.patchJob(content.job, content.patch) };
    case "settings":
      return { of: "settings", settings: await api.changeSettings(content.patch) };
    case "stock":
      return { of: "stock", thing: await api.stock[content.deed](content.thing) };
    case "placement":
      return { of: "placement", thing: await api.placements[content.deed](content.thing) };
  }
}

function fitsIn({ recipe }: RecipeSave): boolean {
  return new TextEncoder().encode(JSON.stringify(recipe)).length <= MOST_RECIPE_BYTES;
}

/** The version that an answer leaves, from which the next letter of its thread is made. */
export function versionAfter(answer: Answer): number {
  if (answer.of === "job") return answer.job.head;
  return answer.of === "settings" ? 0 : answer.thing.version;
}

/** A letter's content as it follows that version. */
export function follow(content: Content, version: number): Content {
  if (content.kind === "recipe") return { ...content, save: { ...content.save, basedOn: version } };
  if (content.kind === "stock") return { ...content, thing: { ...content.thing, version } };
  if (content.kind === "placement") return { ...content, thing: { ...content.thing, version } };
  return content;
}
