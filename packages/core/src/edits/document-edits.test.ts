import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { boundsOf, boundsOfAll, groupsAround, type Item, topGroupOf } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { jobFromJson, jobToJson } from '../document/json.ts';
import { NotADrawing } from '../document/not-a-drawing.ts';
import { box, item, jobWith, line } from '../fixtures/shop.ts';
import { companionsOf, itemAt, itemsWithin } from '../picking/hit.ts';
import { record, redo, startHistory, undo } from './history.ts';
import {
  addItems,
  assignPaint,
  changeSetting,
  chooseLens,
  chooseVariant,
  clearSettings,
  forgetSettings,
  moveItems,
  pinItems,
  removeItems,
  rotateItems,
  scaleItems,
  setSheet,
} from './items.ts';
import { switchLayer } from './layers.ts';

const a = item(box(10, 10, 20), 'cut');
const b = item(box(100, 50, 40, 10), 'engrave');
const job = jobWith([a, b]);
const only = new Set([a.id]);

const edit = fc.oneof(
  fc
    .tuple(fc.double({ min: -99, max: 99, noNaN: true }), fc.double({ min: -99, max: 99, noNaN: true }))
    .map(([x, y]) => ({
      go: (doc: JobDocument) => moveItems(doc, only, x, y),
      back: (doc: JobDocument) => moveItems(doc, only, -x, -y),
    })),
  fc.double({ min: 0.1, max: 10, noNaN: true }).map((factor) => ({
    go: (doc: JobDocument) => scaleItems(doc, only, factor, factor, { x: 3, y: 4 }),
    back: (doc: JobDocument) => scaleItems(doc, only, 1 / factor, 1 / factor, { x: 3, y: 4 }),
  })),
  fc.double({ min: -180, max: 180, noNaN: true }).map((turn) => ({
    go: (doc: JobDocument) => rotateItems(doc, only, turn, { x: 30, y: 40 }),
    back: (doc: JobDocument) => rotateItems(doc, only, -turn, { x: 30, y: 40 }),
  })),
);

describe('edits', () => {
  test('any run of edits is undone by its opposites, and touches nothing else', () => {
    fc.assert(
      fc.property(fc.array(edit, { maxLength: 6 }), (edits) => {
        const there = edits.reduce((doc, { go }) => go(doc), job);
        const back = edits.reduceRight((doc, { back: undoing }) => undoing(doc), there);
        expect(there.drawing.items[1]).toBe(b);
        const [was, is] = [boundsOf(a), boundsOf(back.drawing.items[0])];
        expect(Math.abs(is.minX - was.minX) + Math.abs(is.maxY - was.maxY)).toBeLessThan(1e-6);
      }),
    );
  });

  test('moving, scaling about a point and turning have exact answers', () => {
    const place = (doc: JobDocument) => boundsOf(doc.drawing.items[0]);
    expect(place(moveItems(job, only, 5, -2.5))).toEqual({ minX: 15, minY: 7.5, maxX: 35, maxY: 27.5 });
    expect(place(scaleItems(job, only, 2, 0.5, { x: 10, y: 30 }))).toEqual({ minX: 10, minY: 20, maxX: 50, maxY: 30 });
    expect(place(rotateItems(job, only, 90, { x: 10, y: 10 }))).toEqual({ minX: -10, minY: 10, maxX: 10, maxY: 30 });
    expect(() => scaleItems(job, only, 0, 1, { x: 0, y: 0 })).toThrow(RangeError);
  });

  test('an edit that changes nothing gives the same job back', () => {
    const nobody = new Set(['nobody']);
    for (const same of [
      moveItems(job, only, 0, 0),
      rotateItems(job, only, 360, { x: 0, y: 0 }),
      removeItems(job, nobody),
      pinItems(job, nobody, 'cut'),
      addItems(job, []),
      clearSettings(job),
      assignPaint(job, { part: 'fill', colour: '#000000', widthMm: null }, null),
    ]) {
      expect(same).toBe(job);
    }
  });

  test('removing the last item of a group removes the group, and its parents', () => {
    const groups = [
      { id: 'outer', name: 'Outer', parentId: null },
      { id: 'inner', name: null, parentId: 'outer' },
    ];
    const inside = item(box(0, 0, 5), 'cut', { groupId: 'inner' });
    const grouped = addItems(job, [inside], groups);
    expect(topGroupOf(grouped.drawing, inside)?.id).toBe('outer');
    expect(removeItems(grouped, only).drawing.groups).toHaveLength(2);
    expect(removeItems(grouped, new Set([inside.id])).drawing.groups).toEqual([]);
  });

  test('a setting changed by hand can be handed back', () => {
    const changed = changeSetting(changeSetting(job, 'cut', 'passes', 2), 'cut', 'powerPercent', 50);
    expect(changed.settings).toEqual({ cut: { passes: 2, powerPercent: 50 } });
    expect(changeSetting(changed, 'cut', 'passes', undefined).settings).toEqual({ cut: { powerPercent: 50 } });
    expect(switchLayer(switchLayer(job, 'cut', false), 'cut', true)).toEqual(job);
  });

  test('what was changed by hand on one material goes with it; on others it stays', () => {
    const settings = { cut: { passes: 2 }, 'cut@cork': { passes: 3 }, 'score@card': { passes: 4 } };
    const changed = { ...job, settings };
    const first = job.sheets[0].materialId;
    expect(forgetSettings(changed, first).settings).toEqual({
      'cut@cork': { passes: 3 },
      'score@card': { passes: 4 },
    });
    expect(forgetSettings(changed, 'cork').settings).toEqual({ cut: { passes: 2 }, 'score@card': { passes: 4 } });
    expect(forgetSettings(changed, 'slate')).toBe(changed);
  });

  test('a lens and a recipe of several are chosen, and handed back to the usual ones', () => {
    const chosen = chooseLens(chooseVariant(job, 'cut', 'masked'), 'long');
    expect([chosen.lensId, chosen.variants]).toEqual(['long', { cut: 'masked' }]);
    expect(jobFromJson(JSON.parse(JSON.stringify(jobToJson(chosen))))).toEqual(chosen);
    expect(chooseLens(chooseVariant(chosen, 'cut', ''), null)).toEqual(job);
  });
});

