import { expect, test } from '@jest/globals';
import type { ColourKey } from '@lambent/core/colours';
import { keyWidths } from './key-widths.ts';

const rule = (part: 'stroke' | 'fill', minWidthMm: number | null, maxWidthMm: number | null) => ({
  part,
  colour: null,
  tolerance: 0,
  minWidthMm,
  maxWidthMm,
  layerId: 'cut',
});
const widths = (...rules: ColourKey['rules'][number][]) => keyWidths({ rules });

test('the thicknesses to choose from are those that the key’s rules ask for, then the usual ones', () => {
  expect(widths()).toEqual([0.1, 0.3, 0.5, 1, 2, 3]);
  expect(widths(rule('stroke', null, 0.2), rule('stroke', 0.3, 0.7), rule('stroke', 1.2, null))).toEqual([
    0.1, 0.2, 0.3, 0.5, 1, 1.2,
  ]);
  // A fill has no thickness, and a line that may be of any asks for none.
  expect(widths(rule('fill', 0.4, 0.4), rule('stroke', null, null), rule('stroke', 0, null))).toEqual(widths());
});
