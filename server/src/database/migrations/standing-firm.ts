// Eleventh schema: runs know who ordered them and how often they were begun; what is taken off the shelf is kept; versions of
// recipes are packed, since many hold thousands of strokes.
import type { MigrationInterface, QueryRunner } from "typeorm";

export class StandingFirm1795939200000 implements MigrationInterface {
  readonly name = "StandingFirm1795939200000";

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `ALTER TABLE runs
        ADD COLUMN IF NOT EXISTS asked_by VARCHAR(100) NOT NULL DEFAULT '',
        ADD COLUMN IF NOT EXISTS attempts INT UNSIGNED NOT NULL DEFAULT 0,
        ADD COLUMN IF NOT EXISTS claimed_at DATETIME(3) NULL`,
    );
    for (const table of ["stock", "placements"])
      await runner.query(`ALTER TABLE ${table} ADD COLUMN IF NOT EXISTS is_put_away BOOLEAN NOT NULL DEFAULT FALSE`);
    await runner.query("ALTER TABLE recipes MODIFY body LONGTEXT COLLATE utf8mb4_bin COMPRESSED NOT NULL");
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE recipes MODIFY body JSON NOT NULL");
    for (const table of ["stock", "placements"])
      await runner.query(`ALTER TABLE ${table} DROP COLUMN IF EXISTS is_put_away`);
    for (const column of ["asked_by", "attempts", "claimed_at"])
      await runner.query(`ALTER TABLE runs DROP COLUMN IF EXISTS ${column}`);
  }
}
