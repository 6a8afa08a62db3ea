import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { JobDocument } from '../document/job.ts';
import { assignPaint, hideItems, moveItems, pinItems, removeItems } from '../edits/items.ts';
import { box, item, jobWith, line, rule, shop } from '../fixtures/shop.ts';
import { operationOf, operations } from '../operations/operations.ts';
import { deriveMeaning, extentOf } from './derive.ts';
import { type ColourKey, colourDistance, layerByKey, operationColourKey, type Rule } from './key.ts';

const [key] = shop.keys;
const keyOf = (...rules: Rule[]): ColourKey => ({ id: 'k', name: 'K', layers: [], rules });
const stroke = (colour: string, widthMm = 0.1) => ({ part: 'stroke' as const, colour, widthMm });

describe('rules', () => {
  test('the first rule that fits decides', () => {
    const both = keyOf(rule({ colour: '#FF0000', layerId: 'score' }), rule({ layerId: 'cut' }));
    expect(layerByKey(both, stroke('#FF0000'))).toBe('score');
    expect(layerByKey(both, stroke('#00FF00'))).toBe('cut');
    expect(layerByKey(both, { part: 'fill', colour: '#FF0000', widthMm: null })).toBeNull();
  });

  test('tolerance is as colours look, and ends where it says', () => {
    const red = keyOf(rule({ colour: '#D0481E', tolerance: 3 }));
    const near = colourDistance('#D0481E', '#CC4A22');
    expect(near).toBeGreaterThan(0.5);
    expect(near).toBeLessThan(3);
    expect(layerByKey(red, stroke('#CC4A22'))).toBe('cut');
    expect(layerByKey(red, stroke('#1D6FD1'))).toBeNull();
    // A pair published with CIEDE2000, here by way of sRGB black and white.
    expect(colourDistance('#000000', '#FFFFFF')).toBeCloseTo(100, 3);
  });

  test('a width range takes both its ends', () => {
    const hairline = keyOf(rule({ minWidthMm: 0.05, maxWidthMm: 0.1 }));
    expect([0.04, 0.05, 0.1, 0.11].map((width) => layerByKey(hairline, stroke('#000000', width)))).toEqual([
      null,
      'cut',
      'cut',
      null,
    ]);
  });

  test('the key of operation colours reads each of them, as stroke and as fill', () => {
    for (const operation of operations) {
      const { colour } = operationOf(operation);
      expect(layerByKey(operationColourKey('x', 'X'), stroke(colour))).toBe(operation);
      expect(layerByKey(operationColourKey('x', 'X'), { part: 'fill', colour, widthMm: null })).toBe(operation);
    }
  });
});

describe('meaning', () => {
  const cut = item(box(0, 0, 10), 'cut');
  const hole = item(box(2, 2, 5), 'cut');
  const strange = item(line(0, 0, 30, 40), null);
  const both = item(box(50, 50, 10), 'cut', {
    paint: { stroke: operationOf('cut').colour, strokeWidthMm: 0.1, fill: operationOf('engrave').colour },
  });
  const job = jobWith([cut, hole, strange, both]);

  test('paints are counted and measured, and the undecided named', () => {
    const { paints, undecided, placed } = deriveMeaning(job, key);
    expect(extentOf([cut, hole, both])).toEqual({ lengthMm: 100, areaMm2: 225 });
    expect(extentOf([both])).toEqual({ lengthMm: 40, areaMm2: 100 });
    expect(paints).toEqual([
      {
        ...stroke('#D0481E'),
        layerId: 'cut',
        byJob: false,
        itemIds: [cut.id, hole.id, both.id],
      },
      { ...stroke('#123456'), layerId: null, byJob: false, itemIds: [strange.id] },
      {
        part: 'fill',
        colour: '#5B3FA0',
        widthMm: null,
        layerId: 'engrave',
        byJob: false,
        itemIds: [both.id],
      },
    ]);
    expect(undecided).toEqual([strange]);
    expect(placed.get('engrave')).toEqual([{ item: both, parts: ['fill'] }]);
  });

  test('after any edit it is what it would be if it were worked out afresh', () => {
    const edits: ((job: JobDocument, ids: ReadonlySet<string>) => JobDocument)[] = [
      (job, ids) => moveItems(job, ids, 3, 4),
      (job, ids) => hideItems(job, ids, true),
      (job, ids) => pinItems(job, ids, 'note'),
      (job, ids) => removeItems(job, ids),
      (job) => assignPaint(job, stroke('#D0481E'), 'score'),
    ];
    const steps = fc.array(fc.tuple(fc.nat(edits.length - 1), fc.subarray([cut.id, hole.id, strange.id, both.id])), {
      maxLength: 6,
    });
    fc.assert(
      fc.property(steps, (chosen) => {
        let edited = job;
        for (const [which, ids] of chosen) {
          edited = edits[which](edited, new Set(ids));
          const afresh = {
            ...edited,
            drawing: { ...edited.drawing, items: edited.drawing.items.map((one) => ({ ...one })) },
          };
          const kept = deriveMeaning(edited, key);
          expect(kept).toEqual(deriveMeaning({ ...afresh, layers: [...afresh.layers] }, key));
          deriveMeaning(edited, key);
        }
      }),
    );
  });

  test('a hole is no area', () => {
    const ring = item(
      {
        verbs: Uint8Array.from([...box(0, 0, 1).verbs, ...box(0, 0, 1).verbs]),
        coords: Float64Array.from([...box(0, 0, 10).coords, ...box(2, 2, 5).coords]),
      },
      'engrave',
    );
    expect(extentOf([ring])).toEqual({ areaMm2: 75, lengthMm: 60 });
  });

  test('the job’s own word goes over the key, a pin over both; each can be taken back', () => {
    const said = assignPaint(job, stroke('#D0481E'), 'score');
    expect(
      deriveMeaning(said, key)
        .placed.get('score')
        ?.map(({ item: placed }) => placed),
    ).toEqual([cut, hole, both]);
    expect(deriveMeaning(said, key).paints[0].byJob).toBe(true);
    expect(deriveMeaning(assignPaint(said, stroke('#D0481E'), null), key)).toEqual(deriveMeaning(job, key));
    const pinned = deriveMeaning(pinItems(said, new Set([strange.id]), 'note'), key);
    expect(pinned.undecided).toEqual([]);
    expect(pinned.placed.get('note')?.[0].item.id).toBe(strange.id);
  });

  test('every item is on a layer or undecided, whatever the rules', () => {
    const rules = fc.array(
      fc.record({
        part: fc.constantFrom('stroke' as const, 'fill' as const),
        colour: fc.constantFrom(null, ...operations.map((operation) => operationOf(operation).colour), '#123456'),
        tolerance: fc.nat(20),
        minWidthMm: fc.constantFrom(null, 0.1, 1),
        maxWidthMm: fc.constantFrom(null, 0.1, 1),
        layerId: fc.constantFrom('cut', 'score', 'note', 'no-such-layer'),
      }),
      { maxLength: 5 },
    );
    fc.assert(
      fc.property(rules, (list) => {
        const { placed, undecided } = deriveMeaning(job, keyOf(...list));
        const seen = new Set([...undecided, ...[...placed.values()].flat().map(({ item: one }) => one)]);
        expect(seen.size).toBe(job.drawing.items.length);
      }),
    );
  });
});
