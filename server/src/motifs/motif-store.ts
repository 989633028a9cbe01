// Motifs in the database: contents once each under their hash, never changed; motifs name the one in force.
import { randomUUID } from "node:crypto";
import type {
  KeptMotif,
  ListedMotif,
  MotifCreate,
  MotifDetail,
  MotifPage,
  MotifPatch,
  MotifSearch,
} from "@plain-palette/contract";
import { listedMotifSchema, motifSearchSchema } from "@plain-palette/contract";
import { ciede2000, parseHex, rgbToLab } from "@plain-palette/core/colour";
import { countMotifShapes, countSegments, type Motif, type MotifFacts, motifSchema } from "@plain-palette/core/motif";
import type { DataSource, EntityManager } from "typeorm";
import { z } from "zod";
import { inTransaction } from "../database/index.ts";
import { bodyOfMotif, hashMotif } from "../intake/index.ts";
import { notFound } from "../problems/index.ts";

/** A change that was made from what is no longer in force; nothing was changed. */
export class StaleMotif extends Error {
  override readonly name = "StaleMotif";
}

export interface MotifStore {
  find(search: MotifSearch): Promise<MotifPage>;
  detail(id: string): Promise<MotifDetail>;
  /** A content by its hash; null if there never was one. */
  content(hash: string): Promise<Motif | null>;
  /** Keeps motifs, all or none; of one that is there already nothing is changed. */
  keep(motifs: readonly MotifCreate[]): Promise<KeptMotif[]>;
  /** Throws StaleMotif. */
  patch(id: string, patch: MotifPatch): Promise<MotifDetail>;
  /** A new content takes the place of the one in force, which stays with the jobs that place it. Throws StaleMotif. */
  addEdition(id: string, motif: Motif, version: number): Promise<MotifDetail>;
  /** All that are not put away, with their contents. */
  all(): Promise<{ readonly motif: Motif; readonly facts: MotifFacts }[]>;
}

/** Colours that differ by no more are found for each other, CIEDE2000 (our own: the same name in a shop's words). */
const LIKE = 12;

const LISTED = `
  SELECT motif.id, motif.name, motif.folder, motif.words, motif.origin, motif.hash, motif.edition, motif.is_put_away,
    motif.version, motif.updated_at, content.width_mm, content.height_mm, content.shapes, content.nodes, content.spots,
    (SELECT COUNT(DISTINCT job.job_id) FROM job_motifs job JOIN motif_editions own ON own.hash = job.hash
      WHERE own.motif_id = motif.id) AS jobs
  FROM motifs motif JOIN motif_contents content ON content.hash = motif.hash`;

const rowSchema = z
  .object({
    origin: z.string(),
    is_put_away: z.coerce.boolean(),
    updated_at: z.date(),
    width_mm: z.number(),
    height_mm: z.number(),
    spots: z.preprocess((value) => (typeof value === "string" ? JSON.parse(value) : value), z.unknown()),
    jobs: z.coerce.number(),
  })
  .catchall(z.unknown());

function toListed(row: unknown): ListedMotif {
  const { origin, is_put_away, updated_at, width_mm, height_mm, ...rest } = rowSchema.parse(row);
  return listedMotifSchema.parse({
    ...rest,
    from: origin,
    isPutAway: is_put_away,
    updatedAt: updated_at.toISOString(),
    widthMm: width_mm,
    heightMm: height_mm,
  });
}

