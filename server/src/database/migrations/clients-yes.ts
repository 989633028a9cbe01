// Tenth schema: proofs with what is said on them, mail, and what the board lists of a job beside its recipe.
import type { MigrationInterface, QueryRunner } from "typeorm";

export class ClientsYes1795834800000 implements MigrationInterface {
  readonly name = "ClientsYes1795834800000";

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `ALTER TABLE jobs
        ADD COLUMN IF NOT EXISTS due_day DATE NULL,
        ADD COLUMN IF NOT EXISTS client_mail VARCHAR(254) NOT NULL DEFAULT '',
        ADD COLUMN IF NOT EXISTS garment CHAR(7) CHARACTER SET ascii NOT NULL DEFAULT '#ffffff',
        ADD COLUMN IF NOT EXISTS process VARCHAR(40) NULL,
        ADD COLUMN IF NOT EXISTS seen_key CHAR(16) CHARACTER SET ascii NOT NULL DEFAULT '',
        ADD COLUMN IF NOT EXISTS made_version INT UNSIGNED NULL,
        ADD COLUMN IF NOT EXISTS proof_state VARCHAR(12) CHARACTER SET ascii NOT NULL DEFAULT 'none',
        ADD COLUMN IF NOT EXISTS proof_ends_at DATETIME(3) NULL,
        ADD COLUMN IF NOT EXISTS yes_day DATE NULL,
        ADD COLUMN IF NOT EXISTS yes_key CHAR(16) CHARACTER SET ascii NOT NULL DEFAULT ''`,
    );
    await runner.query(
      `UPDATE jobs job JOIN recipes recipe ON recipe.job_id = job.id AND recipe.version = job.head
       SET job.garment = COALESCE(JSON_VALUE(recipe.body, '$.artwork.garment'), '#ffffff'),
           job.process = JSON_VALUE(recipe.body, '$.process'),
           job.made_version = (SELECT MAX(run.recipe_version) FROM runs run WHERE run.job_id = job.id AND run.state = 'done')`,
    );
    await runner.query(
      `CREATE TABLE IF NOT EXISTS proofs (
        id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
        job_id CHAR(36) CHARACTER SET ascii NOT NULL,
        number INT UNSIGNED NOT NULL,
        recipe_version INT UNSIGNED NOT NULL,
        seen_key CHAR(16) CHARACTER SET ascii NOT NULL,
        token CHAR(43) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
        token_hash CHAR(64) CHARACTER SET ascii NOT NULL,
        sent_at DATETIME(3) NOT NULL,
        ends_at DATETIME(3) NOT NULL,
        withdrawn_at DATETIME(3) NULL,
        yes_name VARCHAR(80) NULL,
        yes_day DATE NULL,
        yes_at DATETIME(3) NULL,
        body LONGTEXT NOT NULL,
        pdf LONGBLOB NOT NULL,
        UNIQUE INDEX by_job (job_id, number),
        UNIQUE INDEX by_token (token_hash),
        FOREIGN KEY (job_id) REFERENCES jobs (id)
      )`,
    );
    await runner.query(
      `CREATE TABLE IF NOT EXISTS proof_notes (
        id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
        sequence INT UNSIGNED NOT NULL AUTO_INCREMENT UNIQUE,
        proof_id CHAR(36) CHARACTER SET ascii NOT NULL,
        said_by VARCHAR(8) CHARACTER SET ascii NOT NULL,
        kind VARCHAR(8) CHARACTER SET ascii NOT NULL,
        reply_to CHAR(36) CHARACTER SET ascii NULL,
        at_x DOUBLE NULL,
        at_y DOUBLE NULL,
        name VARCHAR(80) NOT NULL,
        text VARCHAR(2000) NOT NULL,
        created_at DATETIME(3) NOT NULL,
        INDEX by_proof (proof_id, sequence),
        FOREIGN KEY (proof_id) REFERENCES proofs (id)
      )`,
    );
    await runner.query(
      `CREATE TABLE IF NOT EXISTS mails (
        id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
        sequence INT UNSIGNED NOT NULL AUTO_INCREMENT UNIQUE,
        job_id CHAR(36) CHARACTER SET ascii NOT NULL,
        kind VARCHAR(12) CHARACTER SET ascii NOT NULL,
        address VARCHAR(254) NOT NULL,
        subject VARCHAR(200) NOT NULL,
        text VARCHAR(4000) NOT NULL,
        link VARCHAR(400) NOT NULL,
        created_at DATETIME(3) NOT NULL,
        state VARCHAR(8) CHARACTER SET ascii NOT NULL,
        error VARCHAR(400) NULL
      )`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ["mails", "proof_notes", "proofs"]) await runner.query(`DROP TABLE IF EXISTS ${table}`);
    const columns = ["due_day", "client_mail", "garment", "process", "seen_key", "made_version", "proof_state"];
    for (const column of [...columns, "proof_ends_at", "yes_day", "yes_key"])
      await runner.query(`ALTER TABLE jobs DROP COLUMN IF EXISTS ${column}`);
  }
}
