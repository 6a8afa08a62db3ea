import type { MigrationInterface, QueryRunner } from 'typeorm';

const up = [
  `CREATE TABLE machines (id text PRIMARY KEY NOT NULL, position integer NOT NULL, definition text NOT NULL)`,
  `CREATE TABLE colour_keys (id text PRIMARY KEY NOT NULL, position integer NOT NULL, definition text NOT NULL)`,
  `CREATE TABLE materials (
     id text PRIMARY KEY NOT NULL, position integer NOT NULL, name text NOT NULL, thicknessMm real NOT NULL,
     tone text NOT NULL, sheetWidth real NOT NULL, sheetHeight real NOT NULL, forbidden text)`,
  `CREATE TABLE recipes (
     id integer PRIMARY KEY AUTOINCREMENT NOT NULL,
     materialId text NOT NULL REFERENCES materials (id) ON DELETE CASCADE,
     machineId text NOT NULL, operation text NOT NULL, powerPercent real NOT NULL, speedMmPerS real NOT NULL,
     passes integer NOT NULL, lineSpacingMm real NOT NULL, evidence text NOT NULL, note text NOT NULL)`,
  `CREATE INDEX recipes_material ON recipes (materialId)`,
  `CREATE TABLE jobs (
     id text PRIMARY KEY NOT NULL, title text NOT NULL, project text NOT NULL, version integer NOT NULL,
     createdAt datetime NOT NULL DEFAULT (datetime('now')), updatedAt datetime NOT NULL)`,
  `CREATE TABLE drawings (hash text PRIMARY KEY NOT NULL, itemCount integer NOT NULL, json blob NOT NULL)`,
  `CREATE TABLE versions (
     id integer PRIMARY KEY AUTOINCREMENT NOT NULL,
     jobId text NOT NULL REFERENCES jobs (id) ON DELETE CASCADE,
     number integer NOT NULL, edit text NOT NULL, savedAt datetime NOT NULL, settings text NOT NULL,
     drawingHash text NOT NULL REFERENCES drawings (hash))`,
  `CREATE UNIQUE INDEX versions_of_job ON versions (jobId, number)`,
  `CREATE TABLE originals (
     id integer PRIMARY KEY AUTOINCREMENT NOT NULL,
     jobId text NOT NULL REFERENCES jobs (id) ON DELETE CASCADE,
     name text NOT NULL, format text NOT NULL, sha256 text NOT NULL, bytes blob NOT NULL, addedAt datetime NOT NULL)`,
  `CREATE INDEX originals_of_job ON originals (jobId)`,
  `CREATE TABLE runs (
     id text PRIMARY KEY NOT NULL,
     jobId text NOT NULL REFERENCES jobs (id) ON DELETE CASCADE,
     version integer NOT NULL, machineId text NOT NULL, status text NOT NULL, reason text,
     startedAt datetime NOT NULL, endedAt datetime, programHash text NOT NULL, lines integer NOT NULL,
     doneLine integer NOT NULL, plannedS real NOT NULL, machineS real NOT NULL)`,
  `CREATE INDEX runs_of_job ON runs (jobId)`,
];

export class FirstTables1764000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    for (const statement of up) await runner.query(statement);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of [
      'runs',
      'originals',
      'versions',
      'drawings',
      'jobs',
      'recipes',
      'materials',
      'colour_keys',
      'machines',
    ]) {
      await runner.query(`DROP TABLE ${table}`);
    }
  }
}
