// Jobs as the board lists them: one query, without the recipes' bodies, which may hold megabytes of strokes.
import { type Board, type BoardSearch, boardSearchSchema, JOB_STATES, jobCardSchema } from "@plain-palette/contract";
import { FIRST_PROCESS, processOf } from "@plain-palette/core/processes";
import type { EntityManager } from "typeorm";
import { z } from "zod";

/** What a job waits for. A yes is to what was seen: as long as that stays, it stays. A link that has ended is waited for no more. */
const STATE = `
  CASE
    WHEN job.proof_state = 'yes' AND job.seen_key <> job.yes_key THEN 'changed'
    WHEN job.proof_state = 'answered' THEN 'answered'
    WHEN job.proof_state = 'waits' AND job.proof_ends_at > ? THEN 'waits'
    WHEN job.made_version = job.head THEN 'made'
    WHEN job.proof_state = 'yes' THEN 'yes'
    WHEN job.step = 'artwork' THEN 'new'
    ELSE 'making'
  END`;

const FROM = `
  FROM jobs job
    JOIN recipes recipe ON recipe.job_id = job.id AND recipe.version = job.head
    JOIN artworks artwork ON artwork.hash = recipe.artwork_hash
    LEFT JOIN job_pictures picture ON picture.job_id = job.id`;

const CARDS = `
  SELECT job.id, job.number, job.title, job.client, job.step, job.head, job.is_put_away, job.updated_at,
    DATE_FORMAT(job.due_day, '%Y-%m-%d') AS due_day, job.client_mail, DATE_FORMAT(job.yes_day, '%Y-%m-%d') AS yes_day,
    ${STATE} AS state, job.garment, job.process, recipe.file_name, picture.version AS picture,
    artwork.hash, artwork.kind, artwork.size, artwork.width, artwork.height, artwork.has_alpha, artwork.dpi,
    artwork.pages, artwork.content
  ${FROM}`;

const rowsSchema = z.array(
  z
    .object({
      is_put_away: z.coerce.boolean(),
      has_alpha: z.coerce.boolean(),
      updated_at: z.date(),
      process: z.string().nullable(),
      yes_day: z.string().nullable(),
      due_day: z.string().nullable(),
      client_mail: z.string(),
    })
    .catchall(z.unknown()),
);

const cardSchema = jobCardSchema.extend({ head: z.number().int() });

const ORDERS = {
  newest: "job.number DESC",
  due: "job.due_day IS NULL, job.due_day, job.number DESC",
  changed: "job.updated_at DESC",
  client: "job.client = '', job.client, job.number DESC",
} as const;

/** The jobs that are looked for, so many from a place on; and how many wait for what, of all that but the state fits. */
export async function searchBoard(manager: EntityManager, search: BoardSearch): Promise<Board> {
  const { words, state, process, isPutAway, sort, from, most } = boardSearchSchema.parse(search);
  const parts = ["job.is_put_away = ?"];
  const values: unknown[] = [isPutAway === "yes"];
  for (const word of words.split(/\s+/).filter(Boolean)) {
    parts.push("INSTR(CONCAT_WS(' ', job.number, job.title, job.client, recipe.file_name), ?) > 0");
    values.push(word);
  }
  if (process !== undefined) {
    parts.push("COALESCE(job.process, ?) = ?");
    values.push(FIRST_PROCESS.id, process);
  }
  const where = `WHERE ${parts.join(" AND ")}`;
  const now = new Date();
  const counted: { state: string; jobs: unknown }[] = await manager.query(
    `SELECT ${STATE} AS state, COUNT(*) AS jobs ${FROM} ${where} GROUP BY state`,
    [now, ...values],
  );
  const rows = await manager.query(
    `SELECT * FROM (${CARDS} ${where} ORDER BY ${ORDERS[sort]} LIMIT 18446744073709551615) job
     ${state === undefined ? "" : "WHERE job.state = ?"} LIMIT ? OFFSET ?`,
    [now, ...values, ...(state === undefined ? [] : [state]), most, from],
  );
  const [away] = await manager.query("SELECT COUNT(*) AS jobs FROM jobs WHERE is_put_away = 1");
  return {
    jobs: toCards(rows).map(({ head: _, ...card }) => card),
    counts: JOB_STATES.map((one) => ({
      state: one,
      jobs: Number(counted.find((row) => row.state === one)?.jobs ?? 0),
    })),
    putAway: Number(away.jobs),
  };
}

/** One job with the version in force; null if it is not there. */
export async function findCard(manager: EntityManager, id: string): Promise<z.infer<typeof cardSchema> | null> {
  return toCards(await manager.query(`${CARDS} WHERE job.id = ?`, [new Date(), id]))[0] ?? null;
}

function toCards(rows: unknown): z.infer<typeof cardSchema>[] {
  return rowsSchema.parse(rows).map(({ is_put_away, has_alpha, updated_at, file_name, size, process, ...row }) =>
    cardSchema.parse({
      ...row,
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
