import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The width of the burn, where a recipe's was measured. */
export class RecipeKerf1764300000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE recipes ADD COLUMN kerfMm real');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE recipes DROP COLUMN kerfMm');
  }
}
