// The shelf and the shop's settings in the database.
import { randomUUID } from "node:crypto";
import type { ShopStock, StockImport } from "@plain-palette/contract";
import {
  factsOf,
  type ShopSettings,
  type ShopSettingsPatch,
  type Stock,
  shopSettingsSchema,
} from "@plain-palette/core/shelf";
import type { DataSource, EntityManager } from "typeorm";
import { inTransaction, SettingsEntity, StockEntity } from "../database/index.ts";

/** The answer to a change: what is stored now, and whether the change is in it. */
export interface Change<T> {
  readonly stored: T;
  readonly isTaken: boolean;
}

export interface ShelfStore {
  list(): Promise<ShopStock[]>;
  /** Null if its kind has that code already. */
  add(stock: Stock): Promise<ShopStock | null>;
  /** Changes one if it still has the version that was seen; null if it is gone. */
  change(id: string, stock: Stock, version: number): Promise<Change<ShopStock> | null>;
  /** Takes one out; jobs keep the copy they were made with. */
  remove(id: string): Promise<void>;
  /** Takes over all of it or nothing: what has a kind and code that is there changes it. */
  takeOver(stock: readonly Stock[]): Promise<StockImport>;
  settings(): Promise<ShopSettings>;
  changeSettings(patch: ShopSettingsPatch): Promise<ShopSettings>;
}

const THE_SHOP = 1;

export function makeShelfStore(database: DataSource): ShelfStore {
  const { manager } = database;
  const readSettings = async (): Promise<ShopSettings> =>
    shopSettingsSchema.parse((await manager.findOneByOrFail(SettingsEntity, { id: THE_SHOP })).body);
  return {
    list: () => manager.find(StockEntity, { order: { kind: "ASC", code: "ASC" } }),
    async add(stock) {
      const row = { ...stock, id: randomUUID(), version: 1 };
      const { kind, code } = stock;
      return inTransaction(database, async (tx) => {
        if (await tx.existsBy(StockEntity, { kind, code })) return null;
        await tx.insert(StockEntity, row);
        return row;
      });
    },
    async change(id, stock, version) {
      const { affected } = await manager.update(StockEntity, { id, version }, { ...stock, version: version + 1 });
      const stored = await manager.findOneBy(StockEntity, { id });
      return stored && { stored, isTaken: affected === 1 };
    },
    async remove(id) {
      await manager.delete(StockEntity, { id });
    },
    takeOver: (stock) =>
      inTransaction(database, async (tx) => {
        const done = { added: 0, changed: 0, same: 0 };
        for (const item of stock) done[await takeOverOne(tx, item)]++;
        return done;
      }),
    settings: readSettings,
    changeSettings: (patch) =>
      inTransaction(database, async (tx) => {
        const row = await tx.findOneOrFail(SettingsEntity, {
          where: { id: THE_SHOP },
          lock: { mode: "pessimistic_write" },
        });
        const body = { ...shopSettingsSchema.parse(row.body), ...patch };
        await tx.update(SettingsEntity, { id: THE_SHOP }, { body, version: row.version + 1 });
        return body;
      }),
  };
}

async function takeOverOne(tx: EntityManager, stock: Stock): Promise<keyof StockImport> {
  const { kind, code } = stock;
  const there = await tx.findOne(StockEntity, { where: { kind, code }, lock: { mode: "pessimistic_write" } });
  if (!there) {
    await tx.insert(StockEntity, { ...stock, id: randomUUID(), version: 1 });
    return "added";
  }
  const { id, version, ...old } = there;
  if (isSame(old, stock)) return "same";
  await tx.update(StockEntity, { id }, { ...stock, version: version + 1 });
  return "changed";
}

function isSame(a: Stock, b: Stock): boolean {
  const facts = ({ name, detail, colour, ...known }: Stock) =>
    JSON.stringify([
      ...[name, detail, colour.space === "srgb" ? colour.hex : [colour.l, colour.a, colour.b]],
      ...factsOf(known),
    ]);
  return facts(a) === facts(b);
}
