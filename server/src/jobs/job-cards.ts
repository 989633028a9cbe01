// Jobs as the board lists them: one query, without the recipes' bodies, which may hold megabytes of strokes.
import { type JobCard, type JobState, jobCardSchema } from "@plain-palette/contract";
import { FIRST_PROCESS, processOf } from "@plain-palette/core/processes";
import type { EntityManager } from "typeorm";
import { z } from "zod";

const CARDS = `
  SELECT job.id, job.number, job.title, job.client, job.step, job.head, job.is_put_away, job.updated_at,
    DATE_FORMAT(job.due_day, '%Y-%m-%d') AS due_day, job.client_mail, job.seen_key, job.made_version, job.proof_state, job.proof_ends_at, DATE_FORMAT(job.yes_day, '%Y-%m-%d') AS yes_day, job.yes_key,
    job.garment, job.process, recipe.file_name, picture.version AS picture,
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
      seen_key: z.string(),
      made_version: z.number().nullable(),
      proof_state: z.string(),
      proof_ends_at: z.date().nullable(),
      yes_day: z.string().nullable(),
      yes_key: z.string(),
      due_day: z.string().nullable(),
      client_mail: z.string(),
      step: z.string(),
      head: z.number(),
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
      state: stateOf(row),
      yesDay: row.yes_day,
      dueDay: row.due_day,
      clientMail: row.client_mail,
      process: process ?? FIRST_PROCESS.id,
      isPutAway: is_put_away,
      updatedAt: updated_at.toISOString(),
      // Recipes of the first form name none.
      makeTitle: (process === null ? FIRST_PROCESS : processOf(process)).title,
      artwork: { ...row, fileName: file_name, bytes: size, hasAlpha: has_alpha },
    }),
  );
}

type Standing = Pick<
  z.infer<typeof rowsSchema>[number],
  "seen_key" | "made_version" | "proof_state" | "proof_ends_at" | "yes_day" | "yes_key" | "step" | "head"
>;

/** What a job waits for. A yes is to what was seen: as long as that stays, it stays. */
function stateOf(row: Standing): JobState {
  const isYes = row.yes_day !== null && row.proof_state === "yes";
  if (isYes && row.seen_key !== row.yes_key) return "changed";
  if (row.made_version === row.head) return "made";
  if (isYes) return "yes";
  if (row.proof_state === "answered") return "answered";
  // A link that has ended is waited for no more.
  if (row.proof_state === "waits" && row.proof_ends_at && row.proof_ends_at > new Date()) return "waits";
  return row.step === "artwork" ? "new" : "making";
}
