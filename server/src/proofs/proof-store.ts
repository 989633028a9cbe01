// Proofs in the database: frozen when they are sent, with all that is said on them. The client's link is a secret of 256 bits;
// it is looked for by its hash, so that neither its being there nor its having ended shows in an answer.
import { createHash, randomBytes, randomUUID } from "node:crypto";
import type { ClientNote, ClientProof, ClientYes, ProofNote, ShopNote, ShopProof } from "@plain-palette/contract";
import { type Proof, proofSchema, seenKey } from "@plain-palette/core/proof";
import { readRecipe } from "@plain-palette/core/recipe";
import type { DataSource, EntityManager } from "typeorm";
import { z } from "zod";
import { inTransaction, JobEntity, RecipeEntity } from "../database/index.ts";
import { noteHead } from "../jobs/index.ts";
import { notFound, ProblemError } from "../problems/index.ts";

/** A proof that is to be sent. */
export interface NewProof {
  readonly jobId: string;
  readonly number: number;
  readonly recipeVersion: number;
  readonly proof: Proof;
  readonly pdf: Uint8Array;
  readonly sentAt: Date;
  readonly days: number;
}

export interface ProofStore {
  /** The number that the next proof of a job has. */
  nextNumber(jobId: string): Promise<number>;
  send(made: NewProof): Promise<ShopProof>;
  listOf(jobId: string): Promise<ShopProof[]>;
  find(jobId: string, id: string): Promise<ShopProof>;
  /** What was frozen. */
  body(jobId: string, id: string): Promise<Proof>;
  pdf(jobId: string, id: string): Promise<Buffer>;
  /** Its link opens nothing any more. */
  withdraw(jobId: string, id: string): Promise<ShopProof>;
  /** The shop asks or answers. */
  say(jobId: string, id: string, note: ShopNote): Promise<ShopProof>;
  /** Whether a link opens anything. */
  isOpen(token: string): Promise<boolean>;
  /** What an open link leads to; null for any other, however it came about. */
  byToken(token: string): Promise<{ readonly id: string; readonly view: ClientProof } | null>;
  pdfByToken(token: string): Promise<Buffer | null>;
  /** The client asks, answers, or says what to change. */
  answer(token: string, note: ClientNote): Promise<ClientProof | null>;
  /** The client says yes. */
  sayYes(token: string, yes: ClientYes): Promise<ClientProof | null>;
}

/** More than these are no conversation. */
const MOST_NOTES = 500;
const DAY_MS = 86_400_000;

const HEAD = `
  SELECT proof.id, proof.job_id AS jobId, proof.number, proof.recipe_version AS recipeVersion, proof.seen_key AS seenKey,
    proof.token, proof.sent_at AS sentAt, proof.ends_at AS endsAt, proof.withdrawn_at AS withdrawnAt,
    proof.yes_name AS yesName, DATE_FORMAT(proof.yes_day, '%Y-%m-%d') AS yesDay, proof.yes_at AS yesAt,
    job.seen_key AS headKey,
    EXISTS (SELECT 1 FROM proofs newer WHERE newer.job_id = proof.job_id AND newer.number > proof.number) AS isReplaced
  FROM proofs proof JOIN jobs job ON job.id = proof.job_id`;

/** An open link, whatever it leads to: one look-up by the hash, with the conditions in it. */
const OPEN = "WHERE proof.token_hash = ? AND proof.withdrawn_at IS NULL AND proof.ends_at > ?";

const headSchema = z.object({
  id: z.string(),
  jobId: z.string(),
  number: z.number(),
  recipeVersion: z.number(),
  seenKey: z.string(),
  token: z.string(),
  sentAt: z.date(),
  endsAt: z.date(),
  withdrawnAt: z.date().nullable(),
  yesName: z.string().nullable(),
  yesDay: z.string().nullable(),
  yesAt: z.date().nullable(),
  headKey: z.string(),
  isReplaced: z.coerce.boolean(),
});
type Head = z.infer<typeof headSchema>;

const hashOf = (token: string) => createHash("sha256").update(token).digest("hex");

