import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { JobDocument } from '../document/job.ts';
import { box, item, jobWith } from '../fixtures/shop.ts';
import { groupItems, lockItems, orderItems } from './arrange.ts';
import { addItems, hideItems, moveItems, pinItems, removeItems } from './items.ts';
import { lockedAgainst } from './locks.ts';
import { copyItems } from './repeat.ts';

const places = [0, 1, 2, 3];
const drawn = jobWith(places.map((i) => item(box(20 * i, 0, 10), 'cut', { id: `i${i}` })));
const some = fc.uniqueArray(fc.constantFrom(...places.map((i) => `i${i}`)), { minLength: 1 });
const sets = (ids: readonly string[]): ReadonlySet<string> => new Set(ids);

/** What changes the items that it is told of, and nothing else. */
const changes: readonly ((job: JobDocument, ids: ReadonlySet<string>) => JobDocument)[] = [
  (job, ids) => moveItems(job, ids, 1, 0),
  (job, ids) => pinItems(job, ids, 'score'),
  (job, ids) => removeItems(job, ids),
  (job, ids) => groupItems(job, ids, 'g', null),
];

test('an edit that changes what is locked is found, one beside it is not', () => {
  fc.assert(
    fc.property(some, some, fc.constantFrom(...changes), (locked, chosen, change) => {
      const before = lockItems(drawn, sets(locked), true);
      const hurt = lockedAgainst(before.drawing, change(before, sets(chosen)).drawing);
      const hurts = before.drawing.items.filter(({ id }) => locked.includes(id) && chosen.includes(id));
      expect(hurt).toBe(hurts[0] ?? null);
    }),
  );
});

test('what is locked may be unlocked, hidden, copied, and passed in the drawing’s order', () => {
  const before = lockItems(drawn, sets(['i1']), true);
  const all = sets(['i0', 'i1', 'i2', 'i3']);
  const rest = sets(['i0', 'i3']);
  const same = (after: JobDocument) => expect(lockedAgainst(before.drawing, after.drawing)).toBeNull();
  same(lockItems(before, all, false));
  same(hideItems(before, all, true));
  same(orderItems(before, rest, 'front'));
  same(addItems(before, [item(box(0, 50, 5), 'cut', { id: 'new' })]));
  let next = 0;
  const { job, copies } = copyItems(before, sets(['i1']), [[1, 0, 0, 1, 5, 5]], () => `c${next++}`);
  same(job);
  // A copy of it is not locked.
  const copy = job.drawing.items.find(({ id }) => id === copies[0][0]);
  expect(copy?.locked).toBeUndefined();
  // An item that is made anew as it was is not changed.
  same({ ...before, drawing: { ...before.drawing, items: before.drawing.items.map((own) => ({ ...own })) } });
});
