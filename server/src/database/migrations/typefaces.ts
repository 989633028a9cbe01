// Eighth schema: the shop's own typefaces.
import type { MigrationInterface, QueryRunner } from "typeorm";

export class Typefaces1795820400000 implements MigrationInterface {
  readonly name = "Typefaces1795820400000";

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE IF NOT EXISTS typefaces (
        id CHAR(64) CHARACTER SET ascii NOT NULL PRIMARY KEY,
        family VARCHAR(120) NOT NULL,
        style VARCHAR(60) NOT NULL,
        kind VARCHAR(16) CHARACTER SET ascii NOT NULL,
        scripts JSON NOT NULL,
        file_name VARCHAR(200) NOT NULL,
        fs_type SMALLINT UNSIGNED NULL,
        is_put_away BOOLEAN NOT NULL,
        bytes LONGBLOB NOT NULL
      )`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("DROP TABLE IF EXISTS typefaces");
  }
}
