import { describe, expect, test } from '@jest/globals';
import { addCard, chooseBestCell, itemsOfCard, markCells, removeCard } from '../edits/cards.ts';
import { box, item, jobWith } from '../fixtures/shop.ts';
import { type CardWish, cardLayerId, cardOfLayer, type LaidCard } from './card.ts';
import { jobFromJson, jobToJson } from './json.ts';
import { NotADrawing } from './not-a-drawing.ts';

const wish: CardWish = {
  operation: 'engrave',
  across: { setting: 'greyPercent', from: 10, to: 100, steps: 3 },
  down: null,
  rest: { powerPercent: 30, speedMmPerS: 300, air: 'low' },
  lightest: 0.2,
  words: { powerPercent: 8, speedMmPerS: 150 },
  cellMm: 8,
  gapMm: 2,
};
const laid: LaidCard = { id: 'a1', runId: 'r1', wish, materialId: 'ply', thicknessMm: 5, marks: {}, best: null };
const layer = { id: cardLayerId('a1', '1-1'), name: '10 %', operation: 'engrave' as const, rank: 1 };
const cell = item(box(0, 0, 8), 'cut', { pinned: layer.id, groupId: 'card' });
const before = jobWith([item(box(50, 0, 8), 'cut')]);
const job = addCard(before, laid, [layer], [cell], { id: 'card', name: 'Card', parentId: null });

describe('a card in a job', () => {
  test('is kept with everything that is said of it', () => {
    const read = chooseBestCell(markCells(job, 'a1', new Map([['1-2', 'under']])), 'a1', '1-1');
    expect(jobFromJson(JSON.parse(JSON.stringify(jobToJson(read))))).toEqual(read);
    expect(read.cards[0]).toMatchObject({ marks: { '1-1': 'good', '1-2': 'under' }, best: '1-1' });
  });

  test('jobs of earlier versions have none; a broken one says where', () => {
    const { cards: _, ...earlier } = jobToJson(job);
    expect(jobFromJson(earlier).cards).toEqual([]);
    const broken = (card: object) => () => jobFromJson({ ...jobToJson(job), cards: [{ ...laid, ...card }] });
    expect(broken({ marks: { '1-1': 'fine' } })).toThrow('card 0: mark 1-1 must be under, good, over');
    expect(broken({ wish: { ...wish, cellMm: 0 } })).toThrow(NotADrawing);
    expect(broken({ wish: { ...wish, rest: { speedMmPerS: 300 } } })).toThrow('powerPercent is neither common');
    expect(broken({ wish: { ...wish, across: { ...wish.across, setting: 'colour' } } })).toThrow('across: setting');
  });

  test('taken off, it leaves nothing behind', () => {
    expect(itemsOfCard(job, 'a1')).toEqual([cell]);
    expect(cardOfLayer(layer.id)).toBe('a1');
    expect(removeCard(job, 'a1')).toEqual(before);
  });

  test('has a run of its own, which burns it alone', () => {
    expect(job.runs.map(({ id, name }) => [id, name])).toEqual([
      ['run-1', 'Run 1'],
      ['r1', 'Test card'],
    ]);
    expect(job.runs[0].off).toEqual([layer.id]);
    expect(job.runs[1]).toMatchObject({ off: [], only: [cell.id] });
  });

  test('a best cell that is good no more is the best no more', () => {
    const best = chooseBestCell(job, 'a1', '1-3');
    expect(best.cards[0].best).toBe('1-3');
    expect(markCells(best, 'a1', new Map([['1-3', 'over']])).cards[0].best).toBeNull();
    expect(markCells(best, 'a1', new Map([['1-3', null]])).cards[0]).toMatchObject({ marks: {}, best: null });
    expect(markCells(best, 'a1', new Map([['1-1', 'over']])).cards[0].best).toBe('1-3');
  });
});
