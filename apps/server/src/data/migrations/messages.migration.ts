import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What the workshop and senders write to each other, and the mails that tell of it. */
export class Messages1766400000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    const owner = `siteId text NOT NULL DEFAULT 'main', actor text NOT NULL DEFAULT 'operator'`;
    await runner.query(
      `CREATE TABLE messages (
         id integer PRIMARY KEY AUTOINCREMENT NOT NULL, jobId text NOT NULL REFERENCES jobs (id) ON DELETE CASCADE,
         at datetime NOT NULL, "from" text NOT NULL, "by" text, text text NOT NULL, ${owner})`,
    );
    await runner.query('CREATE INDEX messages_of_job ON messages (jobId)');
    await runner.query(
      `CREATE TABLE mails (
         id integer PRIMARY KEY AUTOINCREMENT NOT NULL, "to" text NOT NULL, subject text NOT NULL, text text NOT NULL,
         thread text NOT NULL, at datetime NOT NULL, sentAt datetime, tries integer NOT NULL DEFAULT 0,
         nextTryAt datetime, trouble text, ${owner})`,
    );
    await runner.query('CREATE INDEX mails_by_next_try ON mails (nextTryAt)');
    await runner.query('ALTER TABLE jobs ADD COLUMN awaits text');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE jobs DROP COLUMN awaits');
    await runner.query('DROP TABLE mails');
    await runner.query('DROP TABLE messages');
  }
}
