import { describe, expect, test } from '@jest/globals';
import { boundsOf, type Item, pathOf } from '../document/item.ts';
import { type JobDocument, newJob } from '../document/job.ts';
import { jobFromJson, jobToJson } from '../document/json.ts';
import type { Shape } from '../document/shape.ts';
import { outlineOf, rectangleOf } from '../document/shapes.ts';
import { usualTraceSettings } from '../document/traced.ts';
import { combineItems } from '../edits/combination.ts';
import { amend, record, redo, startHistory, undo } from '../edits/history.ts';
import { addItems, moveItems, pinItems, removeItems, transformItems } from '../edits/items.ts';
import { replaceShape } from '../edits/reshape.ts';
import { setTone } from '../edits/tone.ts';
import { distanceFromLines } from '../fixtures/line-distance.ts';
import { borderAround } from '../geometry/offsets/border.ts';
import { plainOffset } from '../geometry/offsets/offset.ts';
import { flatten } from '../geometry/paths/flatten.ts';
import { rotation, scaling, translation } from '../geometry/paths/matrix.ts';
import { nodeCount, type Path, pathBounds, transformPath } from '../geometry/paths/path.ts';
import {
  changeTraced,
  followedPath,
  followSources,
  freshened,
  offsetOf,
  outlinesOfItems,
  type StaleOutline,
  settleItems,
  staleOutline,
} from './follow.ts';
import {
  addFollowing,
  distanceFrom,
  distancesOf,
  type FollowingPlace,
  type MadeTraced,
  type OffsetWish,
  offsetSources,
  wishedOffsets,
} from './offset-items.ts';
import { plainOffsetOf } from './plain-offset.ts';
import { replacePicture } from './replace-picture.ts';

const square = (id: string, x: number, y: number, size = 10): Item => ({
  id,
  name: null,
  shape: rectangleOf({ minX: x, minY: y, maxX: x + size, maxY: y + size }),
  matrix: translation(0, 0),
  paint: { stroke: '#D0481E', strokeWidthMm: 0.1, fill: null },
  fillRule: 'nonzero',
  groupId: null,
  pinned: null,
  hidden: false,
});
const jobWith = (...items: Item[]) => addItems(newJob('wren', 'house'), items, []);
const wish: OffsetWish = {
  settings: { ...plainOffset, join: 'miter' },
  way: 'out',
  distance: 2,
  count: 1,
  step: 3,
  apart: false,
};
let count = 0;
const placing: FollowingPlace = {
  layerId: null,
  fate: 'stays',
  guideId: 'guide',
  follows: true,
  newId: () => `o${++count}`,
};
const make = (job: JobDocument, ids: string[], more: Partial<OffsetWish> = {}, place: Partial<FollowingPlace> = {}) => {
  const made = wishedOffsets(offsetSources(job, new Set(ids)), { ...wish, ...more }).map((one) => ({
    ...one,
    path: offsetOf(one.sources, one.settings),
  }));
  return addFollowing(job, made, { ...placing, ...place });
};
const itemIn = (job: JobDocument, id: string) => job.drawing.items.find((item) => item.id === id) as Item;
const boxIn = (job: JobDocument, id: string) => boundsOf(itemIn(job, id));
const box = (minX: number, minY: number, maxX: number, maxY: number) => ({ minX, minY, maxX, maxY });

