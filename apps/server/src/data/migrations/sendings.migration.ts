import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What is left at the drop-off. */
export class Sendings1766000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE sendings (
         id text PRIMARY KEY NOT NULL, tokenHash text, file text NOT NULL, bytes blob, wish text NOT NULL, look text NOT NULL,
         picture text NOT NULL, looks integer NOT NULL, startedAt datetime NOT NULL, sentAt datetime, words text,
         personId text, jobId text REFERENCES jobs (id) ON DELETE SET NULL,
         siteId text NOT NULL DEFAULT 'main', actor text NOT NULL DEFAULT 'operator')`,
    );
    await runner.query('CREATE UNIQUE INDEX sendings_by_token ON sendings (tokenHash)');
    await runner.query('CREATE INDEX sendings_by_time ON sendings (sentAt)');
    await runner.query('CREATE INDEX sendings_of_person ON sendings (personId)');
    await runner.query('CREATE INDEX sendings_of_job ON sendings (jobId)');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE sendings');
  }
}