/** `linkTo` makes a client's link of a secret. */
export function makeProofStore(database: DataSource, linkTo: (token: string) => string): ProofStore {
  const { manager } = database;
  const findHead = async (tx: EntityManager, where: string, values: readonly unknown[]): Promise<Head | null> => {
    const [row] = await tx.query(`${HEAD} ${where}`, [...values]);
    return row ? headSchema.parse(row) : null;
  };
  const ofJob = async (tx: EntityManager, jobId: string, id: string): Promise<Head> => {
    const head = await findHead(tx, "WHERE proof.job_id = ? AND proof.id = ?", [jobId, id]);
    if (!head) throw notFound("This proof");
    return head;
  };
  const ofToken = (tx: EntityManager, token: string) => findHead(tx, OPEN, [hashOf(token), new Date()]);
  const toShop = async (tx: EntityManager, head: Head): Promise<ShopProof> => ({
    ...(await answersOf(tx, head)),
    ...{ id: head.id, number: head.number, recipeVersion: head.recipeVersion },
    withdrawnAt: head.withdrawnAt?.toISOString() ?? null,
    link: linkTo(head.token),
    isCurrent: head.seenKey === head.headKey,
  });
  const toClient = async (tx: EntityManager, head: Head): Promise<ClientProof> => ({
    ...(await answersOf(tx, head)),
    proof: await bodyOf(tx, head.id),
  });
  /** Something that the client does; null where the link opens nothing. */
  const byClient = (token: string, act: (tx: EntityManager, head: Head) => Promise<void>) =>
    inTransaction(database, async (tx) => {
      const head = await ofToken(tx, token);
      if (!head) return null;
      await tx.findOne(JobEntity, { where: { id: head.jobId }, lock: { mode: "pessimistic_write" } });
      if (head.isReplaced) throw replaced();
      await act(tx, head);
      const after = await ofToken(tx, token);
      return after && toClient(tx, after);
    });
  return {
    async nextNumber(jobId) {
      const [row] = await manager.query("SELECT COALESCE(MAX(number), 0) + 1 AS next FROM proofs WHERE job_id = ?", [
        jobId,
      ]);
      return Number(row.next);
    },
    send: (made) =>
      inTransaction(database, async (tx) => {
        const id = await insertProof(tx, made);
        return toShop(tx, await ofJob(tx, made.jobId, id));
      }),
    async listOf(jobId) {
      const rows: unknown[] = await manager.query(`${HEAD} WHERE proof.job_id = ? ORDER BY proof.number DESC`, [jobId]);
      return Promise.all(rows.map((row) => toShop(manager, headSchema.parse(row))));
    },
    find: async (jobId, id) => toShop(manager, await ofJob(manager, jobId, id)),
    body: async (jobId, id) => bodyOf(manager, (await ofJob(manager, jobId, id)).id),
    pdf: async (jobId, id) => pdfOf(manager, (await ofJob(manager, jobId, id)).id),
    withdraw: (jobId, id) =>
      inTransaction(database, async (tx) => {
        const { withdrawnAt, isReplaced, yesAt } = await ofJob(tx, jobId, id);
        if (!withdrawnAt) await tx.query("UPDATE proofs SET withdrawn_at = ? WHERE id = ?", [new Date(), id]);
        if (!isReplaced && !yesAt) await tx.update(JobEntity, { id: jobId }, { proofState: "none", proofEndsAt: null });
        return toShop(tx, await ofJob(tx, jobId, id));
      }),
    say: (jobId, id, note) =>
      inTransaction(database, async (tx) => {
        const head = await ofJob(tx, jobId, id);
        await addNote(tx, id, "shop", "", note);
        if (!head.isReplaced && !head.yesAt) await tx.update(JobEntity, { id: jobId }, { proofState: "waits" });
        return toShop(tx, head);
      }),
    isOpen: async (token) => (await ofToken(manager, token)) !== null,
    async byToken(token) {
      const head = await ofToken(manager, token);
      return head && { id: head.id, view: await toClient(manager, head) };
    },
    async pdfByToken(token) {
      const head = await ofToken(manager, token);
      return head && pdfOf(manager, head.id);
    },
    answer: (token, note) =>
      byClient(token, async (tx, { id, jobId, yesAt }) => {
        await addNote(tx, id, "client", note.name, note);
        if (!yesAt || note.kind === "change")
          await tx.update(JobEntity, { id: jobId }, { proofState: "answered", updatedAt: new Date() });
      }),
    sayYes: (token, { name, day }) =>
      byClient(token, async (tx, { id, jobId, yesAt, seenKey: key }) => {
        if (yesAt) throw new ProblemError({ title: "You have said yes to this already", status: 409 });
        const at = new Date();
        await tx.query("UPDATE proofs SET yes_name = ?, yes_day = ?, yes_at = ? WHERE id = ?", [name, day, at, id]);
        await tx.update(JobEntity, { id: jobId }, { proofState: "yes", yesDay: day, yesKey: key, updatedAt: at });
      }),
  };
}

