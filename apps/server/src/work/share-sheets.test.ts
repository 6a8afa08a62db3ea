import { expect, test } from '@jest/globals';
import { operationColourKey } from '@lambent/core/colours';
import { newJob } from '@lambent/core/document';
import { addItems, setSheet } from '@lambent/core/edits';
import type { Machine } from '@lambent/core/machine';
import { packJob } from '../jobs/pack.ts';
import { shareSheets } from './share-sheets.ts';

const shop = {
  machines: [{ id: 'm', name: 'Test machine' } as Machine],
  keys: [operationColourKey('house', 'House key')],
  materials: [],
};
const pricing = { currency: '', setUp: 0, perRun: 0, minimum: 0, rounding: 0, machines: {}, materials: {} };

test('more than one job can hold is not laid out, and what is too much is said', async () => {
  const item = {
    id: 'a',
    name: null,
    shape: { kind: 'rectangle', x: 0, y: 0, width: 9, height: 9, rx: 0, ry: 0 },
    matrix: [1, 0, 0, 1, 0, 0],
    paint: { stroke: '#D0481E', strokeWidthMm: 0.1, fill: null },
    fillRule: 'nonzero',
    groupId: null,
    pinned: 'cut',
    hidden: false,
  } as const;
  const sheet = { id: 's', materialId: 'ply', x: 0, y: 0, width: 500, height: 300, margin: 3 };
  const { settings, drawing } = packJob(setSheet(addItems(newJob('m', 'house'), [item]), sheet));
  const job = { settings, drawingJson: drawing.json };
  const parts = [1, 2].map((nth) => ({ name: `Job ${nth}`, copies: 100_001, job }));
  await expect(shareSheets({ parts, shop, pricing }, () => Promise.reject(new Error('No pictures')))).rejects.toThrow(
    'What these jobs come to together holds 200,002 items; Lambent takes up to 200,000.',
  );
});
