// Third schema: the shelf, with the demo shop's own stock on it, and the shop's settings.
import { randomUUID } from "node:crypto";
import type { MigrationInterface, QueryRunner } from "typeorm";

/** What Quayside Print Room, the invented shop of the demo, has in stock: kind, code, name, colour, detail. */
const FIRST_STOCK: readonly (readonly [string, string, string, string, string])[] = [
  ["ink", "Q-001", "Chalk white", "#fbfaf5", "covers dark garments, flash after"],
  ["ink", "Q-002", "Slack tide", "#f2efe4", "cream"],
  ["ink", "Q-010", "Soot", "#16161a", "prints last"],
  ["ink", "Q-020", "Wet slate", "#4a525c", ""],
  ["ink", "Q-021", "Gull grey", "#b9bec2", ""],
  ["ink", "Q-101", "Deep water", "#14304f", ""],
  ["ink", "Q-104", "Harbour teal", "#1f7a8c", ""],
  ["ink", "Q-107", "Shallow", "#58a6b0", ""],
  ["ink", "Q-110", "Clear noon", "#5092d8", ""],
  ["ink", "Q-201", "Signal red", "#d8412f", ""],
  ["ink", "Q-204", "Brick quay", "#9c3328", ""],
  ["ink", "Q-207", "Shell pink", "#f0a7a0", ""],
  ["ink", "Q-301", "Oilskin", "#f2b134", ""],
  ["ink", "Q-304", "Lantern", "#fcd94f", ""],
  ["ink", "Q-307", "Buoy orange", "#ee7a2b", ""],
  ["ink", "Q-401", "Kelp", "#2f5d3a", ""],
  ["ink", "Q-404", "Samphire", "#6fa043", ""],
  ["ink", "Q-501", "Heather", "#6b4c8a", ""],
  ["ink", "Q-601", "Crust", "#8c5a34", ""],
  ["ink", "Q-604", "Rye", "#5a3a26", ""],
  ["film", "F-01", "Chalk white, matt", "#f8f7f2", "roll 508 mm"],
  ["film", "F-02", "Soot, matt", "#1a1a1d", "roll 508 mm"],
  ["film", "F-11", "Deep water", "#18345a", "roll 381 mm"],
  ["film", "F-12", "Harbour teal", "#22808f", "roll 381 mm"],
  ["film", "F-21", "Signal red", "#d33b2c", "roll 508 mm"],
  ["film", "F-31", "Oilskin", "#f4b53a", "roll 381 mm"],
  ["film", "F-41", "Kelp", "#33623f", "roll 305 mm"],
  ["thread", "T-1000", "Salt", "#fdfdf9", "weight 40"],
  ["thread", "T-1010", "Tar", "#121214", "weight 40"],
  ["thread", "T-1120", "Deep water", "#172f52", "weight 40"],
  ["thread", "T-1140", "Harbour teal", "#1d7688", "weight 40"],
  ["thread", "T-1210", "Signal red", "#cf3a2e", "weight 40"],
  ["thread", "T-1310", "Oilskin", "#efae2f", "weight 40"],
  ["thread", "T-1410", "Kelp", "#2d5a38", "weight 40"],
  ["thread", "T-1610", "Crust", "#8a5832", "weight 40"],
  ["stone", "C-10-01", "Spray", "#e9f0f2", "2.8 mm across"],
  ["stone", "C-10-11", "Night ferry", "#1b2f57", "2.8 mm across"],
  ["stone", "C-16-21", "Port light", "#c9242f", "3.9 mm across"],
  ["stone", "C-16-41", "Starboard light", "#1f7a4a", "3.9 mm across"],
];

export class Shelf1764064800000 implements MigrationInterface {
  readonly name = "Shelf1764064800000";

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE stock (
        id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
        kind VARCHAR(8) CHARACTER SET ascii NOT NULL,
        code VARCHAR(40) COLLATE utf8mb4_bin NOT NULL,
        name VARCHAR(60) NOT NULL,
        colour JSON NOT NULL,
        detail VARCHAR(120) NOT NULL,
        version INT UNSIGNED NOT NULL,
        UNIQUE (kind, code)
      )`,
    );
    for (const [kind, code, name, hex, detail] of FIRST_STOCK)
      await runner.query(
        "INSERT INTO stock (id, kind, code, name, colour, detail, version) VALUES (?, ?, ?, ?, ?, ?, 1)",
        [randomUUID(), kind, code, name, JSON.stringify({ space: "srgb", hex }), detail],
      );
    await runner.query(
      "CREATE TABLE settings (id TINYINT UNSIGNED NOT NULL PRIMARY KEY, body JSON NOT NULL, version INT UNSIGNED NOT NULL)",
    );
    await runner.query("INSERT INTO settings (id, body, version) VALUES (1, '{}', 1)");
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("DROP TABLE settings");
    await runner.query("DROP TABLE stock");
  }
}