/** Stores a proof with a secret of its own; the job waits for the client then. Returns its id. */
async function insertProof(tx: EntityManager, made: NewProof): Promise<string> {
  const { jobId, recipeVersion: version, sentAt } = made;
  const job = await tx.findOneOrFail(JobEntity, { where: { id: jobId }, lock: { mode: "pessimistic_write" } });
  // A job from before proofs were kept, and not changed since: what is seen of it has no name yet.
  if (job.seenKey === "") await noteHead(tx, jobId, job.head);
  const { body, artworkHash } = await tx.findOneByOrFail(RecipeEntity, { jobId, version });
  const id = randomUUID();
  const token = randomBytes(32).toString("base64url");
  const endsAt = new Date(sentAt.getTime() + made.days * DAY_MS);
  await tx.query(
    `INSERT INTO proofs (id, job_id, number, recipe_version, seen_key, token, token_hash, sent_at, ends_at, body, pdf)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    [
      ...[id, jobId, made.number, version, seenKey(readRecipe(body), artworkHash), token, hashOf(token)],
      ...[sentAt, endsAt, JSON.stringify(made.proof), Buffer.from(made.pdf)],
    ],
  );
  await tx.update(JobEntity, { id: jobId }, { proofState: "waits", proofEndsAt: endsAt, updatedAt: sentAt });
  return id;
}

function replaced(): ProblemError {
  return new ProblemError({
    title: "A newer version was sent to you",
    status: 409,
    kept: "What you said before is kept.",
    cure: "Open the link in the newest message.",
  });
}

async function answersOf(tx: EntityManager, head: Head) {
  const { id, sentAt, endsAt, yesName, yesDay, yesAt, isReplaced } = head;
  return {
    sentAt: sentAt.toISOString(),
    endsAt: endsAt.toISOString(),
    yes: yesName !== null && yesDay !== null && yesAt ? { name: yesName, day: yesDay, at: yesAt.toISOString() } : null,
    isReplaced,
    notes: await notesOf(tx, id),
  };
}

async function notesOf(tx: EntityManager, id: string): Promise<ProofNote[]> {
  const rows: {
    id: string;
    by: ProofNote["by"];
    kind: ProofNote["kind"];
    replyTo: string | null;
    x: number | null;
    y: number | null;
    name: string;
    text: string;
    createdAt: Date;
  }[] = await tx.query(
    `SELECT id, said_by AS \`by\`, kind, reply_to AS replyTo, at_x AS x, at_y AS y, name, text, created_at AS createdAt
     FROM proof_notes WHERE proof_id = ? ORDER BY sequence`,
    [id],
  );
  return rows.map(({ x, y, createdAt, ...note }) => ({
    ...note,
    at: x === null || y === null ? null : { x, y },
    createdAt: createdAt.toISOString(),
  }));
}

async function bodyOf(tx: EntityManager, id: string): Promise<Proof> {
  const [row] = await tx.query("SELECT body FROM proofs WHERE id = ?", [id]);
  return proofSchema.parse(JSON.parse(row.body));
}

async function pdfOf(tx: EntityManager, id: string): Promise<Buffer> {
  const [row] = await tx.query("SELECT pdf FROM proofs WHERE id = ?", [id]);
  return row.pdf;
}

async function addNote(
  tx: EntityManager,
  proofId: string,
  by: ProofNote["by"],
  name: string,
  { kind = "note", replyTo = null, at = null, text }: ShopNote,
): Promise<void> {
  const [{ many }] = await tx.query("SELECT COUNT(*) AS many FROM proof_notes WHERE proof_id = ?", [proofId]);
  if (Number(many) >= MOST_NOTES)
    throw new ProblemError({ title: "There is no room for more on this proof", status: 409, cure: "Please call us." });
  // An answer belongs to what was said on this proof.
  const [there] = replyTo
    ? await tx.query("SELECT id FROM proof_notes WHERE id = ? AND proof_id = ?", [replyTo, proofId])
    : [null];
  if (replyTo && !there) throw notFound("What this answers");
  await tx.query(
    `INSERT INTO proof_notes (id, proof_id, said_by, kind, reply_to, at_x, at_y, name, text, created_at)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    [randomUUID(), proofId, by, kind, replyTo, at?.x ?? null, at?.y ?? null, name, text, new Date()],
  );
}
