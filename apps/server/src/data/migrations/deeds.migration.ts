import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The record of who did what. */
export class Deeds1765800000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE deeds (
         id integer PRIMARY KEY AUTOINCREMENT NOT NULL, at datetime NOT NULL, what text NOT NULL, subjectId text, subject text,
         siteId text NOT NULL DEFAULT 'main', actor text NOT NULL DEFAULT 'operator')`,
    );
    await runner.query('CREATE INDEX deeds_by_time ON deeds (at)');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE deeds');
  }
}
