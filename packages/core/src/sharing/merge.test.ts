import { describe, expect, test } from '@jest/globals';
import { operationColourKey } from '../colours/key.ts';
import { type Item, topGroupOf } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { firstRun } from '../document/run.ts';
import { box, item, jobWith, line, rule, shop } from '../fixtures/shop.ts';
import { prepareJob } from '../plan/prepare.ts';
import { apartReason } from './apart.ts';
import { mergeJobs, type SharedPart } from './merge.ts';

/** A key under which black lines are scored, and everything else that is a line is cut. */
const otherKey = {
  ...operationColourKey('other', 'Other key'),
  rules: [rule({ colour: '#000000', layerId: 'score' }), rule({}), rule({ part: 'fill', layerId: 'engrave' })],
};
const lists = { ...shop, keys: [...shop.keys, otherKey] };
const black = { stroke: '#000000', strokeWidthMm: 0.1, fill: null };
const [sheet] = jobWith([]).sheets;

const part = (job: JobDocument, more: Partial<SharedPart> = {}): SharedPart => ({
  name: 'Job',
  job,
  copies: 1,
  ...more,
});

/** Of which job an item is, counted from 0. */
const partOf = ({ id }: Item) => Number(/^part-(\d+)-/.exec(id)?.[1]) - 1;

/** What each item burns with, by its id: operation, settings, halves of its paint, and how its layer is filled and ordered. */
function burning(job: JobDocument): Map<string, string[]> {
  const found = new Map<string, string[]>();
  for (const { layer, placed, applied, burning, burns } of prepareJob(job, lists).layers) {
    for (const { item, parts } of burns ? placed : []) {
      const what = JSON.stringify([layer.operation, applied.settings, [...parts].sort(), burning]);
      found.set(item.id, [...(found.get(item.id) ?? []), what].sort());
    }
  }
  return found;
}

/** The same of a merged job on a sheet, for one of its jobs, by the ids that its items had there; of halves, together. */
function burningOfPart(parts: readonly SharedPart[], wanted: number): Map<string, string[]> {
  const job = { ...mergeJobs(parts, lists), sheets: [sheet] };
  const all = burning(job);
  const found = new Map<string, string[]>();
  for (const drawn of job.drawing.items) {
    if (partOf(drawn) !== wanted) continue;
    const id = drawn.id.replace(/^part-\d+-\d+:/, '').replace(/\+\d+$/, '');
    found.set(id, [...(found.get(id) ?? []), ...(all.get(drawn.id) ?? [])].sort());
  }
  return found;
}

