import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The fits of a material, and where a recipe's kerf comes from. */
export class MaterialFits1764400000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE materials ADD COLUMN fits text');
    await runner.query('ALTER TABLE recipes ADD COLUMN kerfFrom text');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE recipes DROP COLUMN kerfFrom');
    await runner.query('ALTER TABLE materials DROP COLUMN fits');
  }
}
