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
  /** `id`: the browser's own name for it. */
  add(placement: Placement, id?: string): Promise<ShopPlacement>;
  /** Changes one if it still has the version that was seen, or was changed to just that; null if it is gone. */
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
    async add(placement, id = randomUUID()) {
      const there = await manager.findOneBy(PlacementEntity, { id });
      if (there) return toPlacement(there);
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
      const isTaken = affected === 1 || (stored?.version === version + 1 && isSame(stored, placement));
      return stored && { stored: toPlacement(stored), isTaken };
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

function isSame(a: Placement, b: Placement): boolean {
  const { name, widthMm, areaWidthMm, areaHeightMm } = b;
  return a.name === name && a.widthMm === widthMm && a.areaWidthMm === areaWidthMm && a.areaHeightMm === areaHeightMm;
}