describe('jobs that are merged', () => {
  const both = item(box(10, 10, 40), 'cut', { paint: { stroke: '#112233', strokeWidthMm: 0.1, fill: '#445566' } });
  const plain = jobWith([
    item(box(0, 0, 50), 'cut'),
    item(box(5, 5, 20), 'engrave'),
    item(line(5, 30, 40, 30), 'score'),
  ]);
  const byOther = { ...jobWith([item(box(0, 0, 30), null, { paint: black }), both]), keyId: 'other' };

  test('burn as they do alone, under another key, with settings, variants and filling of their own', () => {
    const slower = {
      ...plain,
      settings: { cut: { speedMmPerS: 4 } },
      burning: { engrave: { overlaps: 'unite' as const } },
    };
    const all = [plain, byOther, slower].map((job) => part(job));
    all.forEach(({ job }, i) => {
      expect(burningOfPart(all, i)).toEqual(burning(job));
    });
    // The first job's key puts what is black elsewhere; so it would not be the same by its colour.
    expect(burning({ ...byOther, keyId: 'house' })).not.toEqual(burning(byOther));
  });

  test('what is on two layers by hand is so again, and is no longer where its colour would put it', () => {
    const twice = item(box(0, 0, 60), 'score', { pinned: 'engrave', also: 'cut' });
    const all = [part(plain), part(jobWith([twice]))];
    expect(burningOfPart(all, 1)).toEqual(burning(jobWith([twice])));
  });

  test('share the layers that burn alike, and have others besides', () => {
    const slower = { ...plain, settings: { cut: { speedMmPerS: 4 } } };
    const { layers, settings } = mergeJobs([part(plain), part(slower), part(slower)], lists);
    expect(layers.map(({ operation }) => operation)).toEqual(['cut']);
    expect(Object.values(settings)).toEqual([{ speedMmPerS: 4 }]);
    expect(mergeJobs([part(plain), part(plain)], lists).layers).toEqual([]);
  });

  test('stay a group each, copy by copy, with the groups and links within', () => {
    const [a, b] = [1, 2].map(() => item(box(0, 0, 10), 'cut', { groupId: 'inner', link: 'same' }));
    const job = jobWith([]);
    const grouped = { ...job, drawing: { items: [a, b], groups: [{ id: 'inner', name: 'Pair', parentId: null }] } };
    const { drawing } = mergeJobs([part(plain), part(grouped, { name: 'Tags', copies: 2 })], lists);
    expect(drawing.groups.map(({ name, parentId }) => [name, parentId])).toEqual([
      ['Job', null],
      ['Tags, 1 of 2', null],
      ['Pair', 'part-2-1'],
      ['Tags, 2 of 2', null],
      ['Pair', 'part-2-2'],
    ]);
    expect(drawing.items.map(partOf)).toEqual([0, 0, 0, 1, 1, 1, 1]);
    expect(new Set(drawing.items.map(({ id }) => id)).size).toBe(7);
    const links = drawing.items.slice(3).map(({ link }) => link);
    expect(links[0]).toBe(links[1]);
    expect(links[2]).toBe(links[3]);
    expect(links[0]).not.toBe(links[2]);
  });

  test('stay in their group where one of theirs lies in a group that is gone', () => {
    const lost = item(box(0, 0, 10), 'cut', { groupId: 'inner' });
    const job = jobWith([]);
    const broken = { ...job, drawing: { items: [lost], groups: [{ id: 'inner', name: 'Lost', parentId: 'gone' }] } };
    const { drawing } = mergeJobs([part(broken), part(jobWith([{ ...lost, groupId: 'gone' }]))], lists);
    expect(drawing.items.map((drawn) => topGroupOf(drawing, drawn)?.id)).toEqual(['part-1-1', 'part-2-1']);
  });

  test('keep tabs, starts, numbers and flips of every copy', () => {
    const [edge, art] = [item(box(0, 0, 50), 'cut'), item(box(10, 10, 20), 'engrave')];
    const job = {
      ...jobWith([edge, art]),
      tabs: [{ itemId: edge.id, subpath: 0, at: [0.5] }],
      starts: [{ itemId: edge.id, subpath: 0, at: 2 }],
      numbered: [edge.id],
      flips: [{ id: 'flip', itemIds: [art.id], borderId: edge.id, insetMm: 1 }],
    };
    const merged = mergeJobs([part(job, { copies: 2 })], lists);
    const edges = merged.drawing.items.filter(({ id }) => id.endsWith(edge.id)).map(({ id }) => id);
    expect(edges).toHaveLength(2);
    expect(merged.tabs.map(({ itemId }) => itemId)).toEqual(edges);
    expect(merged.starts.map(({ itemId }) => itemId)).toEqual(edges);
    expect(merged.numbered).toEqual(edges);
    expect(merged.flips.map(({ borderId }) => borderId)).toEqual(edges);
    expect(merged.flips.map(({ itemIds }) => itemIds[0].endsWith(art.id))).toEqual([true, true]);
  });

  test('leave behind what burns in none of their runs', () => {
    const guide = item(box(0, 0, 5), null);
    const hidden = item(box(0, 0, 5), 'cut', { hidden: true });
    expect(mergeJobs([part(jobWith([guide, hidden, item(box(0, 0, 9), 'cut')]))], lists).drawing.items).toHaveLength(1);
  });

  test('are some at least', () => {
    expect(() => mergeJobs([], lists)).toThrow(RangeError);
  });
});

describe('why a job burns alone', () => {
  const job = jobWith([item(box(0, 0, 9), 'cut')]);

  test.each<[string, JobDocument, ReturnType<typeof apartReason>]>([
    ['nothing', job, null],
    ['two sheets of one material', { ...job, sheets: [sheet, { ...sheet, id: 't', x: 510 }] }, null],
    ['no sheet', { ...job, sheets: [] }, 'stock'],
    ['two materials', { ...job, sheets: [sheet, { ...sheet, id: 't', materialId: 'bare' }] }, 'stock'],
    [
      'a sheet of its own for a run',
      { ...job, runs: [firstRun, { ...firstRun, id: 'b', landing: { kind: 'sheet', sheetId: 's', x: 0, y: 0 } }] },
      null,
    ],
    ['a run with its back up', { ...job, runs: [{ ...firstRun, mirrored: true }] }, 'runs'],
    ['a run of some layers', { ...job, runs: [{ ...firstRun, off: ['cut'] }] }, 'runs'],
    ['a run of some items', { ...job, runs: [{ ...firstRun, only: [] }] }, 'runs'],
    [
      'a run on stock that was turned over',
      { ...job, runs: [firstRun, { ...firstRun, id: 'b', stock: 'turned over' }] },
      'runs',
    ],
    [
      'a run by two points',
      { ...job, runs: [{ ...firstRun, landing: { kind: 'marks', marks: [], isScaled: false } }] },
      'runs',
    ],
  ])('%s', (_, described, reason) => {
    expect(apartReason(described)).toBe(reason);
  });

  test('a test card', () => {
    const card = { id: 'c' } as JobDocument['cards'][number];
    expect(apartReason({ ...job, cards: [card] })).toBe('cards');
  });
});
