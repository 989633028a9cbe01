// Twelfth schema: versions know by what name a browser sent them, so that one sent again is not stored again.
import type { MigrationInterface, QueryRunner } from "typeorm";

export class SentOnce1796025600000 implements MigrationInterface {
  readonly name = "SentOnce1796025600000";

  async up(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE recipes ADD COLUMN IF NOT EXISTS save_id CHAR(36) NULL");
    await runner.query("ALTER TABLE recipes ADD UNIQUE INDEX IF NOT EXISTS recipes_save_id (job_id, save_id)");
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE recipes DROP INDEX IF EXISTS recipes_save_id");
    await runner.query("ALTER TABLE recipes DROP COLUMN IF EXISTS save_id");
  }
}
