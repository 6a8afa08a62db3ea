import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Which jobs wait for their machines, in which order. */
export class Day1766100000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE day_blocks (
         jobId text PRIMARY KEY NOT NULL REFERENCES jobs (id) ON DELETE CASCADE, place integer NOT NULL,
         notBefore datetime, seen integer NOT NULL,
         siteId text NOT NULL DEFAULT 'main', actor text NOT NULL DEFAULT 'operator')`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE day_blocks');
  }
}
