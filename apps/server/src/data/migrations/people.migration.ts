import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The people of a shop, where they are signed in, and by which invitations others may join. */
export class People1765700000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE people (
         id text PRIMARY KEY NOT NULL, name text NOT NULL, nameKey text NOT NULL, role text NOT NULL,
         passwordHash text NOT NULL, createdAt datetime NOT NULL DEFAULT (datetime('now')), leftAt datetime,
         siteId text NOT NULL DEFAULT 'main', actor text NOT NULL DEFAULT 'operator')`,
    );
    await runner.query('CREATE UNIQUE INDEX people_by_name ON people (nameKey)');
    await runner.query(
      `CREATE TABLE sessions (
         tokenHash text PRIMARY KEY NOT NULL, personId text NOT NULL REFERENCES people (id) ON DELETE CASCADE,
         startedAt datetime NOT NULL, usedAt datetime NOT NULL)`,
    );
    await runner.query('CREATE INDEX sessions_of_person ON sessions (personId)');
    await runner.query(
      `CREATE TABLE invitations (
         tokenHash text PRIMARY KEY NOT NULL, role text NOT NULL, validUntil datetime NOT NULL,
         siteId text NOT NULL DEFAULT 'main', actor text NOT NULL DEFAULT 'operator')`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['invitations', 'sessions', 'people']) await runner.query(`DROP TABLE ${table}`);
  }
}
