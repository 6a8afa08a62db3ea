import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Whether one sees through a material, and the least that it holds. */
export class MaterialLeast1765000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE materials ADD COLUMN isClear boolean NOT NULL DEFAULT 0');
    await runner.query('ALTER TABLE materials ADD COLUMN leastSizes text');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE materials DROP COLUMN leastSizes');
    await runner.query('ALTER TABLE materials DROP COLUMN isClear');
  }
}
