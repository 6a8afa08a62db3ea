import { expect, test } from '@jest/globals';
import { answerOf } from '../builders/follow.ts';
import { putDown, settleParts } from '../builders/put-down.ts';
import { drawnPaint } from '../colours/drawn.ts';
import type { BuiltThing } from '../document/built.ts';
import type { JobDocument } from '../document/job.ts';
import { jobWith, shop } from '../fixtures/shop.ts';
import { planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import { guessedFits } from '../recipes/book/figures.ts';
import type { FindingCode } from './catalogue.ts';
import { checkJob } from './check.ts';

const [key] = shop.keys;
const looks = { cut: drawnPaint(key, 'cut'), score: drawnPaint(key, 'score') };

/** What a builder makes, put down on the sheet, as made for stock of a thickness. */
function builtJob(builder: string, name: string, numbers: BuiltThing['numbers'], thicknessMm: number) {
  const thing: BuiltThing = { id: 'thing', builder, numbers, thicknessMm, plays: guessedFits };
  const answer = answerOf(thing);
  if (!answer?.ok) throw new Error(`${name} is not built.`);
  let made = 0;
  const rows = { x: 20, y: 20, rowMm: 200, gapMm: 4, looks };
  return putDown(jobWith([]), thing, name, answer.built, rows, () => `part-${++made}`).job;
}

/** A grid of three strips. */
const gridFor = (thicknessMm: number) =>
  builtJob('slotted-grid', 'Grid', { width: 100, depth: 60, height: 20, cellsAcross: 3, cellsDeep: 2 }, thicknessMm);

const foundIn = (job: JobDocument, wanted: FindingCode) => {
  const prepared = prepareJob(job, shop);
  return checkJob(prepared, planJob(prepared)).filter(({ code }) => code === wanted);
};
const found = (job: JobDocument) => foundIn(job, 'built-other-stock');

test('parts on stock of another thickness than they were made for are told, by their thing', () => {
  const job = gridFor(3);
  expect(found(job)).toEqual([]);
  const [sheet] = job.sheets;
  const thicker = { ...job, sheets: [{ ...sheet, thicknessMm: 4.2 }] };
  expect(found(thicker)).toMatchObject([
    {
      level: 'warns',
      message:
        'Grid: 3 parts lie on stock of 4.2 mm, and were made for 3 mm: joints do not fit. Change the numbers, or the sheet.',
      itemIds: ['part-1', 'part-2', 'part-3'],
    },
  ]);
  // One that lies on a second sheet is told alone.
  const [first] = job.drawing.items;
  const { matrix } = first;
  const away = { ...first, matrix: [...matrix.slice(0, 4), matrix[4] + 250, matrix[5]] as unknown as typeof matrix };
  const second = { ...sheet, id: 'second', x: sheet.x + 250, thicknessMm: 2.8 };
  const two = {
    ...job,
    sheets: [{ ...sheet, width: 240 }, second],
    drawing: { ...job.drawing, items: [away, ...job.drawing.items.slice(1)] },
  };
  expect(found(two)).toMatchObject([
    { message: expect.stringContaining('Grid: 1 part lies on stock of 2.8 mm, and was made') },
  ]);
});

test('slits of a panel and dashes of a bend are meant to be open, until they are settled', () => {
  for (const job of [
    builtJob('bending-panel', 'Panel', { panelWidth: 60 }, 3),
    builtJob('folded-box', 'Card', { shape: 'tray', bends: 'dashes' }, 0.5),
  ]) {
    expect(foundIn(job, 'open-cut')).toEqual([]);
    const settled = settleParts(job, new Set(job.drawing.items.map(({ id }) => id)));
    expect(foundIn(settled, 'open-cut')).toHaveLength(1);
  }
});
