import { gunzipSync } from 'node:zlib';
import type { MigrationInterface, QueryRunner } from 'typeorm';
import { pictureIdsIn } from '../../jobs/picture-ids.ts';

/**
 * The order of changes and runs by number, since clocks can be set back; what a run burns on; jobs that were deleted and can be taken back;
 * which pictures a drawing shows; indices for what is sorted and looked up.
 */
export class Reliability1764800000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE jobs ADD COLUMN changed integer NOT NULL DEFAULT 0');
    await runner.query(
      `UPDATE jobs SET changed = (SELECT count(*) FROM jobs AS other
         WHERE other.updatedAt < jobs.updatedAt OR (other.updatedAt = jobs.updatedAt AND other.rowid <= jobs.rowid))`,
    );
    await runner.query('CREATE INDEX jobs_by_change ON jobs (changed)');
    await runner.query('ALTER TABLE jobs ADD COLUMN deletedAt datetime');
    await runner.query('ALTER TABLE runs ADD COLUMN sequence integer NOT NULL DEFAULT 0');
    await runner.query(
      `UPDATE runs SET sequence = (SELECT count(*) FROM runs AS other
         WHERE other.startedAt < runs.startedAt OR (other.startedAt = runs.startedAt AND other.rowid <= runs.rowid))`,
    );
    await runner.query('ALTER TABLE runs ADD COLUMN uses text');
    await runner.query('CREATE UNIQUE INDEX runs_in_sequence ON runs (sequence)');
    await runner.query('DROP INDEX runs_of_job');
    await runner.query('CREATE INDEX runs_of_job ON runs (jobId, sequence)');
    await runner.query('CREATE INDEX runs_by_program ON runs (programHash)');
    await runner.query('CREATE INDEX versions_by_drawing ON versions (drawingHash)');
    await runner.query('CREATE INDEX changes_of_recipe ON book_changes (recipeId)');
    await runner.query(
      `CREATE TABLE drawing_pictures (
         drawingHash text NOT NULL REFERENCES drawings (hash) ON DELETE CASCADE, pictureId text NOT NULL,
         PRIMARY KEY (drawingHash, pictureId)) WITHOUT ROWID`,
    );
    await runner.query('CREATE INDEX drawings_by_picture ON drawing_pictures (pictureId)');
    const hashes = (await runner.query('SELECT hash FROM drawings')) as { hash: string }[];
    for (const { hash } of hashes) {
      const [{ json }] = (await runner.query('SELECT json FROM drawings WHERE hash = ?', [hash])) as { json: Buffer }[];
      for (const pictureId of pictureIdsIn(gunzipSync(json).toString('utf8'))) {
        await runner.query('INSERT INTO drawing_pictures VALUES (?, ?)', [hash, pictureId]);
      }
    }
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE drawing_pictures');
    for (const index of ['changes_of_recipe', 'versions_by_drawing', 'runs_by_program', 'runs_of_job']) {
      await runner.query(`DROP INDEX ${index}`);
    }
    await runner.query('CREATE INDEX runs_of_job ON runs (jobId)');
    await runner.query('DROP INDEX runs_in_sequence');
    await runner.query('ALTER TABLE runs DROP COLUMN uses');
    await runner.query('ALTER TABLE runs DROP COLUMN sequence');
    await runner.query('ALTER TABLE jobs DROP COLUMN deletedAt');
    await runner.query('DROP INDEX jobs_by_change');
    await runner.query('ALTER TABLE jobs DROP COLUMN changed');
  }
}
