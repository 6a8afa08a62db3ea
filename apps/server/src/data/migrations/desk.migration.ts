import type { MigrationInterface, QueryRunner } from 'typeorm';
import { plainWords } from '../../jobs/plain-words.ts';

const columns = [
  "state text NOT NULL DEFAULT 'being prepared'",
  "stateSince datetime NOT NULL DEFAULT '1970-01-01 00:00:00'",
  'wantedBy text',
  "machineId text NOT NULL DEFAULT ''",
  'materialId text',
  "whose text NOT NULL DEFAULT ''",
  "words text NOT NULL DEFAULT ''",
];

/** Where jobs stand in the shop, what they take, and what they are found by. */
export class Desk1765900000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    for (const column of columns) await runner.query(`ALTER TABLE jobs ADD COLUMN ${column}`);
    await runner.query('CREATE INDEX jobs_by_state ON jobs (state)');
    await runner.query(
      `CREATE TABLE job_steps (
         id integer PRIMARY KEY AUTOINCREMENT NOT NULL, jobId text NOT NULL REFERENCES jobs (id) ON DELETE CASCADE,
         state text NOT NULL, at datetime NOT NULL, "by" text,
         siteId text NOT NULL DEFAULT 'main', actor text NOT NULL DEFAULT 'operator')`,
    );
    await runner.query('CREATE INDEX steps_of_job ON job_steps (jobId)');
    await runner.query(
      `CREATE TABLE estimates (
         jobId text PRIMARY KEY NOT NULL REFERENCES jobs (id) ON DELETE CASCADE, version integer NOT NULL,
         materialIds text NOT NULL, shopHash text NOT NULL, seconds real, price real, blocks integer NOT NULL, warns integer NOT NULL)`,
    );
    // A job whose last run was done is burnt; every other one is being prepared.
    await runner.query(
      `UPDATE jobs SET
         state = CASE (SELECT status FROM runs WHERE runs.jobId = jobs.id ORDER BY sequence DESC LIMIT 1)
           WHEN 'done' THEN 'burnt' ELSE 'being prepared' END,
         stateSince = updatedAt,
         machineId = coalesce(${ofLastVersion('$.machineId')}, ''),
         materialId = ${ofLastVersion('$.sheets[0].materialId')},
         whose = coalesce(${ofLastVersion('$.member')}, '')`,
    );
    const jobs: { id: string; title: string; project: string; whose: string; names: string | null }[] =
      await runner.query(
        `SELECT id, title, project, whose,
         (SELECT group_concat(name, char(10)) FROM originals WHERE originals.jobId = jobs.id) AS names FROM jobs`,
      );
    for (const { id, title, project, whose, names } of jobs) {
      const words = plainWords([title, project, whose, names ?? ''].join('\n'));
      await runner.query('UPDATE jobs SET words = ? WHERE id = ?', [words, id]);
    }
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE estimates');
    await runner.query('DROP TABLE job_steps');
    await runner.query('DROP INDEX jobs_by_state');
    for (const column of columns) await runner.query(`ALTER TABLE jobs DROP COLUMN ${column.split(' ')[0]}`);
  }
}

function ofLastVersion(path: string): string {
  return `(SELECT json_extract(settings, '${path}') FROM versions WHERE versions.jobId = jobs.id AND number = jobs.version)`;
}
