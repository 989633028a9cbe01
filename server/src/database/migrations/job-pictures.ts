// Fourth schema: jobs that are put away, and how a job's result looks.
import type { MigrationInterface, QueryRunner } from "typeorm";

export class JobPictures1764151200000 implements MigrationInterface {
  readonly name = "JobPictures1764151200000";

  async up(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE jobs ADD COLUMN IF NOT EXISTS is_put_away BOOLEAN NOT NULL DEFAULT FALSE");
    await runner.query(
      `CREATE TABLE IF NOT EXISTS job_pictures (
        job_id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
        version INT UNSIGNED NOT NULL,
        bytes MEDIUMBLOB NOT NULL,
        FOREIGN KEY (job_id) REFERENCES jobs (id)
      )`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("DROP TABLE IF EXISTS job_pictures");
    await runner.query("ALTER TABLE jobs DROP COLUMN IF EXISTS is_put_away");
  }
}
