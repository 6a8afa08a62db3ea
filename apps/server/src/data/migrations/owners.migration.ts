import type { MigrationInterface, QueryRunner } from 'typeorm';

const owned = [
  'machines',
  'colour_keys',
  'materials',
  'recipes',
  'book_changes',
  'jobs',
  'versions',
  'originals',
  'runs',
  'settings',
  'fonts',
];

/** Which site a row belongs to, and who made it: so that there can be several of both. */
export class Owners1764900000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    for (const table of owned) {
      await runner.query(`ALTER TABLE ${table} ADD COLUMN siteId text NOT NULL DEFAULT 'main'`);
      await runner.query(`ALTER TABLE ${table} ADD COLUMN actor text NOT NULL DEFAULT 'operator'`);
    }
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of owned) {
      await runner.query(`ALTER TABLE ${table} DROP COLUMN actor`);
      await runner.query(`ALTER TABLE ${table} DROP COLUMN siteId`);
    }
  }
}
