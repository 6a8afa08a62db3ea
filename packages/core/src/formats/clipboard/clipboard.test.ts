import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { deriveMeaning } from '../../colours/derive.ts';
import { type ColourKey, operationColourKey } from '../../colours/key.ts';
import { boundsOf, boundsOfAll, type Item } from '../../document/item.ts';
import { type JobDocument, newJob } from '../../document/job.ts';
import { NotADrawing } from '../../document/not-a-drawing.ts';
import { groupItems, lockItems } from '../../edits/arrange.ts';
import { hideItems, pinItems } from '../../edits/items.ts';
import { box, item, jobWith, rule } from '../../fixtures/shop.ts';
import type { Operation } from '../../operations/operations.ts';
import { readSvg } from '../svg/read.ts';
import { copiedAsSvg, copiedFrom, copiedFromText, copiedToText, pasteInto } from './index.ts';

const house = operationColourKey('house', 'House');
/** A key in which the colour that is cut at home engraves deeply, and every other stroke is scored. */
const other: ColourKey = {
  ...house,
  id: 'other',
  layers: [
    { id: 'deep', name: 'Deep', operation: 'engrave' },
    { id: 'fold', name: 'Score', operation: 'score' },
  ],
  rules: [rule({ colour: '#D0481E', layerId: 'deep' }), rule({ layerId: 'fold' })],
};

const copy = (job: JobDocument, key: ColourKey, ids = job.drawing.items.map(({ id }) => id)) =>
  copiedFromText(copiedToText(copiedFrom(job.drawing, deriveMeaning(job, key), new Set(ids))));
let next = 0;
const newId = () => `new-${++next}`;
const paste = (job: JobDocument, key: ColourKey, copied: ReturnType<typeof copy>, dx = 0, dy = 0) =>
  pasteInto(job, key, copied, { dx, dy }, newId);
const operationsOf = (job: JobDocument, key: ColourKey, id: string): string[] => {
  const { layers, placed } = deriveMeaning(job, key);
  return layers
    .filter((layer) => placed.get(layer.id)?.some((own) => own.item.id === id))
    .map(({ operation }) => operation);
};
const added = (job: JobDocument, ids: readonly string[]) =>
  ids.map((id) => job.drawing.items.find((own) => own.id === id) as Item);

