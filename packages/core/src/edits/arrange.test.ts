import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { boundsOf, boundsOfAll, type Item, topGroupOf } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { jobFromJson, jobToJson } from '../document/json.ts';
import { box, item, jobWith } from '../fixtures/shop.ts';
import { boxOf } from '../geometry/paths/box.ts';
import { translation } from '../geometry/paths/matrix.ts';
import { itemAt } from '../picking/hit.ts';
import {
  alignItems,
  groupItems,
  lockItems,
  mirrorItems,
  orderItems,
  placeFrom,
  spreadItems,
  ungroupItems,
} from './arrange.ts';
import { type CopyLinks, copyItems, gridMaps, gridThatFits, releaseLinks, ringMaps } from './repeat.ts';

const a = item(box(10, 10, 20), 'cut');
const b = item(box(50, 40, 10, 30), 'cut');
const c = item(box(100, 5, 40, 10), 'cut');
const job = jobWith([a, b, c]);
const ids = (...items: Item[]) => new Set(items.map(({ id }) => id));
const all = ids(a, b, c);
const lefts = (one: JobDocument) => one.drawing.items.map((i) => boundsOf(i).minX);
let made = 0;
const newId = () => `n${++made}`;

describe('aligning and spreading', () => {
  test('to a piece that stays put, to a box, by each line', () => {
    expect(lefts(alignItems(job, all, 'left', boundsOf(b), ids(b)))).toEqual([50, 50, 50]);
    expect(lefts(alignItems(job, all, 'right', boxOf(0, 0, 200, 100)))).toEqual([180, 190, 160]);
    const middles = alignItems(job, all, 'middle', boundsOf(c), ids(c)).drawing.items.map(
      (i) => (boundsOf(i).minY + boundsOf(i).maxY) / 2,
    );
    expect(middles).toEqual([10, 10, 10]);
  });

  test('spread with a typed gap, and between the outermost', () => {
    expect(lefts(spreadItems(job, all, 'x', 'gap', 3.5))).toEqual([10, 33.5, 47]);
    expect(lefts(spreadItems(job, all, 'x', 'gap', null))).toEqual([10, 60, 100]);
    expect(lefts(spreadItems(job, all, 'x', 'centres', 50))).toEqual([10, 65, 100]);
    expect(spreadItems(job, ids(a), 'x', 'gap', 5)).toBe(job);
  });

  test('a corner so far from a point', () => {
    const placed = placeFrom(job, ids(a), { u: 1, v: 0 }, { x: 100, y: 5 }, { x: -4, y: 2 });
    expect(boundsOf(placed.drawing.items[0])).toEqual({ minX: 76, minY: 7, maxX: 96, maxY: 27 });
  });
});

test('mirrored twice is nothing, about any line', () => {
  const number = fc.double({ min: -200, max: 200, noNaN: true });
  fc.assert(
    fc.property(number, number, number, (x, y, degrees) => {
      const once = mirrorItems(job, all, { x, y }, degrees);
      const twice = mirrorItems(once, all, { x, y }, degrees);
      twice.drawing.items.forEach((one, i) => {
        one.matrix.forEach((value, k) => {
          expect(value).toBeCloseTo(job.drawing.items[i].matrix[k], 6);
        });
      });
    }),
  );
  expect(lefts(mirrorItems(job, all, { x: 100, y: 0 }, 90)).map((x) => x.toFixed(6))).toEqual([
    '170.000000',
    '140.000000',
    '60.000000',
  ]);
});

describe('groups, locks, order', () => {
  test('grouping moves nothing, nests whole groups, and comes apart again', () => {
    const once = groupItems(job, ids(a, b), 'g', 'Pair');
    const twice = groupItems(once, all, 'h', null);
    expect(boundsOfAll(twice.drawing.items)).toEqual(boundsOfAll(job.drawing.items));
    expect(twice.drawing.items.every((one) => topGroupOf(twice.drawing, one)?.id === 'h')).toBe(true);
    expect(twice.drawing.groups.find(({ id }) => id === 'g')?.parentId).toBe('h');
    const apart = ungroupItems(twice, ids(c));
    expect(apart.drawing.groups.map(({ id }) => id)).toEqual(['g']);
    expect(ungroupItems(ungroupItems(apart, ids(a)), ids(a)).drawing.groups).toEqual([]);
    // An item taken out of a group that stays leaves the rest of it there.
    expect(groupItems(once, ids(b, c), 'k', null).drawing.items.map(({ groupId }) => groupId)).toEqual(['g', 'k', 'k']);
  });

  test('what is locked is not hit, and stays locked when stored', () => {
    const locked = lockItems(job, ids(a), true);
    expect(itemAt(locked.drawing, 12, 12, 1)).toBeNull();
    expect(jobFromJson(JSON.parse(JSON.stringify(jobToJson(locked)))).drawing.items[0].locked).toBe(true);
    expect(lockItems(locked, ids(a), false).drawing.items[0]).toEqual(a);
  });

  test('forward and back by one and all the way', () => {
    const order = (one: JobDocument) => one.drawing.items.map((i) => 'abc'[[a.id, b.id, c.id].indexOf(i.id)]).join('');
    expect(order(orderItems(job, ids(a), 'forward'))).toBe('bac');
    expect(order(orderItems(job, ids(a), 'front'))).toBe('bca');
    expect(order(orderItems(job, ids(c), 'backward'))).toBe('acb');
    expect(order(orderItems(job, ids(b, c), 'back'))).toBe('bca');
    expect(orderItems(job, ids(a), 'back')).toBe(job);
  });
});

