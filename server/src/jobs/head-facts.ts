// What is kept of the recipe in force beside it: what the board lists, what the client sees of it, and which motifs it places.
import { seenKey } from "@plain-palette/core/proof";
import { neededBy, readRecipe } from "@plain-palette/core/recipe";
import type { EntityManager } from "typeorm";
import { JobEntity, RecipeEntity } from "../database/index.ts";

/** Notes it for the version that was put in force. */
export async function noteHead(tx: EntityManager, id: string, version: number): Promise<void> {
  const { body, artworkHash } = await tx.findOneByOrFail(RecipeEntity, { jobId: id, version });
  const recipe = readRecipe(body);
  const { garment } = recipe.artwork;
  await tx.update(JobEntity, { id }, { garment, process: recipe.process, seenKey: seenKey(recipe, artworkHash) });
  await tx.query("DELETE FROM job_motifs WHERE job_id = ?", [id]);
  for (const hash of neededBy(recipe.shapes.entries).motifs)
    await tx.query("INSERT INTO job_motifs (job_id, hash) VALUES (?, ?)", [id, hash]);
}
