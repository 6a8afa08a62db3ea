import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A new file for what was sent in: what it is to replace, and what changes. */
export class NewFiles1766500000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE sendings ADD COLUMN replacesId text REFERENCES sendings (id) ON DELETE CASCADE');
    await runner.query('ALTER TABLE sendings ADD COLUMN originalId integer');
    await runner.query('ALTER TABLE sendings ADD COLUMN difference text');
    await runner.query('ALTER TABLE sendings ADD COLUMN differencePicture text');
    await runner.query('CREATE INDEX sendings_that_replace ON sendings (replacesId)');
    await runner.query(`ALTER TABLE messages ADD COLUMN kind text NOT NULL DEFAULT 'text'`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE messages DROP COLUMN kind');
    await runner.query('DROP INDEX sendings_that_replace');
    for (const column of ['differencePicture', 'difference', 'originalId', 'replacesId'])
      await runner.query(`ALTER TABLE sendings DROP COLUMN ${column}`);
  }
}
