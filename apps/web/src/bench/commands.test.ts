import { describe, expect, test } from '@jest/globals';
import { boundsOf, cardLayerId, pathOf, polylinesOf } from '@lambent/core/document';
import { lockItems, moveItems, pinItems, replaceShape } from '@lambent/core/edits';
import { boxCentre, signedArea, translation } from '@lambent/core/geometry';
import fc from 'fast-check';
import {
  addCopies,
  align,
  alignTarget,
  combine,
  deleteSelection,
  duplicate,
  group,
  lock,
  mirror,
  order,
  selectAll,
  spread,
  takeApart,
  toPoints,
  ungroup,
  unlink,
} from './commands.ts';
import { benchWith, square } from './fixtures/bench.ts';
import { join, roundAgain, simplify } from './mend-lines.ts';
import type { BenchActions } from './state/bench-state.ts';
import { jobOf } from './state/document.ts';
import { selectionBox } from './state/hand.ts';

const itemsOf = (actions: BenchActions) => jobOf(actions.get()).drawing.items;
const boxes = (actions: BenchActions) =>
  itemsOf(actions).map((item) => {
    const { minX, minY, maxX, maxY } = boundsOf(item);
    return [minX, minY, maxX, maxY].map((mm) => Math.round(mm * 1e6) / 1e6);
  });
const lastEdit = (actions: BenchActions) => actions.get().history.past.at(-1)?.name;
const area = (actions: BenchActions, id: string) => {
  const item = itemsOf(actions).find((one) => one.id === id);
  return item ? Math.abs(polylinesOf(item).reduce((sum, outline) => sum + signedArea(outline), 0)) : Number.NaN;
};

/** Three squares of 10, 20 and 30 mm, all selected. */
function three() {
  const { actions } = benchWith(square(10, 10, 10) + square(30, 12, 20) + square(90, 15, 30));
  const ids = itemsOf(actions).map(({ id }) => id);
  actions.select(ids);
  return { actions, ids };
}

describe('every command', () => {
  const commands: [string, (actions: BenchActions) => unknown][] = [
    ['duplicate', duplicate],
    ['group', group],
    ['lock', lock],
    ['mirror across', (actions) => mirror(actions, 90)],
    ['mirror over 30°', (actions) => mirror(actions, 30)],
    ['align left', (actions) => align(actions, 'left', 'bed')],
    ['spread evenly', (actions) => spread(actions, 'x', 'gap', 4)],
    ['unite', (actions) => combine(actions, 'unite')],
    ['turn to points', toPoints],
  ];

  test.each(commands)('%s is one step back by that name', async (name, run) => {
    const { actions } = three();
    const before = jobOf(actions.get());
    await run(actions);
    expect(jobOf(actions.get())).not.toBe(before);
    expect(lastEdit(actions)).toBe(name);
    actions.undo();
    expect(jobOf(actions.get())).toBe(before);
  });

  test('with nothing selected changes nothing', () => {
    const { actions } = three();
    actions.select([]);
    const before = jobOf(actions.get()).drawing;
    for (const run of [duplicate, group, ungroup, lock, toPoints, takeApart]) run(actions);
    align(actions, 'left', 'bed');
    spread(actions, 'x', 'gap', 3);
    expect(jobOf(actions.get()).drawing.items).toEqual(before.items);
  });
});

describe('copies', () => {
  test('a duplicate goes where the last move went, and the next one on from there', () => {
    const { actions, ids } = three();
    actions.select([ids[0]]);
    actions.rememberMove(7, -2);
    duplicate(actions);
    duplicate(actions);
    expect(boxes(actions).slice(3)).toEqual([
      [17, 8, 27, 18],
      [24, 6, 34, 16],
    ]);
    expect([...actions.get().selection]).toEqual([itemsOf(actions)[4].id]);
  });

  test('a duplicate of another thing, or after an undo, goes the usual step', () => {
    const { actions, ids } = three();
    actions.select([ids[0]]);
    actions.rememberMove(7, -2);
    actions.select([ids[1]]);
    duplicate(actions);
    expect(boxes(actions)[3]).toEqual([40, 22, 60, 42]);
    actions.select([ids[0]]);
    actions.edit('move', (job) => moveItems(job, new Set([ids[0]]), 7, -2));
    actions.rememberMove(7, -2);
    actions.undo();
    duplicate(actions);
    expect(boxes(actions)[4]).toEqual([20, 20, 30, 30]);
  });

  test('everything is selected but what is hidden, locked or part of a test card; a card alone where it is all there is', () => {
    const { actions, ids } = three();
    const onCard = (id: string) => actions.edit('lay', (job) => pinItems(job, new Set([id]), cardLayerId('c1', 'a1')));
    onCard(ids[1]);
    selectAll(actions);
    expect([...actions.get().selection]).toEqual([ids[0], ids[2]]);
    actions.edit('lock', (job) => lockItems(job, new Set([ids[0]]), true));
    selectAll(actions);
    expect([...actions.get().selection]).toEqual([ids[2]]);
    onCard(ids[2]);
    selectAll(actions);
    expect([...actions.get().selection]).toEqual([ids[1], ids[2]]);
  });

  test('linked copies change together, until they are released', () => {
    const { actions, ids } = three();
    const widths = () => boxes(actions).map(([minX, , maxX]) => maxX - minX);
    const widen = (width: number) =>
      actions.edit('widen', (job) => {
        const [{ shape }] = job.drawing.items;
        return shape.kind === 'rectangle' ? replaceShape(job, ids[0], [{ ...shape, width }], () => 'new') : job;
      });
    actions.select([ids[0]]);
    addCopies(actions, 'copies', [[1, 0, 0, 1, 0, 40]], 'all', true);
    expect(actions.get().selection.size).toBe(2);
    widen(14);
    expect(widths()).toEqual([14, 20, 30, 14]);
    unlink(actions);
    widen(16);
    expect(widths()).toEqual([16, 20, 30, 14]);
  });

  test('more copies than a drawing can hold are not made, and nothing is changed', () => {
    const { actions, ids } = three();
    actions.select(ids);
    const before = jobOf(actions.get());
    const { selection } = actions.get();
    addCopies(actions, 'copies', Array(70_000).fill(translation(1, 0)));
    expect(jobOf(actions.get())).toBe(before);
    expect(actions.get().selection).toBe(selection);
  });
});

