import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Numbers of builders that the shop keeps under names. */
export class NumberFamilies1765200000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE number_families (
         id text PRIMARY KEY NOT NULL, name text NOT NULL, builder text NOT NULL, numbers text NOT NULL,
         siteId text NOT NULL DEFAULT 'main', actor text NOT NULL DEFAULT 'operator')`,
    );
    await runner.query('CREATE UNIQUE INDEX families_by_name ON number_families (builder, name)');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE number_families');
  }
}
