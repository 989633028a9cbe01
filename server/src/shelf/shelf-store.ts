// The shelf and the shop's settings in the database.
import { randomUUID } from "node:crypto";
import type { SettingsSave, ShopStock, StockImport } from "@plain-palette/contract";
import { factsOf, type ShopSettings, type Stock, shopSettingsSchema } from "@plain-palette/core/shelf";
import { type DataSource, type EntityManager, Not } from "typeorm";
import { inTransaction, SettingsEntity, StockEntity, type StockRow } from "../database/index.ts";

/** The answer to a change: what is stored now, and whether the change is in it. */
export interface Change<T> {
  readonly stored: T;
  readonly isTaken: boolean;
}

export interface ShelfStore {
  list(): Promise<ShopStock[]>;
  /** What was taken off. */
  listPutAway(): Promise<ShopStock[]>;
  /** Null if its kind has that code already. `id`: the browser's own name for it. */
  add(stock: Stock, id?: string): Promise<ShopStock | null>;
  /** Changes one if it still has the version that was seen, or was changed to just that; null if it is gone. */
  change(id: string, stock: Stock, version: number): Promise<Change<ShopStock> | null>;
  /**
   * Takes one off, or puts it back, if it still has the version that was seen; null if there never was one. Jobs keep the
   * copy they were made with.
   */
  putAway(id: string, version: number, isPutAway: boolean): Promise<Change<ShopStock> | null>;
  /** Takes over all of it or nothing: what has a kind and code that is there changes it. */
  takeOver(stock: readonly Stock[]): Promise<StockImport>;
  settings(): Promise<ShopSettings>;
  /** Throws OthersSetting where somebody else changed one of them meanwhile to something else. */
  changeSettings(save: SettingsSave): Promise<ShopSettings>;
}

/** A setting is not any more what it was when it was changed. */
export class OthersSetting extends Error {
  override readonly name = "OthersSetting";
  constructor(readonly now: unknown) {
    super("the setting was changed meanwhile");
  }
}

const THE_SHOP = 1;

export function makeShelfStore(database: DataSource): ShelfStore {
  const { manager } = database;
  const listed = async (isPutAway: boolean): Promise<ShopStock[]> =>
    (await manager.find(StockEntity, { where: { isPutAway }, order: { kind: "ASC", code: "ASC" } })).map(toStock);
  const readSettings = async (): Promise<ShopSettings> =>
    shopSettingsSchema.parse((await manager.findOneByOrFail(SettingsEntity, { id: THE_SHOP })).body);
  return {
    list: () => listed(false),
    listPutAway: () => listed(true),
    async add(stock, own = randomUUID()) {
      const row = { ...stock, id: own, version: 1 };
      const { kind, code } = stock;
      return inTransaction(database, async (tx) => {
        await lockShelf(tx);
        // Sent again by whoever did not hear that it is there.
        const sent = await tx.findOneBy(StockEntity, { id: own });
        if (sent) return toStock(sent);
        const there = await tx.findOneBy(StockEntity, { kind, code });
        if (there && !there.isPutAway) return null;
        // One that was taken off gives its code to the new one.
        if (there) await tx.delete(StockEntity, { id: there.id });
        await tx.insert(StockEntity, row);
        return row;
      });
    },
    async change(id, stock, version) {
      const { kind, code } = stock;
      // One that was taken off gives its code to whoever takes it.
      await manager.delete(StockEntity, { kind, code, isPutAway: true, id: Not(id) });
      const { affected } = await manager.update(StockEntity, { id, version }, { ...stock, version: version + 1 });
      const stored = await manager.findOneBy(StockEntity, { id });
      const isTaken = affected === 1 || (stored?.version === version + 1 && isSame(stored, stock));
      return stored && { stored: toStock(stored), isTaken };
    },
    async putAway(id, version, isPutAway) {
      await manager.update(StockEntity, { id, version, isPutAway: !isPutAway }, { isPutAway, version: version + 1 });
      const stored = await manager.findOneBy(StockEntity, { id });
      return stored && { stored: toStock(stored), isTaken: stored.isPutAway === isPutAway };
    },
    takeOver: (stock) =>
      inTransaction(database, async (tx) => {
        await lockShelf(tx);
        const done = { added: 0, changed: 0, same: 0 };
        for (const item of stock) done[await takeOverOne(tx, item)]++;
        return done;
      }),
    settings: readSettings,
    changeSettings: ({ seen = {}, ...patch }) =>
      inTransaction(database, async (tx) => {
        const row = await tx.findOneOrFail(SettingsEntity, {
          where: { id: THE_SHOP },
          lock: { mode: "pessimistic_write" },
        });
        const now = shopSettingsSchema.parse(row.body);
        for (const key of Object.keys(seen) as (keyof ShopSettings)[])
          if (now[key] !== seen[key] && now[key] !== patch[key]) throw new OthersSetting(now[key]);
        const body = { ...now, ...patch };
        await tx.update(SettingsEntity, { id: THE_SHOP }, { body, version: row.version + 1 });
        return body;
      }),
  };
}

/** One at a time adds to the shelf: several would wait for each other's codes. */
async function lockShelf(tx: EntityManager): Promise<void> {
  await tx.query("SELECT id FROM settings WHERE id = ? FOR UPDATE", [THE_SHOP]);
}

function toStock({ isPutAway: _, ...stock }: StockRow): ShopStock {
  return stock;
}

async function takeOverOne(tx: EntityManager, stock: Stock): Promise<keyof StockImport> {
  const { kind, code } = stock;
  const there = await tx.findOne(StockEntity, { where: { kind, code }, lock: { mode: "pessimistic_write" } });
  if (!there) {
    await tx.insert(StockEntity, { ...stock, id: randomUUID(), version: 1 });
    return "added";
  }
  const { id, version, isPutAway, ...old } = there;
  if (!isPutAway && isSame(old, stock)) return "same";
  await tx.update(StockEntity, { id }, { ...stock, version: version + 1, isPutAway: false });
  return isPutAway ? "added" : "changed";
}

function isSame(a: Stock, b: Stock): boolean {
  const facts = ({ kind, code, name, detail, colour, ...known }: Stock) =>
    JSON.stringify([
      ...[kind, code, name, detail, colour.space === "srgb" ? colour.hex : [colour.l, colour.a, colour.b]],
      ...factsOf(known),
    ]);
  return facts(a) === facts(b);
}