describe('history', () => {
  test('undo restores the very same state, redo the next; a new edit forgets what was undone', () => {
    const moved = moveItems(job, only, 1, 1);
    let history = record(startHistory(job), 'move', moved);
    history = undo(history);
    expect(history.present).toBe(job);
    expect(history.future[0].name).toBe('move');
    history = redo(history);
    expect(history.present).toBe(moved);
    expect(redo(history)).toBe(history);
    const other = record(undo(history), 'other', moveItems(job, only, 2, 2));
    expect(other.future).toEqual([]);
    expect(record(other, 'nothing', other.present)).toBe(other);
  });
});

describe('finding items', () => {
  const frame = item(box(0, 0, 200), 'cut');
  const drawing = jobWith([frame, a, b]).drawing;

  test('the nearest line wins, then the smallest outline around the point', () => {
    expect(itemAt(drawing, 30.5, 20, 1)).toMatchObject({ id: a.id });
    expect(itemAt(drawing, 20, 20, 1)).toMatchObject({ id: a.id });
    expect(itemAt(drawing, 120, 55, 1)).toMatchObject({ id: b.id });
    expect(itemAt(drawing, 60, 150, 1)).toMatchObject({ id: frame.id });
    expect(itemAt(drawing, 300, 300, 1)).toBeNull();
  });

  test('a frame takes what lies in it whole; a group comes as one', () => {
    expect(itemsWithin(drawing, { minX: 5, minY: 5, maxX: 145, maxY: 70 }).map(({ id }) => id)).toEqual([a.id, b.id]);
    const groups = [{ id: 'g', name: null, parentId: null }];
    const [c, d] = [item(box(0, 0, 2), 'cut', { groupId: 'g' }), item(box(5, 5, 2), 'cut', { groupId: 'g' })];
    const grouped = addItems(job, [c, d], groups).drawing;
    expect(companionsOf(grouped, c).map(({ id }) => id)).toEqual([c.id, d.id]);
    expect(companionsOf(grouped, a)).toEqual([a]);
  });

  test('in a group that is open its own groups and items are by themselves', () => {
    const groups = [
      { id: 'inner', name: null, parentId: 'outer' },
      { id: 'outer', name: null, parentId: null },
    ];
    const inner = [item(box(0, 0, 2), 'cut', { groupId: 'inner' }), item(box(5, 5, 2), 'cut', { groupId: 'inner' })];
    const outer = item(box(9, 9, 2), 'cut', { groupId: 'outer' });
    const { drawing } = addItems(jobWith([a]), [...inner, outer], groups);
    const ids = (whose: Item, openId: string | null) => companionsOf(drawing, whose, openId).map(({ id }) => id);
    const innerIds = inner.map(({ id }) => id);
    expect(ids(inner[0], null)).toEqual([...innerIds, outer.id]);
    expect(ids(inner[0], 'outer')).toEqual(innerIds);
    expect(ids(outer, 'outer')).toEqual([outer.id]);
    expect(ids(inner[1], 'inner')).toEqual([innerIds[1]]);
    // What is not in the open group is as it always is.
    expect(ids(outer, 'inner')).toEqual([...innerIds, outer.id]);
    expect(groupsAround(drawing, inner[0]).map(({ id }) => id)).toEqual(['outer', 'inner']);
  });
});