describe('making offsets', () => {
  test('several, each way, from the farthest out to the farthest in', () => {
    expect(distancesOf({ ...wish, way: 'both', count: 3 })).toEqual([2, 5, 8, -2, -5, -8]);
    const { job, ids } = make(jobWith(square('a', 0, 0)), ['a'], { way: 'both', count: 2 });
    // Five inward leaves nothing of ten.
    expect(ids.map((id) => boxIn(job, id))).toEqual([box(-5, -5, 15, 15), box(-2, -2, 12, 12), box(2, 2, 8, 8)]);
    expect(job.drawing.items.map(({ id }) => id)).toEqual([...ids, 'a']);
  });

  test('around all together, or each by itself', () => {
    const job = jobWith(square('a', 0, 0), square('b', 13, 0));
    const together = make(job, ['a', 'b']);
    expect(together.ids.map((id) => boxIn(together.job, id))).toEqual([box(-2, -2, 25, 12)]);
    const apart = make(job, ['a', 'b'], { apart: true });
    expect(apart.ids.map((id) => boxIn(apart.job, id))).toEqual([box(-2, -2, 12, 12), box(11, -2, 25, 12)]);
  });

  test('the source stays, becomes a guide, or goes; the offset is put on a layer', () => {
    const job = jobWith(square('a', 0, 0));
    const guided = make(job, ['a'], {}, { fate: 'guide', layerId: 'score' });
    expect(itemIn(guided.job, 'a').pinned).toBe('guide');
    expect(itemIn(guided.job, guided.ids[0])).toMatchObject({ pinned: 'score', shape: { kind: 'offset' } });
    const gone = make(job, ['a'], {}, { fate: 'goes' });
    expect(gone.job.drawing.items.map(({ id, shape }) => [id, shape.kind])).toEqual([[gone.ids[0], 'rectangle']]);
  });

  test('settled, circles, rectangles and slots are shapes with numbers of their own, on the very same outline', () => {
    const shapes: Shape[] = [
      { kind: 'ellipse', cx: 30, cy: 30, rx: 12, ry: 12 },
      { kind: 'slot', x1: 10, y1: 10, x2: 50, y2: 30, width: 9 },
      { kind: 'rectangle', x: 5, y: 5, width: 40, height: 25, rx: 0, ry: 0 },
      { kind: 'rectangle', x: 5, y: 5, width: 40, height: 25, rx: 4, ry: 4 },
    ];
    const turned = rotation(30, { x: 20, y: 20 });
    for (const shape of shapes) {
      for (const by of [3, -2, -4.4]) {
        for (const join of ['round', 'miter', 'bevel'] as const) {
          const source = { ...square('a', 0, 0), shape, matrix: turned };
          const settings = { ...plainOffset, join, by };
          const plain = plainOffsetOf([source], settings);
          const bevelled = shape.kind === 'rectangle' && shape.rx === 0 && join === 'bevel' && by > 0;
          expect(plain === null).toBe(bevelled);
          if (!plain) continue;
          const [exact, traced] = [pathOf({ ...source, ...plain }), offsetOf([source], settings)];
          const away = distanceFromLines(flatten(exact, 0.0005));
          for (const { points } of flatten(traced, 0.001)) {
            for (let i = 0; i < points.length; i += 2) {
              expect(away(points[i], points[i + 1])).toBeLessThan(0.01);
            }
          }
        }
      }
    }
    expect(plainOffsetOf([{ ...square('a', 0, 0), matrix: scaling(2, 1) }], { ...plainOffset, by: 1 })).toBeNull();
    expect(plainOffsetOf([square('a', 0, 0), square('b', 0, 0)], { ...plainOffset, by: 1 })).toBeNull();
  });

  test('pulled at, the distance is that of the pointer, less than 0 inside', () => {
    const ring: Item = { ...square('a', 0, 0), fillRule: 'evenodd' };
    expect(distanceFrom([ring], { x: 13, y: 5 })).toBeCloseTo(3, 9);
    expect(distanceFrom([ring], { x: 8, y: 5 })).toBeCloseTo(-2, 9);
    expect(distanceFrom([ring, square('b', 20, 0)], { x: 16, y: 5 })).toBeCloseTo(4, 9);
  });

  test('what comes to nothing leaves the job and its source as they are', () => {
    const job = jobWith(square('a', 0, 0));
    expect(make(job, ['a'], { way: 'in', distance: 6 }, { fate: 'goes' })).toEqual({ job, ids: [] });
    expect(make(job, []).job).toBe(job);
  });
});

