// Seventh schema: how many stones of a colour there are, by size.
import type { MigrationInterface, QueryRunner } from "typeorm";

export class KeptStones1795804000000 implements MigrationInterface {
  readonly name = "KeptStones1795804000000";

  async up(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE stock ADD COLUMN IF NOT EXISTS stones JSON NULL AFTER film");
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE stock DROP COLUMN IF EXISTS stones");
  }
}