describe('mirrored', () => {
  test('twice over the same line is nothing, whatever the line', () => {
    fc.assert(
      fc.property(fc.integer({ min: -180, max: 180 }), fc.integer({ min: 0, max: 200 }), (degrees, x) => {
        const { actions } = three();
        const before = boxes(actions);
        mirror(actions, degrees, { x, y: 50 });
        mirror(actions, degrees, { x, y: 50 });
        expect(boxes(actions)).toEqual(before);
      }),
      { numRuns: 30 },
    );
  });

  test('over a line through its own middle it stays in its place', () => {
    const { actions } = three();
    const before = selectionBox(actions.get());
    mirror(actions, 90);
    expect(boxCentre(selectionBox(actions.get())).x).toBeCloseTo(boxCentre(before).x, 9);
    expect(boxes(actions).map(([minX]) => minX)).toEqual([110, 80, 10]);
  });
});

describe('aligned and spread', () => {
  test('the piece that stays put does not move, and the rest comes to it', () => {
    const { actions, ids } = three();
    actions.holdStill(ids[1]);
    expect([...alignTarget(actions.get(), 'stays').staying]).toEqual([ids[1]]);
    align(actions, 'middle', 'stays');
    expect(boxes(actions).map(([, minY, , maxY]) => (minY + maxY) / 2)).toEqual([22, 22, 22]);
    expect(boxes(actions)[1]).toEqual([30, 12, 50, 32]);
  });

  test('all of it is aligned to a sheet and the bed as one, or piece by piece', () => {
    const { actions } = three();
    const before = boxes(actions);
    align(actions, 'right', 'bed');
    expect(Math.max(...boxes(actions).map(([, , maxX]) => maxX))).toBe(600);
    expect(boxes(actions).map(([minX]) => minX - boxes(actions)[0][0])).toEqual(
      before.map(([minX]) => minX - before[0][0]),
    );
    align(actions, 'right', 'bed', true);
    expect(boxes(actions).map(([, , maxX]) => maxX)).toEqual([600, 600, 600]);
    const { box } = alignTarget(actions.get(), 'sheet:s');
    align(actions, 'top', 'sheet:s', true);
    expect(boxes(actions).map(([, minY]) => minY)).toEqual([box.minY, box.minY, box.minY]);
  });

  test('what is locked is what the rest is aligned to, and nothing else changes it', () => {
    const { actions, ids } = three();
    const [, locked] = boxes(actions);
    actions.edit('lock', (job) => lockItems(job, new Set([ids[1]]), true));
    align(actions, 'left', 'selection');
    expect(boxes(actions).map(([minX]) => minX)).toEqual([locked[0], locked[0], locked[0]]);
    expect(boxes(actions)[1]).toEqual(locked);
    const after = jobOf(actions.get());
    align(actions, 'left', 'bed', true);
    deleteSelection(actions);
    addCopies(actions, 'copies', [translation(5, 5)], 'all');
    expect(jobOf(actions.get())).toBe(after);
    // A copy that is a thing of its own leaves it as it is.
    duplicate(actions);
    expect(
      jobOf(actions.get())
        .drawing.items.filter((item) => item.locked)
        .map(({ id }) => id),
    ).toEqual([ids[1]]);
    expect(jobOf(actions.get()).drawing.items).toHaveLength(6);
    selectAll(actions);
    expect(actions.get().selection.has(ids[1])).toBe(false);
    expect(actions.get().selection.size).toBe(5);
  });

  test('by a gap, from centre to centre, and evenly between the outer two', () => {
    const { actions } = three();
    spread(actions, 'x', 'gap', 3.5);
    expect(boxes(actions).map(([minX, , maxX]) => [minX, maxX])).toEqual([
      [10, 20],
      [23.5, 43.5],
      [47, 77],
    ]);
    spread(actions, 'x', 'centres', 40);
    expect(boxes(actions).map(([minX, , maxX]) => (minX + maxX) / 2)).toEqual([15, 55, 95]);
    const outer = [boxes(actions)[0], boxes(actions)[2]];
    spread(actions, 'x', 'gap', null);
    expect([boxes(actions)[0], boxes(actions)[2]]).toEqual(outer);
    const [a, b, c] = boxes(actions);
    expect(b[0] - a[2]).toBeCloseTo(c[0] - b[2], 6);
  });
});