export function makeMotifStore(database: DataSource): MotifStore {
  const { manager } = database;
  return {
    async find(search) {
      const wanted = motifSearchSchema.parse(search);
      const { where, values } = conditionsOf(wanted);
      const { from, most, hex } = wanted;
      const order = "ORDER BY motif.name, motif.id";
      const folders = await listFolders(manager);
      if (hex) {
        const rows: unknown[] = await manager.query(`${LISTED} ${where} ${order}`, values);
        const like = rows.map(toListed).filter((motif) => hasColour(motif, hex));
        return { total: like.length, motifs: like.slice(from, from + most), folders };
      }
      const rows: unknown[] = await manager.query(`${LISTED} ${where} ${order} LIMIT ? OFFSET ?`, [
        ...values,
        most,
        from,
      ]);
      const [{ total }] = await manager.query(
        `SELECT COUNT(*) AS total FROM motifs motif JOIN motif_contents content ON content.hash = motif.hash ${where}`,
        values,
      );
      return { total: Number(total), motifs: rows.map(toListed), folders };
    },
    detail: (id) => findDetail(manager, id),
    async content(hash) {
      const [row] = await manager.query("SELECT body FROM motif_contents WHERE hash = ?", [hash]);
      return row ? motifSchema.parse(JSON.parse(row.body)) : null;
    },
    keep: (motifs) =>
      inTransaction(database, async (tx) => {
        const kept: KeptMotif[] = [];
        for (const { motif, facts } of motifs) kept.push(await keepOne(tx, motif, facts));
        return kept;
      }),
    async patch(id, { version, ...part }) {
      const changes = Object.entries({
        name: part.name,
        folder: part.folder,
        words: part.words,
        is_put_away: part.isPutAway,
      }).filter(([, value]) => value !== undefined);
      const sets = changes.map(([column]) => `${column} = ?, `).join("");
      await changeOne(
        manager,
        id,
        version,
        sets,
        changes.map(([, value]) => value),
      );
      return findDetail(manager, id);
    },
    addEdition: (id, motif, version) =>
      inTransaction(database, async (tx) => {
        const hash = await storeContent(tx, motif);
        await changeOne(tx, id, version, "hash = ?, edition = edition + 1, ", [hash]);
        await tx.query(
          "INSERT INTO motif_editions (motif_id, edition, hash, created_at) SELECT id, edition, hash, updated_at FROM motifs WHERE id = ?",
          [id],
        );
        return findDetail(tx, id);
      }),
    async all() {
      const rows: { name: string; folder: string; words: string; origin: string; body: string }[] = await manager.query(
        `SELECT motif.name, motif.folder, motif.words, motif.origin, content.body
         FROM motifs motif JOIN motif_contents content ON content.hash = motif.hash
         WHERE motif.is_put_away = 0 ORDER BY motif.folder, motif.name, motif.id`,
      );
      return rows.map(({ name, folder, words, origin, body }) => ({
        motif: motifSchema.parse(JSON.parse(body)),
        facts: { name, folder, words, from: origin },
      }));
    },
  };
}

function conditionsOf({ words, folder, mostSpots, mostShapes, hash, putAway }: z.output<typeof motifSearchSchema>) {
  if (hash !== undefined)
    return { where: "WHERE motif.id IN (SELECT motif_id FROM motif_editions WHERE hash = ?)", values: [hash] };
  const parts = ["motif.is_put_away = ?"];
  const values: unknown[] = [putAway === "yes"];
  const add = (part: string, ...more: unknown[]) => {
    parts.push(part);
    values.push(...more);
  };
  for (const word of words.split(/\s+/).filter(Boolean))
    add("INSTR(CONCAT_WS(' ', motif.name, motif.folder, motif.words, motif.origin, content.spot_names), ?) > 0", word);
  if (folder !== undefined) add("motif.folder = ?", folder);
  if (mostSpots !== undefined) add("content.spot_count <= ?", mostSpots);
  if (mostShapes !== undefined) add("content.shapes <= ?", mostShapes);
  return { where: `WHERE ${parts.join(" AND ")}`, values };
}

function hasColour({ spots }: ListedMotif, hex: string): boolean {
  const lab = rgbToLab(parseHex(hex));
  return spots.some((spot) => ciede2000(lab, rgbToLab(parseHex(spot.hex))) <= LIKE);
}

