import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Which of a job's runs each record is of; those of before were of its only one. */
export class JobRuns1764200000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE runs ADD COLUMN jobRunId text NOT NULL DEFAULT 'run-1'`);
    await runner.query(`ALTER TABLE runs ADD COLUMN jobRunName text NOT NULL DEFAULT 'Run 1'`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE runs DROP COLUMN jobRunName');
    await runner.query('ALTER TABLE runs DROP COLUMN jobRunId');
  }
}
