import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Which jobs are burnt together on shared sheets. Those that still lie there are the view `parts_in_place`. */
export class Sharing1766300000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE shared_parts (
         id integer PRIMARY KEY AUTOINCREMENT NOT NULL,
         sharedJobId text NOT NULL REFERENCES jobs (id) ON DELETE CASCADE, place integer NOT NULL,
         jobId text NOT NULL REFERENCES jobs (id) ON DELETE CASCADE, version integer NOT NULL,
         copies integer NOT NULL, price real, leftAt datetime,
         siteId text NOT NULL DEFAULT 'main', actor text NOT NULL DEFAULT 'operator')`,
    );
    await runner.query('CREATE INDEX parts_of_shared_job ON shared_parts (sharedJobId)');
    await runner.query('CREATE INDEX shared_parts_of_job ON shared_parts (jobId)');
    await runner.query(
      `CREATE VIEW parts_in_place AS
         SELECT shared_parts.* FROM shared_parts
         JOIN jobs ON jobs.id = shared_parts.sharedJobId AND jobs.deletedAt IS NULL
         WHERE shared_parts.leftAt IS NULL`,
    );
    await runner.query('ALTER TABLE job_steps ADD COLUMN sharedJobId text');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE job_steps DROP COLUMN sharedJobId');
    await runner.query('DROP VIEW parts_in_place');
    await runner.query('DROP TABLE shared_parts');
  }
}
