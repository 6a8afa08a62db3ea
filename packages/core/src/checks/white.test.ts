import { expect, test } from '@jest/globals';
import type { Item } from '../document/item.ts';
import { pathOf } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { parkItems } from '../edits/items.ts';
import { box, item, jobWith, shop } from '../fixtures/shop.ts';
import { flatten, signedArea } from '../geometry/paths/flatten.ts';
import { type Mend, mended } from '../mends/mend.ts';
import { mendPreview } from '../mends/preview.ts';
import { Move } from '../plan/moves.ts';
import { planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import { checkJob } from './check.ts';

const white = (x: number, y: number, size: number, fill = '#FFFFFF', more = {}): Item =>
  item(box(x, y, size), null, { paint: { stroke: null, strokeWidthMm: 0, fill }, ...more });
const disc = item(box(50, 50, 40), 'engrave');

function whiteIn(job: JobDocument) {
  const prepared = prepareJob(job, shop);
  return checkJob(prepared, planJob(prepared)).filter(({ code }) => code === 'white-over');
}
const burntAt = (job: JobDocument, x: number, y: number) => {
  const { steps } = planJob(prepareJob(job, shop));
  return steps.some(({ moves: { kinds, xs, ys } }) =>
    [...kinds].some((kind, i) => {
      const [from, to] = [Math.min(xs[i - 1], xs[i]), Math.max(xs[i - 1], xs[i])];
      return kind === Move.lit && Math.abs(ys[i] - y) < 0.1 && from < x && to > x;
    }),
  );
};
const press = (job: JobDocument, words: string) =>
  mended(job, whiteIn(job)[0].mends?.find((mend) => mend.words === words) as Mend);

test('a white shape over an engraving is asked about: a hole, left out, or burnt', () => {
  const eye = white(60, 60, 10);
  const job = jobWith([disc, eye]);
  const [found] = whiteIn(job);
  expect(found).toMatchObject({ level: 'warns', itemIds: [eye.id] });
  expect(found.mends?.map(({ words }) => words)).toEqual(['Make it a hole', 'Leave it out', 'Burn it']);
  expect(burntAt(job, 65, 65)).toBe(true);

  const hole = press(job, 'Make it a hole');
  expect([burntAt(hole, 65, 65), burntAt(hole, 55, 55)]).toEqual([false, true]);
  const [ring, kept] = hole.drawing.items;
  expect(Math.abs(flatten(pathOf(ring)).reduce((sum, line) => sum + signedArea(line), 0))).toBeCloseTo(1500, 6);
  expect(kept).toMatchObject({ id: eye.id, pinned: 'note' });
  expect(mendPreview(job, found.mends?.[0] as Mend).outline).not.toBeNull();

  const left = press(job, 'Leave it out');
  expect(burntAt(left, 65, 65)).toBe(true);
  for (const after of [hole, left]) {
    expect(whiteIn(after)).toEqual([]);
    const prepared = prepareJob(after, shop);
    expect(checkJob(prepared, planJob(prepared)).map(({ code }) => code)).not.toContain('colour-without-meaning');
  }
  expect(prepareJob(press(job, 'Burn it'), shop).meaning.placed.get('engrave')).toHaveLength(2);
});

test('over several it is taken out of each that lies under it, and of nothing that lies over it', () => {
  const [left, right, top] = [box(20, 20, 30), box(50, 20, 30), box(45, 25, 10)].map((path) => item(path, 'engrave'));
  const after = press(jobWith([left, right, white(40, 30, 20), top]), 'Make it a hole');
  const areas = after.drawing.items.map((entry) =>
    Math.round(Math.abs(flatten(pathOf(entry)).reduce((sum, line) => sum + signedArea(line), 0))),
  );
  expect(areas).toEqual([700, 700, 400, 100]);
});

test.each([
  ['under the engraving', [white(60, 60, 10), disc], {}],
  ['beside it', [disc, white(120, 60, 10)], {}],
  ['no white', [disc, white(60, 60, 10, '#D0D0D0')], {}],
  ['put on a layer by hand', [disc, white(60, 60, 10, '#FFFFFF', { pinned: 'note' })], {}],
  ['over a cut', [item(box(50, 50, 40), 'cut'), white(60, 60, 10)], {}],
] as const)('%s there is nothing to ask', (_, items, more) => {
  expect(whiteIn(jobWith(items, more))).toEqual([]);
});

test('what looks like the stock is as white as paper, and what is parked is left alone', () => {
  expect(whiteIn(jobWith([disc, white(60, 60, 10, '#EAD9B4')]))).toHaveLength(1);
  const beside = jobWith([item(box(700, 50, 40), 'engrave'), white(710, 60, 10)]);
  expect(whiteIn(parkItems(beside, new Set(beside.drawing.items.map(({ id }) => id)), true))).toEqual([]);
});
