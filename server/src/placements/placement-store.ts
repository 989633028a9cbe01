// The shop's placements in the database.
import { randomUUID } from "node:crypto";
import type { ShopPlacement } from "@plain-palette/contract";
import type { Placement } from "@plain-palette/core/recipe";
import type { DataSource } from "typeorm";
import { PlacementEntity, type PlacementRow } from "../database/index.ts";

/** The answer to a change: what is stored now, and whether the change is in it. */
export interface PlacementChange {
  readonly stored: ShopPlacement;
  readonly isTaken: boolean;
}

export interface PlacementStore {
  list(): Promise<ShopPlacement[]>;
  /** What was taken off the list. */
  listPutAway(): Promise<ShopPlacement[]>;
  add(placement: Placement): Promise<ShopPlacement>;
  /** Changes one if it still has the version that was seen; null if it is gone. */
  change(id: string, placement: Placement, version: number): Promise<PlacementChange | null>;
  /**
   * Takes one off the list, or puts it back, if it still has the version that was seen; null if there never was one. Jobs
   * keep the copy they were made with.
   */
  putAway(id: string, version: number, isPutAway: boolean): Promise<PlacementChange | null>;
}

export function makePlacementStore(database: DataSource): PlacementStore {
  const { manager } = database;
  const listed = async (isPutAway: boolean): Promise<ShopPlacement[]> =>
    (await manager.find(PlacementEntity, { where: { isPutAway }, order: { position: "ASC" } })).map(toPlacement);
  return {
    list: () => listed(false),
    listPutAway: () => listed(true),
    async add(placement) {
      const id = randomUUID();
      await manager.insert(PlacementEntity, { ...placement, id, version: 1 });
      return { ...placement, id, version: 1 };
    },
    async change(id, placement, version) {
      const { affected } = await manager.update(
        PlacementEntity,
        { id, version },
        { ...placement, version: version + 1 },
      );
      const stored = await manager.findOneBy(PlacementEntity, { id });
      return stored && { stored: toPlacement(stored), isTaken: affected === 1 };
    },
    async putAway(id, version, isPutAway) {
      await manager.update(
        PlacementEntity,
        { id, version, isPutAway: !isPutAway },
        { isPutAway, version: version + 1 },
      );
      const stored = await manager.findOneBy(PlacementEntity, { id });
      return stored && { stored: toPlacement(stored), isTaken: stored.isPutAway === isPutAway };
    },
  };
}

function toPlacement({ position: _, isPutAway: __, ...placement }: PlacementRow): ShopPlacement {
  return placement;
}