describe('storage', () => {
  test('a job goes to JSON and back unchanged', () => {
    const rich = setSheet(
      assignPaint(
        changeSetting(jobWith([a, b, item(line(0, 0, 1 / 3, 2 / 7), 'score')]), 'cut', 'passes', 3),
        { part: 'stroke', colour: '#123456', widthMm: 0.1 },
        'note',
      ),
      { id: 's2', materialId: 'ply', x: 1, y: 2, width: 3, height: 4, margin: 0 },
    );
    const finer = {
      focusMm: -1.5,
      focusStepMm: 0.5,
      scanAngle: 30,
      bothWays: false,
      runUpMm: null,
      air: 0.8,
      pierceS: 0.2,
      cornerWaitS: 0.1,
      cornerPowerPercent: 5,
    } as const;
    const finest = { ...rich, settings: { cut: finer, score: { air: 'low' as const, runUpMm: 4 } } };
    expect(jobFromJson(JSON.parse(JSON.stringify(jobToJson(finest))))).toEqual(finest);
    expect(jobFromJson(JSON.parse(JSON.stringify(jobToJson(rich))))).toEqual(rich);
    expect(boundsOfAll(jobFromJson(jobToJson(rich)).drawing.items)).toEqual(boundsOfAll(rich.drawing.items));
  });

  interface Loose {
    [name: string]: unknown;
    drawing?: { items: { id: string; paint: { stroke: string }; shape: { coords: unknown[]; verbs: string } }[] };
    sheets: { width: number }[];
  }
  const broken = (change: (json: Required<Loose>) => void) => {
    const json = JSON.parse(JSON.stringify(jobToJson(job)));
    change(json);
    return () => jobFromJson(json);
  };
  test.each<[string, () => unknown]>([
    ['no drawing', broken((json) => void Reflect.deleteProperty(json, 'drawing'))],
    ['coordinates missing', broken((json) => void json.drawing?.items[0].shape.coords.pop())],
    [
      'a coordinate that is no number',
      broken((json) => {
        json.drawing.items[0].shape.coords[0] = null;
      }),
    ],
    [
      'an unknown verb',
      broken((json) => {
        json.drawing.items[0].shape.verbs = 'MXLLZ';
      }),
    ],
    [
      'two items of one id',
      broken((json) => {
        json.drawing.items[1].id = a.id;
      }),
    ],
    [
      'a colour that is none',
      broken((json) => {
        json.drawing.items[0].paint.stroke = 'red';
      }),
    ],
    [
      'a unit that is none',
      broken((json) => {
        json.unit = 'px';
      }),
    ],
    [
      'a sheet without size',
      broken((json) => {
        json.sheets[0].width = 0;
      }),
    ],
  ])('refuses %s', (_, read) => {
    expect(read).toThrow(NotADrawing);
  });

  test.each<[string, (json: Record<string, unknown>) => void]>([
    [
      'job: sheets may hold 1000, and holds 1001',
      (json) => {
        json.sheets = Array.from({ length: 1001 }, () => (json.sheets as unknown[])[0]);
      },
    ],
    [
      'settings of cut: passes must lie between 0 and 1000, and is 1000000000',
      (json) => {
        json.settings = { cut: { passes: 1e9 } };
      },
    ],
    [
      'settings of cut: passes must lie between 0 and 1000, and is -1',
      (json) => {
        json.settings = { cut: { passes: -1 } };
      },
    ],
    [
      'settings of cut: cornerWaitS must lie between 0 and 3600, and is 1000000',
      (json) => {
        json.settings = { cut: { cornerWaitS: 1e6 } };
      },
    ],
  ])('has bounds: %s', (sentence, change) => {
    const json = JSON.parse(JSON.stringify(jobToJson(job)));
    change(json);
    expect(() => jobFromJson(json)).toThrow(sentence);
  });
});
