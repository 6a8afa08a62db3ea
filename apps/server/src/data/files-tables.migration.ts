import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Pictures that drawings show, and fonts that the shop loaded. */
export class FilesTables1764100000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE pictures (
      id text PRIMARY KEY NOT NULL, mediaType text NOT NULL, bytes blob NOT NULL, addedAt datetime NOT NULL)`);
    await runner.query(`CREATE TABLE fonts (
      id text PRIMARY KEY NOT NULL, family text NOT NULL, bold boolean NOT NULL, italic boolean NOT NULL,
      bytes blob NOT NULL, addedAt datetime NOT NULL)`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE fonts');
    await runner.query('DROP TABLE pictures');
  }
}
