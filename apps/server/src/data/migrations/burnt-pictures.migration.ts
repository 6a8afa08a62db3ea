import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What the bed looked like after a run, where its machine can show it. */
export class BurntPictures1764600000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE burnt_pictures (
         runId text PRIMARY KEY NOT NULL REFERENCES runs (id) ON DELETE CASCADE, x real NOT NULL, y real NOT NULL,
         pitchMm real NOT NULL, width integer NOT NULL, height integer NOT NULL, codes blob NOT NULL)`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE burnt_pictures');
  }
}
