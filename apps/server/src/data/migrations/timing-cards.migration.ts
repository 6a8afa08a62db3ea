import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The timing card that each machine ran last. */
export class TimingCards1765500000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE timing_cards (
         machineId text PRIMARY KEY NOT NULL, measuredAt datetime NOT NULL,
         parts text NOT NULL, figures text NOT NULL, motion text NOT NULL,
         siteId text NOT NULL DEFAULT 'main', actor text NOT NULL DEFAULT 'operator')`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE timing_cards');
  }
}
