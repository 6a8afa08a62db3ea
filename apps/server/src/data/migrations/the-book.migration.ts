import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The recipe book: what a material is, settings of every kind, variants, evidence, and the history of all of it. */
export class TheBook1764500000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    for (const column of [
      'family text',
      'measuredMm real',
      'colour text',
      'finish text',
      'masked boolean NOT NULL DEFAULT 0',
      "notes text NOT NULL DEFAULT ''",
      'archived boolean NOT NULL DEFAULT 0',
      'version integer NOT NULL DEFAULT 1',
    ]) {
      await runner.query(`ALTER TABLE materials ADD COLUMN ${column}`);
    }
    for (const column of [
      'lensId text',
      "variant text NOT NULL DEFAULT ''",
      "settings text NOT NULL DEFAULT '{}'",
      'proof text',
      'archived boolean NOT NULL DEFAULT 0',
      'version integer NOT NULL DEFAULT 1',
    ]) {
      await runner.query(`ALTER TABLE recipes ADD COLUMN ${column}`);
    }
    await runner.query(
      `UPDATE recipes SET settings = json_patch('{}', json_object('powerPercent', powerPercent, 'speedMmPerS', speedMmPerS,
         'passes', passes, 'lineSpacingMm', lineSpacingMm, 'kerfMm', kerfMm))`,
    );
    for (const column of numbers) await runner.query(`ALTER TABLE recipes DROP COLUMN ${column}`);
    await runner.query(
      `CREATE TABLE book_changes (
         id integer PRIMARY KEY AUTOINCREMENT NOT NULL, at datetime NOT NULL, "by" text NOT NULL,
         materialId text NOT NULL REFERENCES materials (id) ON DELETE CASCADE, recipeId integer,
         what text NOT NULL, before text, after text NOT NULL)`,
    );
    await runner.query('CREATE INDEX changes_of_material ON book_changes (materialId)');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE book_changes');
    for (const column of numbers) {
      const type = column === 'passes' ? 'integer' : 'real';
      const rule = column === 'kerfMm' ? '' : 'NOT NULL DEFAULT 1';
      await runner.query(`ALTER TABLE recipes ADD COLUMN ${column} ${type} ${rule}`);
      await runner.query(`UPDATE recipes SET ${column} = json_extract(settings, '$.${column}')`);
    }
    for (const column of ['lensId', 'variant', 'settings', 'proof', 'archived', 'version']) {
      await runner.query(`ALTER TABLE recipes DROP COLUMN ${column}`);
    }
    for (const column of ['family', 'measuredMm', 'colour', 'finish', 'masked', 'notes', 'archived', 'version']) {
      await runner.query(`ALTER TABLE materials DROP COLUMN ${column}`);
    }
  }
}

const numbers = ['powerPercent', 'speedMmPerS', 'passes', 'lineSpacingMm', 'kerfMm'];