describe('what is pasted', () => {
  test('means what it meant, whatever the key of the job makes of its colours', () => {
    const operations = fc.constantFrom<Operation>('cut', 'score', 'engrave');
    fc.assert(
      fc.property(fc.array(operations, { minLength: 1, maxLength: 5 }), fc.boolean(), (drawn, toOther) => {
        const job = jobWith(drawn.map((operation, i) => item(box(20 * i, 0, 10), operation)));
        const [to, key] = toOther ? [{ ...newJob('m', 'other') }, other] : [newJob('m', 'house'), house];
        const { job: after, ids } = paste(to, key, copy(job, house));
        expect(ids.map((id) => operationsOf(after, key, id))).toEqual(drawn.map((operation) => [operation]));
      }),
    );
  });

  test('is left to the key that gives it the same meaning, and pinned where it does not', () => {
    const job = jobWith([item(box(0, 0, 10), 'cut'), item(box(20, 0, 10), 'score')]);
    const home = paste(newJob('m', 'house'), house, copy(job, house));
    expect(added(home.job, home.ids).map(({ pinned }) => pinned)).toEqual([null, null]);
    expect(home.unmatched).toEqual([]);
    const away = paste(newJob('m', 'other'), other, copy(job, house));
    expect(added(away.job, away.ids).map(({ pinned }) => pinned)).toEqual(['cut', null]);
    expect(away.unmatched).toEqual([]);
  });

  test('is noted where the job has no layer of that name, and is on the one of its operation', () => {
    const job = jobWith([item(box(0, 0, 10), 'cut'), item(box(20, 0, 10), 'cut')]);
    const { job: after, ids, unmatched } = paste(newJob('m', 'house'), house, copy(job, other));
    expect(unmatched).toMatchObject([{ from: { name: 'Deep' }, to: { name: 'Engrave' }, count: 2 }]);
    expect(operationsOf(after, house, ids[0])).toEqual(['engrave']);
  });

  test('keeps both layers of what is filled and cut, and what was pinned by hand', () => {
    const both = item(box(0, 0, 10), 'engrave', { paint: { stroke: '#D0481E', strokeWidthMm: 0.1, fill: '#5B3FA0' } });
    const job = pinItems(
      jobWith([both, item(box(20, 0, 10), 'cut', { id: 'by-hand' })]),
      new Set(['by-hand']),
      'score',
    );
    for (const [to, key] of [
      [newJob('m', 'house'), house],
      [newJob('m', 'other'), other],
    ] as const) {
      const { job: after, ids } = paste(to, key, copy(job, house));
      expect(operationsOf(after, key, ids[0]).sort()).toEqual(operationsOf(job, house, both.id).sort());
      expect(operationsOf(after, key, ids[1])).toEqual(['score']);
    }
  });

  test('lies where it lay, or so far from there, in groups of its own', () => {
    const drawn = jobWith([item(box(0, 0, 10), 'cut', { id: 'a' }), item(box(20, 5, 10), 'cut', { id: 'b' })]);
    const job = groupItems(groupItems(drawn, new Set(['a']), 'inner', 'Inner'), new Set(['a', 'b']), 'outer', 'Outer');
    const { job: after, ids } = paste(job, house, copy(job, house), 3, -2);
    const [a, b] = added(after, ids);
    expect(boundsOf(a)).toEqual({ minX: 3, minY: -2, maxX: 13, maxY: 8 });
    expect(boundsOf(b)).toEqual({ minX: 23, minY: 3, maxX: 33, maxY: 13 });
    const { items, groups } = after.drawing;
    expect(items.slice(0, 2)).toEqual(job.drawing.items);
    expect(groups).toHaveLength(4);
    const parents = (own: Item) => {
      const path: string[] = [];
      for (let id = own.groupId; id; id = groups.find((group) => group.id === id)?.parentId ?? null) {
        path.push(groups.find((group) => group.id === id)?.name ?? '');
      }
      return path;
    };
    expect([parents(a), parents(b)]).toEqual([['Inner', 'Outer'], ['Outer']]);
    expect(new Set(items.map(({ id }) => id)).size).toBe(4);
    expect(a.groupId).not.toBe(items[0].groupId);
  });

  test('is free of what tied it: not locked, linked or parked; what is hidden stays behind', () => {
    const ties = { link: 'pair', parked: true as const };
    const drawn = jobWith([item(box(0, 0, 10), 'cut', { id: 'a', ...ties }), item(box(20, 0, 10), 'cut', { id: 'b' })]);
    const job = hideItems(lockItems(drawn, new Set(['a']), true), new Set(['b']), true);
    const { job: after, ids } = paste(newJob('m', 'house'), house, copy(job, house));
    expect(ids).toHaveLength(1);
    expect(added(after, ids)[0]).not.toMatchObject({ locked: true });
    for (const name of ['locked', 'link', 'parked']) expect(added(after, ids)[0]).not.toHaveProperty(name);
  });
});

test('text that was not copied here is refused with what is wrong', () => {
  const text = copiedToText(copiedFrom(jobWith([]).drawing, deriveMeaning(jobWith([]), house), new Set()));
  expect(() => copiedFromText(text.slice(0, -5))).toThrow(NotADrawing);
  expect(() => copiedFromText('{"version":2}')).toThrow(/version/);
  expect(() => copiedFromText('{"version":1,"drawing":{"items":[{}],"groups":[]},"layers":[]}')).toThrow(
    /paint is missing/,
  );
});

test('other programs get it as SVG of its own size, each item once', () => {
  const both = item(box(10, 10, 20), 'engrave', { paint: { stroke: '#D0481E', strokeWidthMm: 0.1, fill: '#5B3FA0' } });
  const job = jobWith([both, item(box(40, 10, 20), null)]);
  const svg = copiedAsSvg(copy(job, house));
  expect(svg).toMatch(/width="50mm" height="20mm"/);
  const { drawing } = readSvg(svg, newId);
  expect(drawing.items).toHaveLength(2);
  expect(boundsOfAll(drawing.items)).toEqual({ minX: 0, minY: 0, maxX: 50, maxY: 20 });
});