describe('copies', () => {
  test('rows with exact gaps', () => {
    const maps = gridMaps(boundsOf(a), { columns: 5, rows: 1, gapX: 3.5, gapY: 0, brick: false });
    const { job: row, copies } = copyItems(job, ids(a), maps, newId);
    expect(copies).toHaveLength(4);
    const xs = row.drawing.items
      .filter((one) => one.id === a.id || copies.flat().includes(one.id))
      .map((one) => boundsOf(one).minX);
    expect(xs).toEqual([10, 33.5, 57, 80.5, 104]);
    expect(gridMaps(boundsOf(a), { columns: 2, rows: 2, gapX: 0, gapY: 1, brick: true })[1]).toEqual([
      1, 0, 0, 1, 10, 21,
    ]);
  });

  test('as many as fit lie inside, and one more would not', () => {
    const size = fc.double({ min: 1, max: 80, noNaN: true });
    fc.assert(
      fc.property(size, size, fc.double({ min: 0, max: 9, noNaN: true }), fc.boolean(), (w, h, gap, brick) => {
        const within = boxOf(3, 3, 300, 200);
        const bounds = boxOf(5, 5, w, h);
        const grid = gridThatFits(bounds, within, gap, gap, brick);
        const shift = brick && grid.rows > 1 ? (w + gap) / 2 : 0;
        expect(5 + grid.columns * (w + gap) - gap + shift).toBeLessThanOrEqual(within.maxX + 1e-6);
        expect(5 + grid.rows * (h + gap) - gap).toBeLessThanOrEqual(within.maxY + 1e-6);
        expect(5 + (grid.columns + 1) * (w + gap) - gap + shift).toBeGreaterThan(within.maxX - 1e-6);
        expect(5 + (grid.rows + 1) * (h + gap) - gap).toBeGreaterThan(within.maxY - 1e-6);
      }),
    );
  });

  test('around a point, turned or upright', () => {
    const maps = ringMaps(boundsOf(a), { count: 4, centre: { x: 0, y: 0 }, sweep: 360, turned: true });
    expect(maps).toHaveLength(3);
    const { job: ring, copies } = copyItems(job, ids(a), maps, newId);
    const half = ring.drawing.items.find(({ id }) => id === copies[1][0]) as Item;
    expect(boundsOf(half)).toEqual({ minX: -30, minY: -30, maxX: -10, maxY: -10 });
    const upright = ringMaps(boundsOf(a), { count: 3, centre: { x: 0, y: 20 }, sweep: 90, turned: false });
    expect(upright.map(([p, q]) => [p, q])).toEqual([
      [1, 0],
      [1, 0],
    ]);
  });

  test('of groups are groups of their own; linked ones are released one by one', () => {
    const grouped = groupItems(job, ids(a, b), 'g', 'Pair');
    const { job: two, copies } = copyItems(grouped, ids(a, b), [[1, 0, 0, 1, 0, 100]], newId, 'all');
    const homes = copies[0].map((id) => two.drawing.items.find((one) => one.id === id)?.groupId);
    expect(new Set(homes).size).toBe(1);
    expect(homes[0]).not.toBe('g');
    const links = () => new Set(two.drawing.items.flatMap(({ link }) => (link ? [link] : [])));
    expect(links().size).toBe(2);
    const free = releaseLinks(two, new Set(copies[0]));
    expect(free.drawing.items.filter(({ link }) => link).map(({ id }) => id)).toEqual([a.id, b.id]);
  });

  test('are linked by choice: all, none, or those of what is linked', () => {
    const first = copyItems(job, ids(a), [translation(0, 50)], newId, 'all');
    const linkOf = (made: JobDocument, id: string) => made.drawing.items.find((one) => one.id === id)?.link;
    const link = linkOf(first.job, a.id);
    expect(link).toBeDefined();
    const copied = (links?: CopyLinks) => {
      const { job: next, copies } = copyItems(first.job, ids(a, b), [translation(0, 90)], newId, links);
      return copies[0].map((id) => linkOf(next, id));
    };
    expect(copied()).toEqual([link, undefined]);
    expect(copied('none')).toEqual([undefined, undefined]);
    expect(copied('all')).toEqual([link, expect.any(String)]);
    expect(linkOf(copyItems(first.job, ids(a, b), [translation(0, 90)], newId, 'none').job, a.id)).toBe(link);
  });
});
