import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { boundsOfAll } from '../document/item.ts';
import { changeRun, switchLayer } from '../edits/layers.ts';
import { box, item, jobWith, line, shop } from '../fixtures/shop.ts';
import { prepareJob } from './prepare.ts';
import { walkAround } from './walk.ts';

const square = item(box(10, 20, 30, 40), 'cut');
const stroke = item(line(100, 50, 120, 90), 'score');
const note = item(box(300, 300, 10, 10), 'note');
const around = (shape: Parameters<typeof walkAround>[1], job = jobWith([square, stroke, note])) =>
  walkAround(prepareJob(job, shop), shape).map((way) => way.map(({ x, y }) => [x, y]));

describe('a walk', () => {
  test('around the rectangle goes along the box of what burns, and back to where it began', () => {
    expect(around('rectangle')).toEqual([
      [
        [10, 20],
        [120, 20],
        [120, 90],
        [10, 90],
        [10, 20],
      ],
    ]);
  });

  test('around the hull cuts the corners that nothing reaches', () => {
    const [way] = around('hull');
    expect(way).toHaveLength(6);
    expect(new Set(way.map(String))).toEqual(new Set(['10,20', '40,20', '100,50', '120,90', '10,60'].map(String)));
    expect(way[0]).toEqual(way.at(-1));
  });

  test('along the outlines goes through each once, closed ones all around', () => {
    const ways = around('outlines');
    expect(ways.map(({ length }) => length).sort()).toEqual([2, 5]);
    const closed = ways.find(({ length }) => length === 5) ?? [];
    expect(closed[0]).toEqual(closed[4]);
    expect(new Set(closed.map(String))).toEqual(new Set(['10,20', '40,20', '40,60', '10,60']));
  });

  test('leaves out layers that are off, and what never burns; where nothing is left there is no way', () => {
    const job = jobWith([square, stroke, note]);
    expect(around('rectangle', switchLayer(job, 'score', false))[0][2]).toEqual([40, 60]);
    expect(around('hull', jobWith([note]))).toEqual([]);
  });

  test('goes where the run lands', () => {
    const job = jobWith([square]);
    const landing = { kind: 'stock', u: 1, v: 1, inset: 5 } as const;
    const { width, height, x, y } = job.sheets[0];
    const [way] = around('rectangle', changeRun(job, job.runs[0].id, { landing }));
    expect(way[2]).toEqual([x + width - 5, y + height - 5]);
  });

  test('of any squares, the hull holds all of them and stays within their box', () => {
    const spot = fc.tuple(
      fc.integer({ min: 0, max: 300 }),
      fc.integer({ min: 0, max: 200 }),
      fc.integer({ min: 1, max: 40 }),
    );
    fc.assert(
      fc.property(fc.array(spot, { minLength: 1, maxLength: 6 }), (spots) => {
        const items = spots.map(([x, y, r]) => item(box(x, y, r), 'cut'));
        const [way] = around('hull', jobWith(items));
        const { minX, minY, maxX, maxY } = boundsOfAll(items);
        const isInside = way.every(
          ([x, y]) => x > minX - 0.01 && x < maxX + 0.01 && y > minY - 0.01 && y < maxY + 0.01,
        );
        // A hull is gone round one way: no corner turns back.
        const turns = way.slice(1, -1).map(([x, y], i) => {
          const [[ax, ay], [bx, by]] = [way[i], way[i + 2]];
          return (x - ax) * (by - y) - (y - ay) * (bx - x);
        });
        return isInside && turns.every((turn) => turn >= -0.01);
      }),
    );
  });
});
