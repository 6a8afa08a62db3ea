import { describe, expect, test } from '@jest/globals';
import type { Item } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { jobFromJson, jobToJson } from '../document/json.ts';
import { acceptFinding, takeBackAccepted } from '../edits/accepted.ts';
import { moveItems, parkItems, pinItems, removeItems, scaleItems } from '../edits/items.ts';
import { box, item, jobWith, line, shop } from '../fixtures/shop.ts';
import { acceptArrival } from '../formats/arrive.ts';
import type { Reading } from '../formats/reading.ts';
import { identity } from '../geometry/paths/matrix.ts';
import { mended } from '../mends/mend.ts';
import { planJob } from '../plan/plan.ts';
import { prepareJob } from '../plan/prepare.ts';
import { aboutOf, acceptedOf } from './accept.ts';
import { blocks, checkJob } from './check.ts';
import type { Finding } from './finding.ts';

function found(job: JobDocument): Finding[] {
  const prepared = prepareJob(job, shop);
  return checkJob(prepared, planJob(prepared));
}
const get = (job: JobDocument, code: Finding['code']) => {
  const [finding] = found(job).filter((known) => known.code === code);
  if (!finding) throw new Error(`${code} is not found`);
  return finding;
};
const acceptedIn = (job: JobDocument, code: Finding['code']) => get(job, code).accepted;
const accepting = (job: JobDocument, code: Finding['code'], reason = 'as it is') =>
  acceptFinding(job, acceptedOf(get(job, code), job, reason));

describe('a finding that is accepted', () => {
  const twice: Item[] = [item(box(20, 20, 30), 'cut'), item(box(20, 20, 30), 'cut'), item(box(100, 100, 10), 'cut')];
  const job = accepting(jobWith(twice), 'line-drawn-twice', 'cut twice on purpose');
  const ids = new Set(get(job, 'line-drawn-twice').itemIds);
  test('stays listed with why, and is stored', () => {
    expect(acceptedIn(job, 'line-drawn-twice')).toBe('cut twice on purpose');
    const again = jobFromJson(JSON.parse(JSON.stringify(jobToJson(job))));
    expect(again.accepted).toEqual(job.accepted);
    expect(acceptedIn(again, 'line-drawn-twice')).toBe('cut twice on purpose');
  });
  test('stays accepted while what it is about stays as it is, wherever it lies', () => {
    const other = twice.filter(({ id }) => !ids.has(id)).map(({ id }) => id);
    expect(acceptedIn(removeItems(job, new Set(other)), 'line-drawn-twice')).toBe('cut twice on purpose');
    expect(acceptedIn(moveItems(job, ids, 40, 3), 'line-drawn-twice')).toBe('cut twice on purpose');
  });
  test.each<[string, (job: JobDocument) => JobDocument]>([
    ['another size', (now) => scaleItems(now, ids, 1.1, 1.1, { x: 20, y: 20 })],
    ['another layer', (now) => pinItems(now, ids, 'score')],
    [
      'one more of them',
      (now) => ({ ...now, drawing: { ...now.drawing, items: [...now.drawing.items, item(box(20, 20, 30), 'cut')] } }),
    ],
  ])('comes back with %s', (_, change) => {
    expect(acceptedIn(change(job), 'line-drawn-twice')).toBeUndefined();
  });
  test('is taken back', () => {
    const about = new Set([aboutOf(get(job, 'line-drawn-twice'), job)]);
    expect(acceptedIn(takeBackAccepted(job, about), 'line-drawn-twice')).toBeUndefined();
    expect(takeBackAccepted(job, new Set(['another']))).toBe(job);
  });
  test('has one reason: the last', () => {
    const again = accepting(job, 'line-drawn-twice', 'better said');
    expect(again.accepted).toHaveLength(1);
    expect(acceptedIn(again, 'line-drawn-twice')).toBe('better said');
  });
});

test('what is about a place comes back elsewhere', () => {
  const near = jobWith([item(box(1, 20, 30), 'cut')]);
  const job = accepting(near, 'into-margin');
  expect(acceptedIn(job, 'into-margin')).toBe('as it is');
  expect(
    acceptedIn(moveItems(job, new Set(near.drawing.items.map(({ id }) => id)), 0, 1), 'into-margin'),
  ).toBeUndefined();
});

