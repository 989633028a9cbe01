// Ninth schema: motifs. Contents never change and are there once; jobs name them by their hash.
import type { MigrationInterface, QueryRunner } from "typeorm";

export class Motifs1795831200000 implements MigrationInterface {
  readonly name = "Motifs1795831200000";

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE IF NOT EXISTS motif_contents (
        hash CHAR(64) CHARACTER SET ascii NOT NULL PRIMARY KEY,
        width_mm DOUBLE NOT NULL,
        height_mm DOUBLE NOT NULL,
        shapes INT UNSIGNED NOT NULL,
        nodes INT UNSIGNED NOT NULL,
        spot_count INT UNSIGNED NOT NULL,
        spot_names VARCHAR(2000) NOT NULL,
        spots JSON NOT NULL,
        body LONGTEXT NOT NULL
      )`,
    );
    await runner.query(
      `CREATE TABLE IF NOT EXISTS motifs (
        id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
        name VARCHAR(120) NOT NULL,
        folder VARCHAR(120) NOT NULL,
        words VARCHAR(400) NOT NULL,
        origin VARCHAR(240) NOT NULL,
        hash CHAR(64) CHARACTER SET ascii NOT NULL,
        edition INT UNSIGNED NOT NULL,
        is_put_away BOOLEAN NOT NULL,
        version INT UNSIGNED NOT NULL,
        updated_at DATETIME(3) NOT NULL,
        INDEX by_folder (folder),
        FOREIGN KEY (hash) REFERENCES motif_contents (hash)
      )`,
    );
    await runner.query(
      `CREATE TABLE IF NOT EXISTS motif_editions (
        motif_id CHAR(36) CHARACTER SET ascii NOT NULL,
        edition INT UNSIGNED NOT NULL,
        hash CHAR(64) CHARACTER SET ascii NOT NULL,
        created_at DATETIME(3) NOT NULL,
        PRIMARY KEY (motif_id, edition),
        INDEX by_hash (hash),
        FOREIGN KEY (motif_id) REFERENCES motifs (id),
        FOREIGN KEY (hash) REFERENCES motif_contents (hash)
      )`,
    );
    await runner.query(
      `CREATE TABLE IF NOT EXISTS job_motifs (
        job_id CHAR(36) CHARACTER SET ascii NOT NULL,
        hash CHAR(64) CHARACTER SET ascii NOT NULL,
        PRIMARY KEY (job_id, hash),
        INDEX by_hash (hash)
      )`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ["job_motifs", "motif_editions", "motifs", "motif_contents"])
      await runner.query(`DROP TABLE IF EXISTS ${table}`);
  }
}