describe('offsets that follow', () => {
  const edit = (job: JobDocument, change: (job: JobDocument) => JobDocument) => followSources(job, change(job));

  test('when their source is moved or reshaped, through a chain, and not when something else is', () => {
    const one = make(jobWith(square('a', 0, 0), square('z', 50, 0)), ['a']);
    const two = make(one.job, one.ids, { distance: 1 });
    const [near, far] = [one.ids[0], two.ids[0]];
    expect(boxIn(two.job, far)).toEqual(box(-3, -3, 13, 13));
    const moved = edit(two.job, (job) => moveItems(job, new Set(['a']), 5, 0));
    expect([boxIn(moved, near), boxIn(moved, far)]).toEqual([box(3, -2, 17, 12), box(2, -3, 18, 13)]);
    const grown = edit(moved, (job) => replaceShape(job, 'a', [square('a', 0, 0, 20).shape], placing.newId));
    expect(boxIn(grown, far)).toEqual(box(2, -3, 28, 23));
    const pinned = edit(grown, (job) => pinItems(job, new Set(['a']), 'score'));
    expect(itemIn(pinned, near)).toBe(itemIn(grown, near));
    const other = edit(grown, (job) => moveItems(job, new Set(['z']), 5, 0));
    expect(itemIn(other, far)).toBe(itemIn(grown, far));
  });

  test('moved along with their source they are where it puts them; moved alone they stay', () => {
    const { job, ids } = make(jobWith(square('a', 0, 0)), ['a']);
    const both = edit(job, (before) => moveItems(before, new Set(['a', ...ids]), 5, 7));
    expect(boxIn(both, ids[0])).toEqual(box(3, 5, 17, 19));
    const alone = edit(both, (before) => moveItems(before, new Set(ids), 100, 0));
    expect(alone).toBe(both);
    const free = edit(settleItems(alone, new Set(ids)), (before) => moveItems(before, new Set(ids), 100, 0));
    expect(boxIn(free, ids[0])).toEqual(box(103, 5, 117, 19));
    expect(
      boxIn(
        edit(free, (before) => moveItems(before, new Set(['a']), 9, 9)),
        ids[0],
      ),
    ).toEqual(box(103, 5, 117, 19));
  });

  test('a source that goes leaves the others; the last one leaves a plain outline', () => {
    const { job, ids } = make(jobWith(square('a', 0, 0), square('b', 13, 0)), ['a', 'b']);
    const less = edit(job, (before) => removeItems(before, new Set(['b'])));
    expect(boxIn(less, ids[0])).toEqual(box(-2, -2, 12, 12));
    expect(itemIn(less, ids[0]).shape).toMatchObject({ kind: 'offset', sources: ['a'] });
    const none = edit(less, (before) => removeItems(before, new Set(['a'])));
    expect(boxIn(none, ids[0])).toEqual(box(-2, -2, 12, 12));
    expect(itemIn(none, ids[0]).shape.kind).toBe('path');
  });

  test('in a combination they follow too, wherever that lies', () => {
    const { job, ids } = make(jobWith(square('a', 0, 0), square('hole', 4, 4, 2)), ['a']);
    const combined = edit(job, (before) => combineItems(before, new Set([ids[0], 'hole']), 'subtract', 'c'));
    const aside = edit(combined, (before) => moveItems(before, new Set(['c']), 30, 0));
    expect(boxIn(aside, 'c')).toEqual(box(28, -2, 42, 12));
    // What it follows is where it is: the offset within is there too, and its hole stays by it.
    const moved = edit(aside, (before) => moveItems(before, new Set(['a']), 0, 1));
    expect(pathBounds(offsetOf([itemIn(moved, 'a')], { ...plainOffset, join: 'miter', by: 2 })).minY).toBe(-1);
    expect(boxIn(moved, 'c').minY).toBe(-1);
    const unfollowed = edit(moved, (before) => removeItems(before, new Set(['a'])));
    expect(boxIn(unfollowed, 'c').minY).toBe(-1);
  });

  test('a new distance is worked out; undo and redo bring back what was', () => {
    const { job, ids } = make(jobWith(square('a', 0, 0)), ['a']);
    const { shape } = itemIn(job, ids[0]);
    if (shape.kind !== 'offset') throw new Error('no offset');
    const wider = { ...shape, settings: { ...shape.settings, by: 4 } };
    let history = startHistory(job);
    const step = (change: (job: JobDocument) => JobDocument) => {
      history = record(history, 'edit', edit(history.present, change));
    };
    step((before) => replaceShape(before, ids[0], [wider], placing.newId));
    expect(boxIn(history.present, ids[0])).toEqual(box(-4, -4, 14, 14));
    step((before) => moveItems(before, new Set(['a']), 1, 0));
    const last = history.present;
    history = undo(undo(history));
    expect(history.present).toBe(job);
    history = redo(redo(history));
    expect(history.present).toBe(last);
    expect(boxIn(last, ids[0])).toEqual(box(-3, -4, 15, 14));
  });

  test('a border follows too, around what shows of a picture, and is stored', () => {
    const picture: Item = {
      ...square('p', 0, 0),
      shape: {
        kind: 'picture',
        pictureId: 'x',
        width: 100,
        height: 100,
        visible: outlineOf(square('v', 20, 20, 30).shape),
      },
      matrix: scaling(0.5, 0.5),
    };
    const settings = { by: 2, bridgeGap: 0, bridgeWidth: 4, inletWidth: 0, innerRadius: 0, loop: null };
    const job = jobWith({ ...picture, shape: { ...picture.shape, visible: undefined } as Item['shape'] });
    const path = borderAround(outlinesOfItems([picture]), settings).path;
    const { job: made, ids } = addFollowing(job, [{ kind: 'border', sources: [picture], settings, path }], placing);
    expect(boxIn(made, ids[0])).toEqual(box(8, 8, 27, 27));
    const moved = edit(made, (before) => moveItems(before, new Set(['p']), 5, 0));
    expect(boxIn(moved, ids[0])).toEqual(box(13, 8, 32, 27));
    const back = jobFromJson(JSON.parse(JSON.stringify(jobToJson(moved))));
    expect(back.drawing).toEqual(moved.drawing);
    const looped = JSON.parse(
      JSON.stringify(jobToJson(moved)).replace('"loop":null', '"loop":{"u":0,"v":0,"holeMm":3}'),
    );
    expect(() => jobFromJson(looped)).toThrow(/loop: rimMm/);
  });

  describe('outlines of a picture', () => {
    const picture: Item = {
      ...square('p', 0, 0),
      shape: { kind: 'picture', pictureId: 'x', width: 100, height: 100 },
      matrix: scaling(0.5, 0.5),
    };
    const found = (size: number) => outlineOf(square('f', 20, 20, size).shape);
    const inMm = (path: Path, item: Item) => transformPath(path, item.matrix);
    const traced: MadeTraced = {
      kind: 'traced',
      sources: [picture],
      settings: usualTraceSettings,
      path: inMm(found(30), picture),
    };
    const start = () => addFollowing(jobWith(picture), [traced], { ...placing, layerId: 'cut' });

    test('go where it goes, turned and scaled too, and are stored', () => {
      const { job, ids } = start();
      expect(boxIn(job, ids[0])).toEqual(box(10, 10, 25, 25));
      const moved = edit(job, (before) => moveItems(before, new Set(['p']), 5, 0));
      expect(boxIn(moved, ids[0])).toEqual(box(15, 10, 30, 25));
      const twice = edit(moved, (before) => transformItems(before, new Set(['p']), scaling(2, 3)));
      expect(boxIn(twice, ids[0])).toEqual(box(30, 30, 60, 75));
      expect(jobFromJson(JSON.parse(JSON.stringify(jobToJson(twice)))).drawing).toEqual(twice.drawing);
    });

    test('are found anew with other settings, and what is offset from them goes along', () => {
      const { job, ids } = start();
      const offset = make(job, ids);
      expect(boxIn(offset.job, offset.ids[0])).toEqual(box(8, 8, 27, 27));
      const settings = { ...usualTraceSettings, isOuterOnly: true };
      const again = { settings, path: found(40), widthsPx: [4] };
      const changed = edit(offset.job, (before) => changeTraced(before, ids[0], again, picture));
      expect(changed.drawing.items.find(({ id }) => id === ids[0])?.shape).toMatchObject({ settings, widthsPx: [4] });
      expect(boxIn(changed, ids[0])).toEqual(box(10, 10, 30, 30));
      expect(boxIn(changed, offset.ids[0])).toEqual(box(8, 8, 32, 32));
    });

    test('stay as they are where another picture takes the place of theirs, whose tone stays', () => {
      const { job, ids } = start();
      const toned = setTone(job, new Set(['p']), { contrast: 20 });
      const instead = { pictureId: 'straight', width: 9, height: 7, matrix: translation(40, 50) };
      const { items } = edit(toned, (before) => replacePicture(before, 'p', instead)).drawing;
      const [traced, straight] = [items.find(({ id }) => id === ids[0]), items.find(({ id }) => id === 'p')];
      expect(traced?.shape.kind).toBe('path');
      expect(boundsOf(traced as Item)).toEqual(boundsOf(job.drawing.items.find(({ id }) => id === ids[0]) as Item));
      expect(straight?.shape).toEqual({
        kind: 'picture',
        pictureId: 'straight',
        width: 9,
        height: 7,
        tone: { contrast: 20 },
      });
      expect(boundsOf(straight as Item)).toEqual({ minX: 40, minY: 50, maxX: 49, maxY: 57 });
    });

    test('stay as they are once settled, or once the picture is gone', () => {
      const { job, ids } = start();
      const settledJob = edit(job, (before) => settleItems(before, new Set(ids)));
      const moved = edit(settledJob, (before) => moveItems(before, new Set(['p']), 5, 0));
      expect(boxIn(moved, ids[0])).toEqual(box(10, 10, 25, 25));
      const gone = edit(job, (before) => removeItems(before, new Set(['p'])));
      expect(gone.drawing.items.map(({ id, shape }) => [id, shape.kind])).toEqual([[ids[0], 'path']]);
      expect(boxIn(gone, ids[0])).toEqual(box(10, 10, 25, 25));
    });
  });

  test('what follows many nodes is marked, and put right from elsewhere, unless its source has changed again', () => {
    const { job, ids } = make(jobWith(square('a', 0, 0)), ['a']);
    const move = (before: JobDocument) => moveItems(before, new Set(['a']), 5, 0);
    const waiting = followSources(job, move(job), 3);
    const stale = staleOutline(waiting) as StaleOutline;
    expect([stale.item.id, stale.sources.map(({ id }) => id)]).toEqual([ids[0], ['a']]);
    expect(boxIn(waiting, ids[0])).toEqual(boxIn(job, ids[0]));
    expect(jobFromJson(JSON.parse(JSON.stringify(jobToJson(waiting)))).drawing).toEqual(waiting.drawing);
    const path = followedPath(stale.item.shape, stale.sources);
    const fresh = freshened(waiting, stale, path);
    expect(boxIn(fresh, ids[0])).toEqual(box(3, -2, 17, 12));
    expect([staleOutline(fresh), staleOutline(job)]).toEqual([null, null]);
    const again = followSources(waiting, move(waiting), 3);
    expect(freshened(again, stale, path)).toBe(again);
    // Few nodes are followed at once, and are not stale any more.
    expect(staleOutline(followSources(waiting, move(waiting)))).toBeNull();
    // Settled while it waits, or with its source removed, it is worked out first.
    expect(boxIn(settleItems(waiting, new Set(ids)), ids[0])).toEqual(box(3, -2, 17, 12));
    const alone = { ...waiting, drawing: { ...waiting.drawing, items: [itemIn(waiting, ids[0])] } };
    expect(boxIn(followSources(waiting, alone), ids[0])).toEqual(box(3, -2, 17, 12));
    let history = record(startHistory(job), 'move', waiting);
    history = amend(history, fresh);
    expect([history.present, undo(history).present, redo(undo(history)).present]).toEqual([fresh, job, fresh]);
  });

  test('copies are settled where they are put', () => {
    const { job, ids } = make(jobWith(square('a', 0, 0)), ['a']);
    const copied = edit(job, (before) =>
      addItems(before, [{ ...itemIn(before, ids[0]), id: 'copy', matrix: translation(40, 0) }], []),
    );
    expect(itemIn(copied, 'copy').shape.kind).toBe('path');
    expect(boxIn(copied, 'copy')).toEqual(box(38, -2, 52, 12));
  });

  test('a ring of them, as only a file can have it, comes to an end', () => {
    const { job, ids } = make(jobWith(square('a', 0, 0)), ['a']);
    const ring = (before: JobDocument) =>
      replaceShape(before, 'a', [{ ...itemIn(before, ids[0]).shape, sources: ids } as Item['shape']], placing.newId);
    expect(edit(ring(job), (before) => moveItems(before, new Set(['a']), 1, 0)).drawing.items).toHaveLength(2);
  });

  test('are stored with what they follow', () => {
    const { job, ids } = make(jobWith(square('a', 0, 0)), ['a']);
    const back = jobFromJson(JSON.parse(JSON.stringify(jobToJson(job))));
    expect(itemIn(back, ids[0])).toEqual(itemIn(job, ids[0]));
    expect(nodeCount(offsetOf([itemIn(back, 'a')], { ...plainOffset, join: 'miter', by: 2 }))).toBe(4);
    const broken = JSON.parse(JSON.stringify(jobToJson(job)).replace('"miter"', '"pointed"'));
    expect(() => jobFromJson(broken)).toThrow(/join must be round, miter, bevel/);
  });
});
