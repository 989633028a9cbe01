// Jobs and their recipes in the database. Artwork bytes never change and every recipe is kept; the head says which
// recipe is in force.
import { randomUUID } from "node:crypto";
import {
  type ArtworkFacts,
  type Board,
  type BoardSearch,
  type HeadMove,
  JOB_STEPS,
  type Job,
  type JobPatch,
  type RecipeSave,
  type TicketChange,
} from "@plain-palette/contract";
import { type Recipe, readRecipe, recipeOfShop, scaleRecipe } from "@plain-palette/core/recipe";
import { shopSettingsSchema } from "@plain-palette/core/shelf";
import type { DataSource, EntityManager } from "typeorm";
import {
  ArtworkEntity,
  type ArtworkRow,
  inTransaction,
  isThereAlready,
  JobEntity,
  JobPictureEntity,
  type JobRow,
  RecipeEntity,
  type RecipeRow,
  SettingsEntity,
} from "../database/index.ts";
import { notFound } from "../problems/index.ts";
import { noteHead } from "./head-facts.ts";
import { findCard, searchBoard } from "./job-cards.ts";

/** A new artwork as it was found when it was read. */
export interface NewArtwork extends Omit<ArtworkFacts, "bytes"> {
  readonly fileName: string;
  readonly bytes: Buffer;
  readonly thumbnail: Uint8Array;
}

/** A save that was based on a recipe that is no longer the head: it is stored as a version of its own all the same. */
export class StaleSave extends Error {
  override readonly name = "StaleSave";
  constructor(
    readonly stored: number | undefined,
    readonly head: number,
  ) {
    super("based on a recipe that is no longer in force");
  }
}

/** A fact of the ticket is not any more what it was when it was changed. */
export class OthersChange extends Error {
  override readonly name = "OthersChange";
  constructor(
    readonly key: keyof TicketChange,
    readonly now: unknown,
  ) {
    super(`${key} was changed meanwhile`);
  }
}

export interface JobStore {
  board(search: BoardSearch): Promise<Board>;
  find(id: string): Promise<Job | null>;
  exists(id: string): Promise<boolean>;
  /** `id`: the browser's own name for it. */
  create(artwork: NewArtwork, title: string, id?: string): Promise<Job>;
  /** Changes the ticket; throws OthersChange where somebody else changed the same meanwhile to something else. */
  patch(id: string, patch: JobPatch): Promise<Job | null>;
  /** Stores a recipe as a new version, once; throws StaleSave (after storing) if the head moved meanwhile. */
  saveRecipe(id: string, save: RecipeSave): Promise<Job | null>;
  /**
   * Stores a better version of the client's file as a new version of the recipe, its places grown or shrunk with the
   * picture; throws StaleSave as saveRecipe does.
   */
  replaceArtwork(id: string, artwork: NewArtwork, save: Omit<RecipeSave, "recipe">): Promise<Job | null>;
  /** Puts another version in force; throws StaleSave if the head moved meanwhile. */
  moveHead(id: string, move: HeadMove): Promise<Job | null>;
  /** A version with the file that it is of; null if there is none. */
  version(id: string, version: number): Promise<{ recipe: Recipe; artworkHash: string } | null>;
  artworkBytes(hash: string): Promise<Buffer | null>;
  thumbnail(hash: string): Promise<Buffer | null>;
  /** A new job of the same file with the recipe in force; null if there is no such job. */
  copy(id: string): Promise<Job | null>;
  /** Keeps how a version of the result looks, unless a picture of a later one is there. */
  savePicture(id: string, version: number, bytes: Buffer): Promise<void>;
  picture(id: string): Promise<Buffer | null>;
}

/** The only row of the settings. */
const THE_SHOP = 1;

