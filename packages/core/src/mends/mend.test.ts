import { describe, expect, test } from '@jest/globals';
import type { FindingCode } from '../checks/catalogue.ts';
import { checkJob } from '../checks/check.ts';
import type { Item } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { changeSetting } from '../edits/items.ts';
import { orderSteps, setBurning, switchLayer } from '../edits/layers.ts';
import { box, item, jobWith, line, shop } from '../fixtures/shop.ts';
import { appendPath, PathBuilder } from '../geometry/paths/path.ts';
import { planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import { type Mend, mended, mendedAll, mendedItems } from './mend.ts';

const findingsOf = (job: JobDocument) => {
  const prepared = prepareJob(job, shop);
  return checkJob(prepared, planJob(prepared));
};
const mendsOf = (job: JobDocument, code: FindingCode): readonly Mend[] =>
  findingsOf(job).find((found) => found.code === code)?.mends ?? [];
const codesAfter = (job: JobDocument, mend: Mend) => findingsOf(mended(job, mend)).map(({ code }) => code);
const boxAt = ({ drawing }: JobDocument, id: string) => drawing.items.find((entry) => entry.id === id)?.matrix.slice(4);
const sound = item(box(50, 50, 30), 'cut');

describe('what is drawn off the bed or into its margin', () => {
  const sheet = { id: 's', materialId: 'ply', x: 0, y: 0, width: 600, height: 400, margin: 0 };
  const on = (...items: Item[]) => jobWith(items, { sheets: [sheet] });

  test.each([
    ['off-bed', box(-12, 100, 20), 'Move onto the bed', [17, 0]],
    ['off-bed', box(590, 395, 20), 'Move onto the bed', [-15, -20]],
    ['into-margin', box(2.5, 397 - 20, 20), 'Move out of the margin', [2.5, -2]],
  ] as const)('%s is moved in by the least that does', (code, path, words, [dx, dy]) => {
    const job = on(item(path, 'cut'));
    const [mend] = mendsOf(job, code);
    expect(mend).toMatchObject({ words, isSafe: true, step: { kind: 'move', dx, dy } });
    expect(codesAfter(job, mend)).toEqual([]);
  });

  test('a sheet over the edge is moved onto the bed, alone; one that is larger than it is only told', () => {
    const at = (x: number, width: number) => jobWith([sound], { sheets: [{ ...sheet, x, width, height: 300 }] });
    const [mend] = mendsOf(at(450, 300), 'sheet-off-bed');
    const after = mended(at(450, 300), mend);
    expect(after.sheets[0]).toMatchObject({ x: 300, y: 0 });
    expect(after.drawing.items).toEqual([sound]);
    expect(codesAfter(at(450, 300), mend)).not.toContain('sheet-off-bed');
    expect(mendsOf(at(0, 900), 'sheet-off-bed')).toEqual([]);
    expect(findingsOf(at(0, 900)).map(({ code }) => code)).toContain('sheet-off-bed');
    expect(findingsOf(at(0, 600)).map(({ code }) => code)).not.toContain('sheet-off-bed');
  });

  test('what lies in it and its group go along, and what is larger than the room stays', () => {
    const [plate, hole] = [item(box(-5, 100, 50), 'cut', { groupId: 'g' }), item(box(10, 110, 5), 'cut')];
    const mate = item(line(300, 300, 320, 300), 'score', { groupId: 'g' });
    const [mend] = mendsOf(on(plate, hole, mate, sound), 'off-bed');
    const after = mended(on(plate, hole, mate, sound), mend);
    expect([plate, hole, mate, sound].map(({ id }) => boxAt(after, id))).toEqual([
      [10, 0],
      [10, 0],
      [10, 0],
      [0, 0],
    ]);
    expect(mendsOf(on(item(box(-5, 10, 595, 100), 'cut')), 'off-bed')).toEqual([]);
  });
});

describe('lines', () => {
  test('drawn twice are kept once, whichever way round they are drawn', () => {
    const again = item(line(80, 80, 50, 80, 50, 50, 80, 50, 80, 80), 'cut');
    const job = jobWith([sound, again, item(box(100, 50, 30), 'cut')]);
    const [mend] = mendsOf(job, 'line-drawn-twice');
    expect(mend).toMatchObject({ words: 'Remove 1 double', isSafe: true });
    expect(mendedItems(mend)).toEqual([again.id]);
    expect(codesAfter(job, mend)).toEqual([]);
    // A neighbour that shares an edge is no double.
    const neighbours = jobWith([sound, item(box(80, 50, 30), 'cut')]);
    const [once, ...others] = mendsOf(neighbours, 'line-drawn-twice');
    expect([once.words, once.isSafe, others]).toEqual(['Cut shared edges once', false, []]);
    expect(codesAfter(neighbours, once)).toEqual([]);
  });

  test('that nearly close are joined, and scored where that is meant', () => {
    const open = jobWith([item(line(60, 60, 90, 60, 90, 90, 60, 60.2), 'cut')]);
    const [join, score] = mendsOf(open, 'open-cut');
    expect(join).toMatchObject({ words: 'Join ends within 0.20 mm', isSafe: true });
    expect(codesAfter(open, join)).toEqual([]);
    expect(score).toMatchObject({ words: 'Score it', isSafe: false });
    expect(codesAfter(open, score)).toEqual(['tiny-gap']);
    const wide = mendsOf(jobWith([item(line(60, 60, 90, 60, 90, 90, 60, 60.8), 'cut')]), 'open-cut');
    expect(wide.map(({ words, isSafe }) => [words, isSafe])).toEqual([
      ['Join ends within 0.80 mm', false],
      ['Score it', false],
    ]);
    const far = mendsOf(jobWith([item(line(60, 60, 90, 60, 90, 90), 'cut')]), 'open-cut');
    expect(far.map(({ words }) => words)).toEqual(['Score it']);
  });
});

test('fills that cancel are united, and a layer that is off is switched on', () => {
  const job = jobWith([sound, item(box(55, 55, 9), 'engrave'), item(box(55, 55, 9), 'engrave')]);
  const [unite] = mendsOf(job, 'fills-cancel');
  expect(codesAfter(job, unite)).not.toContain('fills-cancel');
  const off = switchLayer(jobWith([sound, item(line(55, 60, 75, 60), 'score')]), 'score', false);
  const [switchOn] = mendsOf(off, 'layer-off');
  expect(switchOn.words).toBe('Switch Score on');
  expect(codesAfter(off, switchOn)).toEqual([]);
});

test('what is hidden is brought in, or removed for good', () => {
  const hidden = item(box(100, 50, 30), 'cut', { hidden: true });
  const job = jobWith([sound, hidden]);
  const [bringIn, remove] = mendsOf(job, 'hidden-parts');
  expect([bringIn.words, remove.words]).toEqual(['Bring it in', 'Remove for good']);
  expect(mended(job, bringIn).drawing.items.map((entry) => entry.hidden)).toEqual([false, false]);
  expect(mended(job, remove).drawing.items).toEqual([sound]);
});

test('an order that burns after the cut goes back to the usual one', () => {
  const [outer, hole, other] = [
    item(box(100, 100, 100), 'cut'),
    item(box(120, 120, 10), 'cut'),
    item(box(250, 100, 9), 'cut'),
  ];
  const drawn = setBurning(jobWith([outer, hole, other]), 'cut', { order: 'as-drawn' });
  const turned = orderSteps(jobWith([outer, hole, other]), ['cut outer', 'cut inner']);
  for (const job of [drawn, turned]) {
    const [mend] = mendsOf(job, 'order-broken');
    expect(mend.words).toBe('Burn in the usual order');
    expect(codesAfter(job, mend)).toEqual([]);
  }
});

test('several are done at once; one that would change what another has changed waits', () => {
  const move = (itemIds: string[]): Mend => ({
    words: '',
    name: '',
    isSafe: true,
    step: { kind: 'move', itemIds, dx: 3, dy: 0 },
  });
  const other = item(box(100, 50, 30), 'cut');
  const { job, done } = mendedAll(jobWith([sound, other]), [
    move([sound.id]),
    move([sound.id, other.id]),
    move([other.id]),
  ]);
  expect(done).toHaveLength(2);
  expect([boxAt(job, sound.id), boxAt(job, other.id)]).toEqual([
    [3, 0],
    [3, 0],
  ]);
});

describe('what else is put right by a press', () => {
  const wordsOf = (job: JobDocument, code: FindingCode) => mendsOf(job, code).map(({ words }) => words);
  const done = (job: JobDocument, code: FindingCode, words: string) => {
    const mend = mendsOf(job, code).find((known) => known.words === words);
    if (!mend) throw new Error(`“${words}” is not offered`);
    return mended(job, mend);
  };
  const codesOf = (job: JobDocument) => findingsOf(job).map(({ code }) => code);
  test('an engraving that does not close is joined, or scored', () => {
    const open = jobWith([item(line(20, 20, 60, 20, 60, 50, 20, 50, 20, 20.1), 'engrave')]);
    expect(wordsOf(open, 'open-engrave')).toEqual(['Join ends within 0.10 mm', 'Score it']);
    expect(codesOf(done(open, 'open-engrave', 'Join ends within 0.10 mm'))).not.toContain('open-engrave');
    expect(codesOf(done(open, 'open-engrave', 'Score it'))).not.toContain('open-engrave');
    const far = jobWith([item(line(20, 20, 60, 20, 60, 50), 'engrave')]);
    expect(wordsOf(far, 'open-engrave')).toEqual(['Score it']);
  });
  test('a hole that the kerf swallows is scored, unless it is part of more', () => {
    const plate = item(box(20, 20, 60), 'cut');
    const job = changeSetting(jobWith([plate, item(box(40, 40, 0.3), 'cut')]), 'cut', 'kerfMm', 0.4);
    expect(codesOf(done(job, 'kerf-swallows', 'Score it'))).not.toContain('kerf-swallows');
    const builder = new PathBuilder();
    for (const part of [box(20, 20, 60), box(40, 40, 0.3)]) appendPath(builder, part, true);
    const together = changeSetting(jobWith([item(builder.build(), 'cut')]), 'cut', 'kerfMm', 0.4);
    expect(wordsOf(together, 'kerf-swallows')).toEqual([]);
  });
  test('what lies off its sheet, or near its edge, is moved onto it', () => {
    const off = jobWith([item(box(490, 100, 20), 'cut')]);
    const after = done(off, 'off-sheet', 'Move onto the sheet');
    expect(boxAt(after, after.drawing.items[0].id)).toEqual([-13, 0]);
    expect(codesOf(after)).not.toContain('off-sheet');
    const near = jobWith([item(box(478, 100, 20), 'cut')]);
    expect(codesOf(done(near, 'into-margin', 'Move away from the edge'))).not.toContain('into-margin');
    expect(wordsOf(jobWith([item(box(-5, 100, 505), 'score')]), 'off-sheet')).toEqual([]);
  });
  test('of engravings that cancel out one of each is kept', () => {
    const job = jobWith([
      item(box(20, 20, 30), 'engrave'),
      item(box(20, 20, 30), 'engrave'),
      item(box(90, 20, 30), 'engrave'),
    ]);
    const [words] = wordsOf(job, 'fills-cancel');
    const after = done(job, 'fills-cancel', words);
    expect(after.drawing.items).toHaveLength(2);
    expect(codesOf(after)).not.toContain('fills-cancel');
  });
});