test('what blocks has to be mended', () => {
  const job = jobWith([item(box(-10, 20, 30), 'cut')]);
  expect(() => acceptedOf(get(job, 'off-bed'), job, 'no')).toThrow(RangeError);
});

describe('beside the bed', () => {
  const [kept, spare, over] = [
    item(box(20, 20, 30), 'cut'),
    item(box(-60, 20, 30), 'engrave'),
    item(box(-10, 80, 30), 'cut'),
  ];
  const job = jobWith([kept, spare]);
  test('is parked by its mend: not burnt, not exported as burnt, said, and nothing blocks', () => {
    expect(blocks(found(job))).toBe(true);
    const park = get(job, 'off-bed').mends?.find(({ words }) => words === 'Park beside the bed');
    const parked = park ? mended(job, park) : job;
    const prepared = prepareJob(parked, shop);
    expect([...prepared.parked]).toEqual([spare.id]);
    expect(prepared.layers.flatMap(({ placed }) => placed.map((entry) => entry.item.id))).toEqual([kept.id]);
    expect(blocks(found(parked))).toBe(false);
    expect(get(parked, 'parked').message).toContain('1 item is parked beside the bed');
    const back = get(parked, 'parked').mends?.[0];
    expect(back ? prepareJob(mended(parked, back), shop).parked.size : 1).toBe(0);
  });
  test('on the bed, or over its edge, what was parked burns again', () => {
    const parked = parkItems(job, new Set([spare.id, kept.id]), true);
    expect([...prepareJob(parked, shop).parked]).toEqual([spare.id]);
    const edge = moveItems(parked, new Set([spare.id]), 45, 0);
    expect(prepareJob(edge, shop).parked.size).toBe(0);
    expect(get(edge, 'off-bed').itemIds).toEqual([spare.id]);
  });
  test('of what lies over the edge nothing is parked', () => {
    const words = (get(jobWith([over]), 'off-bed').mends ?? []).map((mend) => mend.words);
    expect(words).not.toContain('Park beside the bed');
    const both = get(jobWith([over, spare, kept]), 'off-bed').mends?.map((mend) => mend.words);
    expect(both).toContain('Park the one beside the bed');
  });
  test('nothing but parked things: nothing burns, and that blocks', () => {
    const parked = parkItems(jobWith([spare]), new Set([spare.id]), true);
    expect(found(parked).map(({ code }) => code)).toContain('nothing-to-burn');
  });
});

describe('what was decided of a file', () => {
  const cut = item(box(20, 20, 30), 'cut');
  const reading: Reading = {
    format: 'svg',
    drawing: { items: [cut], groups: [] },
    pictures: [],
    size: { pageWidthMm: null, pageHeightMm: null, mmPerUnit: 1, from: '', sure: false, others: [] },
    notes: [
      {
        code: 'gradient-as-mean',
        kind: 'changed',
        message: 'A gradient is taken as its mean colour.',
        count: 3,
        itemIds: [cut.id],
      },
      { code: 'point', kind: 'left-out', message: 'A point was left out.', count: 1, itemIds: [] },
      { code: 'picture', kind: 'taken', message: 'A picture is taken.', count: 1, itemIds: [] },
    ],
    pageCount: 1,
  };
  const empty = jobWith([item(line(200, 200, 220, 200), 'score')]);
  const arrival = { id: 'a', file: 'sign.svg', originalId: null, choices: {}, place: identity };
  const job = acceptArrival(empty, arrival, reading, prepareJob(empty, shop).key);
  const decided = (now: JobDocument) => found(now).filter(({ code }) => code === 'decided');
  test('stays with the job until it is accepted, whatever becomes of the drawing', () => {
    expect(decided(job).map(({ message, itemIds }) => [message, itemIds])).toEqual([
      ['sign.svg: A gradient is taken as its mean colour (3 times).', [cut.id]],
      ['sign.svg: A point was left out.', []],
    ]);
    const accepted = acceptFinding(job, acceptedOf(decided(job)[0], job, 'yes'));
    expect(decided(accepted).map((finding) => finding.accepted)).toEqual(['yes', undefined]);
    const emptied = removeItems(accepted, new Set([cut.id]));
    expect(decided(emptied).map((finding) => finding.accepted)).toEqual(['yes', undefined]);
    expect(decided(jobFromJson(JSON.parse(JSON.stringify(jobToJson(emptied)))))).toEqual(decided(emptied));
  });
});