async function listFolders(manager: EntityManager): Promise<MotifPage["folders"]> {
  const rows: { name: string; motifs: unknown }[] = await manager.query(
    "SELECT folder AS name, COUNT(*) AS motifs FROM motifs WHERE is_put_away = 0 GROUP BY folder ORDER BY folder",
  );
  return rows.map(({ name, motifs }) => ({ name, motifs: Number(motifs) }));
}

async function findDetail(manager: EntityManager, id: string): Promise<MotifDetail> {
  const [row] = await manager.query(`${LISTED} WHERE motif.id = ?`, [id]);
  if (!row) throw notFound("This motif");
  const editions: { edition: number; hash: string; createdAt: Date }[] = await manager.query(
    "SELECT edition, hash, created_at AS createdAt FROM motif_editions WHERE motif_id = ? ORDER BY edition",
    [id],
  );
  const usedBy: MotifDetail["usedBy"] = await manager.query(
    `SELECT job.id AS jobId, job.number, job.title, MAX(own.edition) AS edition
     FROM job_motifs placed JOIN motif_editions own ON own.hash = placed.hash JOIN jobs job ON job.id = placed.job_id
     WHERE own.motif_id = ? GROUP BY job.id, job.number, job.title, placed.hash ORDER BY job.number DESC`,
    [id],
  );
  return {
    ...toListed(row),
    editions: editions.map((one) => ({ ...one, createdAt: one.createdAt.toISOString() })),
    usedBy,
  };
}

/** Changes a motif that is as it was seen. */
async function changeOne(
  manager: EntityManager,
  id: string,
  version: number,
  sets: string,
  values: readonly unknown[],
): Promise<void> {
  const { affectedRows } = await manager.query(
    `UPDATE motifs SET ${sets} version = version + 1, updated_at = ? WHERE id = ? AND version = ?`,
    [...values, new Date(), id, version],
  );
  if (affectedRows === 1) return;
  const [there] = await manager.query("SELECT id FROM motifs WHERE id = ?", [id]);
  throw there ? new StaleMotif("made from what is no longer in force") : notFound("This motif");
}

async function keepOne(tx: EntityManager, motif: Motif, facts: MotifFacts): Promise<KeptMotif> {
  const hash = await storeContent(tx, motif);
  const [there] = await tx.query("SELECT motif_id AS id FROM motif_editions WHERE hash = ? LIMIT 1", [hash]);
  if (there) {
    await tx.query("UPDATE motifs SET is_put_away = 0 WHERE id = ?", [there.id]);
    return { motif: await findListed(tx, there.id), isNew: false };
  }
  const id = randomUUID();
  const { name, folder, words, from } = facts;
  const now = new Date();
  await tx.query(
    `INSERT INTO motifs (id, name, folder, words, origin, hash, edition, is_put_away, version, updated_at)
     VALUES (?, ?, ?, ?, ?, ?, 1, 0, 1, ?)`,
    [id, name, folder, words, from, hash, now],
  );
  await tx.query("INSERT INTO motif_editions (motif_id, edition, hash, created_at) VALUES (?, 1, ?, ?)", [
    id,
    hash,
    now,
  ]);
  return { motif: await findListed(tx, id), isNew: true };
}

async function findListed(manager: EntityManager, id: string): Promise<ListedMotif> {
  const [row] = await manager.query(`${LISTED} WHERE motif.id = ?`, [id]);
  return toListed(row);
}

/** Stores a content under its hash, unless it is there; the same may arrive twice at once. */
async function storeContent(tx: EntityManager, motif: Motif): Promise<string> {
  const hash = hashMotif(motif);
  const { widthMm, heightMm, spots } = motif;
  const names = spots.map(({ name, hex }) => ({ name, hex }));
  await tx.query(
    `INSERT IGNORE INTO motif_contents (hash, width_mm, height_mm, shapes, nodes, spot_count, spot_names, spots, body)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    [
      ...[hash, widthMm, heightMm, countMotifShapes(motif), countSegments(motif), spots.length],
      ...[names.map(({ name }) => name).join(" "), JSON.stringify(names), bodyOfMotif(motif)],
    ],
  );
  return hash;
}
