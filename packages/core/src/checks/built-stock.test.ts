import { expect, test } from '@jest/globals';
import { answerOf } from '../builders/follow.ts';
import { putDown } from '../builders/put-down.ts';
import { drawnPaint } from '../colours/drawn.ts';
import type { BuiltThing } from '../document/built.ts';
import { jobWith, shop } from '../fixtures/shop.ts';
import { planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import { guessedFits } from '../recipes/book/figures.ts';
import { checkJob } from './check.ts';

const [key] = shop.keys;
const looks = { cut: drawnPaint(key, 'cut'), score: drawnPaint(key, 'score') };

/** A grid of three strips on the sheet, made for stock of a thickness. */
function gridFor(thicknessMm: number) {
  const thing: BuiltThing = {
    id: 'grid',
    builder: 'slotted-grid',
    numbers: { width: 100, depth: 60, height: 20, cellsAcross: 3, cellsDeep: 2 },
    thicknessMm,
    plays: guessedFits,
  };
  const answer = answerOf(thing);
  if (!answer?.ok) throw new Error('The grid is not built.');
  let made = 0;
  const rows = { x: 20, y: 20, rowMm: 200, gapMm: 4, looks };
  return putDown(jobWith([]), thing, 'Grid', answer.built, rows, () => `part-${++made}`).job;
}

const found = (job: ReturnType<typeof gridFor>) => {
  const prepared = prepareJob(job, shop);
  return checkJob(prepared, planJob(prepared)).filter(({ code }) => code === 'built-other-stock');
};

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