export function makeJobStore(database: DataSource): JobStore {
  const { manager } = database;
  return {
    board: (search) => searchBoard(manager, search),
    find: (id) => findJob(manager, id),
    exists: (id) => manager.existsBy(JobEntity, { id }),
    async create(artwork, title, own) {
      const { body: shop } = await manager.findOneByOrFail(SettingsEntity, { id: THE_SHOP });
      const body = recipeOfShop(shopSettingsSchema.parse(shop));
      const first: FirstVersion = { client: "", clientMail: "", step: "artwork", body };
      const id = await inTransaction(database, async (tx) =>
        createJob(tx, await storeArtwork(tx, artwork), artwork.fileName, title, first, own),
      ).catch((error: unknown) => {
        // Sent a second time while the first was still being read.
        if (own !== undefined && isThereAlready(error)) return own;
        throw error;
      });
      const job = await findJob(manager, id);
      if (!job) throw new Error("the job that was just made is gone");
      return job;
    },
    async patch(id, { seen, step, ...change }) {
      return inTransaction(database, async (tx) => {
        const job = await lockJob(tx, id);
        if (!job) return null;
        for (const key of Object.keys(change) as (keyof typeof change)[])
          if (job[key] !== seen[key] && job[key] !== change[key]) throw new OthersChange(key, job[key]);
        // How far a job has come is as far as anybody has brought it: two who go on at once do not differ.
        const further = step !== undefined && JOB_STEPS.indexOf(step) > JOB_STEPS.indexOf(job.step) ? { step } : {};
        const all = { ...change, ...further };
        if (Object.keys(all).length > 0) await tx.update(JobEntity, { id }, { ...all, updatedAt: new Date() });
        return findJob(tx, id);
      });
    },
    saveRecipe: (id, { recipe, ...save }) =>
      addVersion(database, id, save, async (_tx, parent) => ({ ...parent, body: recipe })),
    replaceArtwork: (id, artwork, save) =>
      addVersion(database, id, save, async (tx, parent) => {
        const artworkHash = await storeArtwork(tx, artwork);
        const old = await tx.findOneByOrFail(ArtworkEntity, { hash: parent.artworkHash });
        return { body: fitRecipe(readRecipe(parent.body), old, artwork), artworkHash, fileName: artwork.fileName };
      }),
    moveHead: (id, { to, seen }) =>
      inTransaction(database, async (tx) => {
        const job = await lockJob(tx, id);
        if (!job) return null;
        if (job.head !== seen) throw new StaleSave(undefined, job.head);
        if (!(await tx.existsBy(RecipeEntity, { jobId: id, version: to }))) throw notFound(`Version ${to} of this job`);
        await tx.update(JobEntity, { id }, { head: to, updatedAt: new Date() });
        await noteHead(tx, id, to);
        return findJob(tx, id);
      }),
    async version(id, version) {
      const row = await manager.findOneBy(RecipeEntity, { jobId: id, version });
      return row && { recipe: readRecipe(row.body), artworkHash: row.artworkHash };
    },
    async artworkBytes(hash) {
      return (await findBlob(manager, hash, "bytes"))?.bytes ?? null;
    },
    async copy(id) {
      const job = await manager.findOneBy(JobEntity, { id });
      if (!job) return null;
      const head = await manager.findOneByOrFail(RecipeEntity, { jobId: id, version: job.head });
      const title = `${job.title.slice(0, 112)} (copy)`;
      const copied = await inTransaction(database, (tx) =>
        createJob(tx, head.artworkHash, head.fileName, title, {
          client: job.client,
          clientMail: job.clientMail,
          step: job.step,
          body: head.body,
        }),
      );
      return this.find(copied);
    },
    async savePicture(id, version, bytes) {
      if (!(await manager.existsBy(RecipeEntity, { jobId: id, version })))
        throw notFound(`Version ${version} of this job`);
      await manager.query(
        `INSERT INTO job_pictures (job_id, version, bytes) VALUES (?, ?, ?)
         ON DUPLICATE KEY UPDATE bytes = IF(VALUES(version) >= version, VALUES(bytes), bytes),
                                 version = GREATEST(version, VALUES(version))`,
        [id, version, bytes],
      );
    },
    async picture(id) {
      const row = await manager.findOne(JobPictureEntity, {
        where: { jobId: id },
        select: { jobId: true, bytes: true },
      });
      return row?.bytes ?? null;
    },
    async thumbnail(hash) {
      return (await findBlob(manager, hash, "thumbnail"))?.thumbnail ?? null;
    },
  };
}

type Versioned = Pick<RecipeRow, "body" | "artworkHash" | "fileName">;

/**
 * Stores a version made from another one and puts it in force; throws StaleSave after storing if the head moved meanwhile.
 * One that was sent before is only looked up. The answer is the job as this left it: looked for any later, it might be
 * another's, whose version would be taken for one's own.
 */
