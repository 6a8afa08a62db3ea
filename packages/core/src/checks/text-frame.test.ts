import { expect, test } from '@jest/globals';
import type { Item } from '../document/item.ts';
import { box, item, jobWith, shop } from '../fixtures/shop.ts';
import { planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import { usualText } from '../text/set.ts';
import { checkJob } from './check.ts';

const text = (words: string, over: number, more: Partial<Item> = {}): Item =>
  item(box(20, 20, 5), 'engrave', {
    shape: { kind: 'text', text: { ...usualText, words }, path: box(20, 20, 20), ...(over > 0 ? { over } : {}) },
    ...more,
  });
const found = (items: readonly Item[], more: object = {}) => {
  const prepared = prepareJob(jobWith(items, more), shop);
  return checkJob(prepared, planJob(prepared)).filter(({ code }) => code === 'text-over-frame');
};

test('a text that does not fit is said by its words and by how much, on the bed', () => {
  const long = text('Wilhelmina\nStrand', 2.5, { matrix: [2, 0, 0, 2, 0, 0] });
  expect(found([long, text('Ines', 0)])).toMatchObject([
    {
      level: 'warns',
      itemIds: [long.id],
      message:
        '1 text is larger than its place: “Wilhelmina Strand” by 5.0 mm. Shorten what is said, or give it more room.',
    },
  ]);
  expect(found([text('Ines', 0)])).toEqual([]);
});

test('of a list it is said with its row; of many, the first five', () => {
  const rows = Array.from({ length: 7 }, (_, i) => ({ id: `r${i}`, cells: [`N${i}`] }));
  const lists = [{ id: 'l', name: 'Names', columns: ['name'], rows, designId: null }];
  const items = rows.map(({ id }) => text(id, 1, { groupId: `g-${id}` }));
  const groups = rows.map(({ id }) => ({ id: `g-${id}`, name: id, parentId: null, row: { listId: 'l', rowId: id } }));
  const [{ message }] = found([], { lists, drawing: { items, groups } });
  expect(message).toContain('7 texts are larger than their places: “r0” (row 1) by 1.0 mm, “r1” (row 2) by 1.0 mm,');
  expect(message).toContain('“r4” (row 5) by 1.0 mm and 2 more.');
  expect(found([], { lists: [], drawing: { items: items.slice(0, 1), groups } })[0].message).toContain(
    '“r0” by 1.0 mm',
  );
});
