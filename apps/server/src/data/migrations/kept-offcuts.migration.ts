import type { MigrationInterface, QueryRunner } from 'typeorm';

type Taken = { keptOffcut?: unknown; keptOffcuts?: unknown[] };

/** A sheet that a run burnt on may leave several offcuts. */
export class KeptOffcuts1765600000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await changeTaken(runner, '"keptOffcut":', ({ keptOffcut, ...sheet }) =>
      keptOffcut ? { ...sheet, keptOffcuts: [keptOffcut] } : sheet,
    );
  }

  /** Of several, the first one is kept: earlier forms have room for one. */
  async down(runner: QueryRunner): Promise<void> {
    await changeTaken(runner, '"keptOffcuts":', ({ keptOffcuts, ...sheet }) =>
      keptOffcuts ? { ...sheet, keptOffcut: keptOffcuts[0] } : sheet,
    );
  }
}

/** Changes the sheets that runs took, of those runs in whose sheets some words stand. */
async function changeTaken(runner: QueryRunner, words: string, change: (sheet: Taken) => Taken): Promise<void> {
  const runs: { id: string; taken: string }[] = await runner.query('SELECT id, taken FROM runs WHERE instr(taken, ?)', [
    words,
  ]);
  for (const { id, taken } of runs) {
    const sheets = JSON.parse(taken).map(change);
    await runner.query('UPDATE runs SET taken = ? WHERE id = ?', [JSON.stringify(sheets), id]);
  }
}
