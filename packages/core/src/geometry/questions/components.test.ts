import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { Components } from './components.ts';

test('things are together where a chain of pairs joins them, and only there', () => {
  const pair = fc.tuple(fc.integer({ min: 0, max: 19 }), fc.integer({ min: 0, max: 19 }));
  fc.assert(
    fc.property(fc.array(pair, { maxLength: 25 }), (pairs) => {
      const components = new Components(20);
      for (const [a, b] of pairs) components.join(a, b);
      const found = components.list();
      // By flooding from each thing along the pairs.
      const reached = (from: number) => {
        const seen = new Set([from]);
        for (let before = -1; before !== seen.size; ) {
          before = seen.size;
          for (const [a, b] of pairs) if (seen.has(a) || seen.has(b)) seen.add(a).add(b);
        }
        return [...seen].sort((a, b) => a - b);
      };
      for (const component of found) for (const i of component) expect(component).toEqual(reached(i));
      expect(found.flat().sort((a, b) => a - b)).toEqual(Array.from({ length: 20 }, (_, i) => i));
      expect(found.map(([first]) => first)).toEqual(found.map(([first]) => first).sort((a, b) => a - b));
    }),
  );
});

test('of nothing there are none, and no number of things is refused by name', () => {
  expect(new Components(0).list()).toEqual([]);
  for (const count of [-1, 1.5, Number.NaN]) expect(() => new Components(count)).toThrow(`got ${count}`);
});
