import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Whether a material turns lighter where it burns. */
export class MaterialLighter1765100000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE materials ADD COLUMN turnsLighter boolean NOT NULL DEFAULT 0');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE materials DROP COLUMN turnsLighter');
  }
}
