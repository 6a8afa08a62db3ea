import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The sheets in stock of a material, those a run took, and the picture of what comes of a recipe. */
export class Stock1764700000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE materials ADD COLUMN stock text');
    await runner.query('ALTER TABLE recipes ADD COLUMN pictureId text');
    await runner.query("ALTER TABLE runs ADD COLUMN taken text NOT NULL DEFAULT '[]'");
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE runs DROP COLUMN taken');
    await runner.query('ALTER TABLE recipes DROP COLUMN pictureId');
    await runner.query('ALTER TABLE materials DROP COLUMN stock');
  }
}
