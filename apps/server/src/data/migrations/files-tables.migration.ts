import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Pictures that drawings show, fonts that the shop loaded, and what it settled for every job. */
export class FilesTables1764100000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE pictures (
      id text PRIMARY KEY NOT NULL, mediaType text NOT NULL, bytes blob NOT NULL, addedAt datetime NOT NULL)`);
    await runner.query(`CREATE TABLE fonts (
      id text PRIMARY KEY NOT NULL, family text NOT NULL, bold boolean NOT NULL, italic boolean NOT NULL,
      bytes blob NOT NULL, addedAt datetime NOT NULL)`);
    await runner.query('CREATE TABLE settings (name text PRIMARY KEY NOT NULL, value text NOT NULL)');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE settings');
    await runner.query('DROP TABLE fonts');
    await runner.query('DROP TABLE pictures');
  }
}
