import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Who sent a run, what it was planned by, and of which run it is the rest. */
export class RunBasis1765400000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE runs ADD COLUMN "by" text');
    await runner.query('ALTER TABLE runs ADD COLUMN basis text');
    await runner.query('ALTER TABLE runs ADD COLUMN afterRunId text');
    await runner.query('ALTER TABLE runs ADD COLUMN fromLine integer');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE runs DROP COLUMN fromLine');
    await runner.query('ALTER TABLE runs DROP COLUMN afterRunId');
    await runner.query('ALTER TABLE runs DROP COLUMN basis');
    await runner.query('ALTER TABLE runs DROP COLUMN "by"');
  }
}