async function addVersion(
  database: DataSource,
  id: string,
  { basedOn, saveId }: Omit<RecipeSave, "recipe">,
  make: (tx: EntityManager, parent: Versioned) => Promise<Versioned>,
): Promise<Job | null> {
  const done = await inTransaction(database, async (tx) => {
    const job = await lockJob(tx, id);
    if (!job) return null;
    const sent = saveId === undefined ? null : await findSave(tx, id, saveId);
    if (sent) return sent.version === job.head ? findJob(tx, id) : new StaleSave(sent.version, job.head);
    const parent = await tx.findOneBy(RecipeEntity, { jobId: id, version: basedOn });
    if (!parent) throw notFound(`Version ${basedOn} of this job`);
    const version = ((await tx.maximum(RecipeEntity, "version", { jobId: id })) ?? 0) + 1;
    const { body, artworkHash, fileName } = await make(tx, parent);
    const createdAt = new Date();
    const made = { body, artworkHash, fileName, saveId: saveId ?? null, createdAt };
    await tx.insert(RecipeEntity, { jobId: id, version, parent: basedOn, ...made });
    if (job.head !== basedOn) return new StaleSave(version, job.head);
    await tx.update(JobEntity, { id }, { head: version, updatedAt: createdAt });
    await noteHead(tx, id, version);
    return findJob(tx, id);
  });
  if (done instanceof StaleSave) throw done;
  return done;
}

function findSave(tx: EntityManager, jobId: string, saveId: string): Promise<Pick<RecipeRow, "version"> | null> {
  return tx.findOne(RecipeEntity, { where: { jobId, saveId }, select: { jobId: true, version: true } });
}

/** A recipe for a better version of its picture: places grow with the width; page and drawing size start afresh. */
function fitRecipe(recipe: Recipe, old: { width: number }, artwork: { width: number }): Recipe {
  const before = recipe.artwork.drawnWidthPx ?? old.width;
  const { artwork: grown, ...rest } = scaleRecipe(recipe, artwork.width / before);
  return { ...rest, artwork: { ...grown, page: 1, drawnWidthPx: null } };
}

/** Columns with megabytes are only read when asked for. */
function findBlob(manager: EntityManager, hash: string, column: "bytes" | "thumbnail"): Promise<ArtworkRow | null> {
  return manager.findOne(ArtworkEntity, { where: { hash }, select: { hash: true, [column]: true } });
}

function lockJob(tx: EntityManager, id: string): Promise<JobRow | null> {
  return tx.findOne(JobEntity, { where: { id }, lock: { mode: "pessimistic_write" } });
}

/** Stores the client's file under its hash, unless it is there; held until its job is, so that nobody tidies it away. */
async function storeArtwork(tx: EntityManager, artwork: NewArtwork): Promise<string> {
  const { bytes, thumbnail, fileName: _, hash, ...facts } = artwork;
  const [there] = await tx.query("SELECT hash FROM artworks WHERE hash = ? LOCK IN SHARE MODE", [hash]);
  if (there) return hash;
  await tx
    .createQueryBuilder()
    .insert()
    .into(ArtworkEntity)
    .values({
      ...facts,
      hash,
      size: bytes.length,
      bytes,
      thumbnail: Buffer.from(thumbnail),
    })
    // The same file may arrive twice at once.
    .orIgnore()
    .execute();
  return hash;
}

interface FirstVersion {
  readonly client: string;
  readonly clientMail: string;
  readonly step: JobRow["step"];
  readonly body: RecipeRow["body"];
}

async function createJob(
  tx: EntityManager,
  artworkHash: string,
  fileName: string,
  title: string,
  { client, clientMail, step, body }: FirstVersion,
  id: string = randomUUID(),
): Promise<string> {
  const now = new Date();
  await tx.insert(JobEntity, { id, title, client, clientMail, step, head: 1, isPutAway: false, updatedAt: now });
  const first = { jobId: id, version: 1, parent: null, body, artworkHash, fileName, saveId: null, createdAt: now };
  await tx.insert(RecipeEntity, first);
  await noteHead(tx, id, 1);
  return id;
}

async function findJob(manager: EntityManager, id: string): Promise<Job | null> {
  const card = await findCard(manager, id);
  if (!card) return null;
  const { body, parent } = await manager.findOneByOrFail(RecipeEntity, { jobId: id, version: card.head });
  const redo = await manager.maximum(RecipeEntity, "version", { jobId: id, parent: card.head });
  return { ...card, recipe: readRecipe(body), undo: parent, redo };
}
