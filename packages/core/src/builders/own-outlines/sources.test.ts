import { describe, expect, test } from '@jest/globals';
import type { BuiltThing } from '../../document/built.ts';
import { boundsOf, type Item, pathOf } from '../../document/item.ts';
import { jobFromJson, jobToJson } from '../../document/json.ts';
import { changeItems, removeItems } from '../../edits/items.ts';
import { box, item, jobWith, line } from '../../fixtures/shop.ts';
import { flatten, signedArea } from '../../geometry/paths/flatten.ts';
import { guessedFits } from '../../recipes/book/figures.ts';
import { answerOf, followBuilt } from '../follow.ts';
import { settleParts } from '../put-down.ts';
import { edgeJoint } from './edge-joint.ts';
import { giveBack, joinOutlines, type Sources, sourcesFrom, sourcesOf } from './sources.ts';

const builder = edgeJoint as unknown as Parameters<typeof sourcesFrom>[1];
const shelf = item(box(10, 10, 100, 60), 'cut', { id: 'shelf', name: 'Shelf' });
const side = item(box(130, 10, 80, 200), 'cut', { id: 'side', name: 'Side' });

function taken(...items: readonly Item[]): Sources {
  const found = sourcesFrom(items, builder);
  if (!found.ok) throw new Error(found.message);
  return found.sources;
}

/** Shelf and side on a sheet, joined by two tabs. */
function joinedJob(numbers: BuiltThing['numbers'] = { first: 3, second: 4, fit: 'typed', play: 0 }) {
  const sources = taken(shelf, side);
  const { outlines } = sources;
  const thing: BuiltThing = {
    id: 'thing',
    builder: edgeJoint.id,
    numbers,
    thicknessMm: 3,
    plays: guessedFits,
    outlines,
  };
  const answer = answerOf(thing);
  if (!answer?.ok) throw new Error('The joint is not made.');
  return joinOutlines(jobWith([shelf, side]), thing, 'Joint', answer.built, sources);
}

const named = (job: { drawing: { items: readonly Item[] } }, id: string) =>
  job.drawing.items.find((entry) => entry.id === id) as Item;
const areaOf = (entry: Item) => flatten(pathOf(entry)).reduce((sum, ring) => sum + Math.abs(signedArea(ring)), 0);

describe('outlines that a builder works on', () => {
  test('are taken about their middles, by their names', () => {
    const { outlines, places, itemIds } = taken(shelf, { ...side, name: null });
    expect(itemIds).toEqual(['shelf', 'side']);
    expect(outlines.map(({ name }) => name)).toEqual(['Shelf', 'Second part']);
    expect(places.map((place) => place?.slice(4))).toEqual([
      [60, 40],
      [170, 110],
    ]);
    expect([...outlines[0].path.coords].slice(0, 2)).toEqual([-50, -30]);
  });

  test.each<[string, readonly Item[], string]>([
    ['one alone', [shelf], 'It takes 2 closed outlines, each a part. Now there is 1.'],
    [
      'an open line',
      [shelf, item(line(0, 0, 9, 9), 'cut', { name: 'Line' })],
      '“Line” is not closed: a part has an outline all around. Close it under Mend.',
    ],
    [
      'a part of something else',
      [shelf, { ...side, part: { thingId: 'other', partId: 'front', what: 'cut' } }],
      '“Side” is made from numbers already. Settle it first: then it is an outline like any other.',
    ],
  ])('%s is refused', (_, items, message) => {
    expect(sourcesFrom(items, builder)).toEqual({ ok: false, message });
  });
});

describe('a joint of two outlines', () => {
  test('makes them its parts: the same items, in a group, where they were', () => {
    const job = joinedJob();
    expect(job.drawing.items.map(({ id, name, groupId }) => [id, name, groupId])).toEqual([
      ['shelf', 'Shelf', 'thing'],
      ['side', 'Side', 'thing'],
    ]);
    expect(boundsOf(named(job, 'shelf'))).toEqual({ minX: 10, minY: 10, maxX: 110, maxY: expect.closeTo(73, 9) });
    expect(boundsOf(named(job, 'side'))).toEqual({ minX: 130, minY: 10, maxX: 210, maxY: 210 });
  });

  test('is kept with its outlines, and read again', () => {
    const job = joinedJob();
    expect(jobFromJson(JSON.parse(JSON.stringify(jobToJson(job)))).built).toEqual(job.built);
  });

  test('follows its stock, and stays where it was moved to', () => {
    const job = joinedJob();
    const moved = changeItems(job, new Set(['shelf']), (entry) => ({ ...entry, matrix: [0, 1, -1, 0, 300, 200] }));
    let made = 0;
    const thicker = followBuilt(
      moved,
      moved,
      () => 4,
      () => `new-${++made}`,
    );
    expect(thicker.built[0].thicknessMm).toBe(4);
    expect(named(thicker, 'shelf').matrix).toEqual([0, 1, -1, 0, 300, 200]);
    // Two tabs of 15 mm are a millimetre longer.
    expect(areaOf(named(thicker, 'shelf')) - areaOf(named(moved, 'shelf'))).toBeCloseTo(30, 6);
    expect(thicker.drawing.items).toHaveLength(2);
  });

  test('knows where its outlines lie, and which of them was deleted', () => {
    const job = joinedJob();
    const moved = changeItems(job, new Set(['side']), (entry) => ({ ...entry, matrix: [1, 0, 0, 1, 9, 8] }));
    const without = removeItems(moved, new Set(['shelf']));
    expect(sourcesOf(without, job.built[0])).toEqual({
      itemIds: ['side'],
      outlines: job.built[0].outlines,
      places: [null, [1, 0, 0, 1, 9, 8]],
    });
  });

  test('is settled, or gives its outlines back where they lie', () => {
    const job = joinedJob();
    const settled = settleParts(job, new Set(['shelf', 'side']));
    expect(settled.built).toEqual([]);
    expect(areaOf(named(settled, 'shelf'))).toBe(areaOf(named(job, 'shelf')));
    const back = giveBack(job, 'thing');
    expect(back.built).toEqual([]);
    expect(back.drawing.items.map((entry) => [entry.part, boundsOf(entry)])).toEqual([
      [undefined, boundsOf(shelf)],
      [undefined, boundsOf(side)],
    ]);
    expect(giveBack(back, 'thing')).toBe(back);
  });
});
