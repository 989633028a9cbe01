// Sixth schema: what rolls and presses have to know of a transfer film.
import type { MigrationInterface, QueryRunner } from "typeorm";

export class TransferFilm1795716000000 implements MigrationInterface {
  readonly name = "TransferFilm1795716000000";

  async up(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE stock ADD COLUMN IF NOT EXISTS film JSON NULL AFTER detail");
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE stock DROP COLUMN IF EXISTS film");
  }
}
