// Jobs as the board lists them: one query, without the recipes' bodies, which may hold megabytes of strokes.
import { type JobCard, jobCardSchema } from "@plain-palette/contract";
import { FIRST_PROCESS, processOf } from "@plain-palette/core/processes";
import type { EntityManager } from "typeorm";
import { z } from "zod";

const CARDS = `
  SELECT job.id, job.number, job.title, job.client, job.step, job.head, job.is_put_away, job.updated_at,
    JSON_VALUE(recipe.body, '$.artwork.garment') AS garment, JSON_VALUE(recipe.body, '$.process') AS process, recipe.file_name, picture.version AS picture,
    artwork.hash, artwork.kind, artwork.size, artwork.width, artwork.height, artwork.has_alpha, artwork.dpi,
    artwork.pages, artwork.content
  FROM jobs job
    JOIN recipes recipe ON recipe.job_id = job.id AND recipe.version = job.head
    JOIN artworks artwork ON artwork.hash = recipe.artwork_hash
    LEFT JOIN job_pictures picture ON picture.job_id = job.id`;

const rowsSchema = z.array(
  z
    .object({
      is_put_away: z.coerce.boolean(),
      has_alpha: z.coerce.boolean(),
      updated_at: z.date(),
      process: z.string().nullable(),
    })
    .catchall(z.unknown()),
);

const cardSchema = jobCardSchema.extend({ head: z.number().int() });

/** All jobs, the newest first. */
export async function listCards(manager: EntityManager): Promise<JobCard[]> {
  const rows = await manager.query(`${CARDS} ORDER BY job.number DESC`);
  return toCards(rows).map(({ head: _, ...card }) => card);
}

/** One job with the version in force; null if it is not there. */
export async function findCard(manager: EntityManager, id: string): Promise<z.infer<typeof cardSchema> | null> {
  return toCards(await manager.query(`${CARDS} WHERE job.id = ?`, [id]))[0] ?? null;
}

function toCards(rows: unknown): z.infer<typeof cardSchema>[] {
  return rowsSchema.parse(rows).map(({ is_put_away, has_alpha, updated_at, file_name, size, process, ...row }) =>
    cardSchema.parse({
      ...row,
      isPutAway: is_put_away,
      updatedAt: updated_at.toISOString(),
      // Recipes of the first form name none.
      makeTitle: (process === null ? FIRST_PROCESS : processOf(process)).title,
      artwork: { ...row, fileName: file_name, bytes: size, hasAlpha: has_alpha },
    }),
  );
}
