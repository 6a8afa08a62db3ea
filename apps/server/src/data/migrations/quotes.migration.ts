import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What jobs were offered for. */
export class Quotes1766200000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE quotes (
         number integer PRIMARY KEY AUTOINCREMENT NOT NULL, jobId text NOT NULL REFERENCES jobs (id) ON DELETE CASCADE,
         lines text NOT NULL, total real NOT NULL, currency text NOT NULL, validUntil text NOT NULL, terms text NOT NULL,
         madeAt datetime NOT NULL, "by" text, acceptedAt datetime, acceptedBy text, withdrawnAt datetime,
         siteId text NOT NULL DEFAULT 'main', actor text NOT NULL DEFAULT 'operator')`,
    );
    await runner.query('CREATE INDEX quotes_of_job ON quotes (jobId)');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE quotes');
  }
}
