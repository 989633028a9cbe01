// Typefaces: those that are shipped, and the shop's own in the database.
import type { ListedTypeface, TypefaceKind } from "@plain-palette/contract";
import type { DataSource } from "typeorm";
import { TypefaceEntity, type TypefaceRow } from "../database/index.ts";
import type { ReadFont } from "../intake/index.ts";
import { readShippedFile, readShippedFiles, shippedTypefaces } from "../shipped-typefaces/index.ts";

export interface TypefaceStore {
  list(): Promise<ListedTypeface[]>;
  /** Font files (sfnt), also of one that was put away: jobs may be set in it. Null: there never was one of this id. */
  files(id: string): Promise<Uint8Array[] | null>;
  /** One of them, by its number from 0. */
  file(id: string, number: number): Promise<Uint8Array | null>;
  /** Adds one; one that was put away comes back. */
  add(font: ReadFont, fileName: string, kind: TypefaceKind): Promise<ListedTypeface>;
  /** Null for one that is not the shop's own. */
  setKind(id: string, kind: TypefaceKind): Promise<ListedTypeface | null>;
  /** Takes one off the list. */
  putAway(id: string): Promise<void>;
}

export function makeTypefaceStore({ manager }: DataSource): TypefaceStore {
  const find = (id: string) => manager.findOneBy(TypefaceEntity, { id });
  const ownFile = async (id: string) =>
    (await manager.findOne(TypefaceEntity, { where: { id }, select: { id: true, bytes: true } }))?.bytes ?? null;
  return {
    async list() {
      const own = await manager.find(TypefaceEntity, {
        where: { isPutAway: false },
        order: { family: "ASC", style: "ASC" },
      });
      return [...own.map(listedAs), ...shippedTypefaces()];
    },
    async files(id) {
      const shipped = await readShippedFiles(id);
      if (shipped) return shipped;
      const own = await ownFile(id);
      return own && [own];
    },
    async file(id, number) {
      return (await readShippedFile(id, number)) ?? (number === 0 ? ownFile(id) : null);
    },
    async add({ hash, sfnt, facts }, fileName, kind) {
      const { family, style, scripts, fsType } = facts;
      const name = fileName.replace(/\.[a-z0-9]{2,5}$/i, "").slice(0, 120) || "Font";
      const row = { family: (family || name).slice(0, 120), style: style.slice(0, 60), scripts: [...scripts], fsType };
      const there = { ...row, id: hash, kind, fileName: fileName.slice(0, 200), isPutAway: false };
      // The same file twice at once is one typeface.
      await manager.upsert(TypefaceEntity, { ...there, bytes: Buffer.from(sfnt) }, ["id"]);
      return listedAs(there);
    },
    async setKind(id, kind) {
      await manager.update(TypefaceEntity, { id }, { kind });
      const row = await find(id);
      return row && listedAs(row);
    },
    async putAway(id) {
      await manager.update(TypefaceEntity, { id }, { isPutAway: true });
    },
  };
}

function listedAs({ id, family, style, kind, scripts, fileName, fsType }: Omit<TypefaceRow, "bytes">): ListedTypeface {
  return { id, family, style, kind, scripts, files: 1, origin: { kind: "shop", fileName, fsType } };
}