describe('order', () => {
  test('to the front and to the back, and nothing else changes its order', () => {
    const { actions, ids } = three();
    const [a, b, c] = ids;
    actions.select([a]);
    order(actions, 'front');
    expect(itemsOf(actions).map(({ id }) => id)).toEqual([b, c, a]);
    order(actions, 'back');
    expect(itemsOf(actions).map(({ id }) => id)).toEqual([a, b, c]);
  });
});

describe('put together', () => {
  const pair = () => {
    const { actions } = benchWith(square(0, 0, 20) + square(10, 10, 20));
    actions.select(itemsOf(actions).map(({ id }) => id));
    return actions;
  };

  test.each([
    ['unite', 700],
    ['subtract', 300],
    ['intersect', 100],
    ['exclude', 600],
  ] as const)('%s leaves the area it should', async (how, left) => {
    const actions = pair();
    await combine(actions, how);
    const [id] = [...actions.get().selection];
    expect(itemsOf(actions)).toHaveLength(1);
    expect(area(actions, id)).toBeCloseTo(left, 6);
  });

  test('the parts come back where they were when it is taken apart', async () => {
    const actions = pair();
    const before = boxes(actions);
    await combine(actions, 'subtract');
    takeApart(actions);
    expect(boxes(actions)).toEqual(before);
  });

  test('a group is taken apart to what it was, and was never moved', () => {
    const actions = pair();
    const before = itemsOf(actions);
    group(actions);
    expect(jobOf(actions.get()).drawing.groups).toHaveLength(1);
    expect(boxes(actions)).toEqual(before.map((item) => Object.values(boundsOf(item))));
    ungroup(actions);
    expect(itemsOf(actions)).toEqual(before);
    expect(jobOf(actions.get()).drawing.groups).toEqual([]);
  });
});

describe('mended', () => {
  const line = (d: string) => `<path d="${d}" fill="none" stroke="#D0481E" stroke-width="0.1"/>`;
  const lines = (...ways: string[]) => {
    const { actions } = benchWith(ways.map(line).join(''));
    actions.select(itemsOf(actions).map(({ id }) => id));
    return actions;
  };

  test('ends that meet become one line, and the words say how wide the gaps were', () => {
    const actions = lines('M0 0H10', 'M10.05 0H20', 'M25 0H30');
    expect(join(actions, 0.1)).toBe('1 gap closed, the widest 0.050 mm. 4 ends stay open; the nearest gap is 5.00 mm.');
    expect(itemsOf(actions)).toHaveLength(2);
    expect(join(actions, 0.1)).toMatch(/^No ends lie that near\./);
  });

  test('points that say nothing go, and how many is said', () => {
    const actions = lines('M0 0L5 0L10 0L10 10');
    expect(simplify(actions, 0.01)).toBe('4 points before, 3 now.');
    expect(simplify(actions, 0.01)).toBe('It has no fewer points within 0.01 mm: 3.');
  });

  test('a circle that came as short lines is an arc again', () => {
    const points = Array.from({ length: 73 }, (_, i) => {
      const angle = (i * 5 * Math.PI) / 180;
      return `${50 + 20 * Math.cos(angle)} ${50 + 20 * Math.sin(angle)}`;
    });
    const actions = lines(`M${points.join('L')}Z`, 'M0 0L9 4');
    const before = pathOf(itemsOf(actions)[0]).verbs.length;
    expect(roundAgain(actions, 0.05)).toMatch(/^\d+ arcs? found\.$/);
    expect(pathOf(itemsOf(actions)[0]).verbs.length).toBeLessThan(before / 4);
    const { minX, maxX } = boundsOf(itemsOf(actions)[0]);
    expect(maxX - minX).toBeCloseTo(40, 1);
    actions.undo();
    actions.edit('move', (job) => moveItems(job, actions.get().selection, 1, 0));
    actions.select([itemsOf(actions)[1].id]);
    expect(roundAgain(actions, 0.05)).toBe('Nothing there lies on a circle within 0.05 mm.');
  });
});
