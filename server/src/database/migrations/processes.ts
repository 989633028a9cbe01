// Fifth schema: a run names the process it is made with, the step after the shapes is the process's, whichever it is, and
// what is cut and pressed is called transfer film.
import type { MigrationInterface, QueryRunner } from "typeorm";

export class Processes1764237600000 implements MigrationInterface {
  readonly name = "Processes1764237600000";

  async up(runner: QueryRunner): Promise<void> {
    // Until here, every run was one of screens.
    await runner.query(
      "ALTER TABLE runs ADD COLUMN IF NOT EXISTS process VARCHAR(40) CHARACTER SET ascii NOT NULL DEFAULT 'screens' AFTER recipe_version",
    );
    await runner.query("ALTER TABLE runs ALTER process DROP DEFAULT");
    await runner.query("UPDATE jobs SET step = 'make' WHERE step = 'separations'");
    await runner.query("ALTER TABLE stock MODIFY kind VARCHAR(16) CHARACTER SET ascii NOT NULL");
    await runner.query("UPDATE stock SET kind = 'transfer-film' WHERE kind = 'film'");
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("UPDATE stock SET kind = 'film' WHERE kind = 'transfer-film'");
    await runner.query("ALTER TABLE stock MODIFY kind VARCHAR(8) CHARACTER SET ascii NOT NULL");
    await runner.query("UPDATE jobs SET step = 'separations' WHERE step = 'make'");
    await runner.query("ALTER TABLE runs DROP COLUMN IF EXISTS process");
  }
}
