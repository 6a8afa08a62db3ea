import { MessageChannel } from 'node:worker_threads';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { Report } from '@lambent/core/checks';
import { operationColourKey } from '@lambent/core/colours';
import { newJob } from '@lambent/core/document';
import { addItems, setSheet } from '@lambent/core/edits';
import { encodePixels } from '@lambent/core/formats';
import { addOperation, type BurntOperation } from '@lambent/core/operations';
import { packJob } from '../jobs/pack.ts';
import work, { type FromTask, type PictureAnswer, type TaskAnswer } from './worker.ts';

/*
 * What a task and the server say to each other. The operation that burns pictures is one of the test's own.
 */

const dots = 'dots' as BurntOperation;
let remove = () => {};
beforeAll(() => {
  remove = addOperation(dots, {
    name: 'Dots',
    plural: 'Dots',
    colour: '#456DEF',
    dash: [],
    letter: 'D',
    burning: { traces: 'areas', separates: false, followsTone: true, phase: 1, verb: 'dots', firstEnergy: 0.2 },
  });
});
afterAll(() => remove());

const machine = {
  id: 'm',
  name: 'Test machine',
  kind: 'co2',
  ratedW: 60,
  bedWidth: 600,
  bedHeight: 400,
  origin: 'top-left',
  margin: 5,
  topSpeed: 500,
  travelSpeed: 600,
  acceleration: 4000,
  cornerDeviation: 0.01,
  powerScale: 1000,
  minLineSpacing: 0.05,
  connection: { kind: 'network', host: '127.0.0.1', port: 1, language: 'lambent', buffer: 127 },
} as const;
const recipe = { machineId: 'm', operation: dots, powerPercent: 20, speedMmPerS: 300, passes: 1, lineSpacingMm: 0.5 };
const material = {
  id: 'slate',
  name: 'Slate',
  thicknessMm: 4,
  tone: '#445566',
  sheetWidth: 300,
  sheetHeight: 200,
  forbidden: null,
  recipes: [{ ...recipe, evidence: 'proven', note: '' }],
};
const photo = {
  id: 'photo',
  name: null,
  shape: { kind: 'picture', pictureId: 'p'.repeat(64), width: 4, height: 2 },
  matrix: [5, 0, 0, 5, 50, 40],
  paint: { stroke: null, strokeWidthMm: 0, fill: null },
  fillRule: 'nonzero',
  groupId: null,
  pinned: dots,
  hidden: false,
} as const;

/** The report of a plan that burns one picture, whose file the server gives or refuses. */
async function planned(answer: (id: string) => Promise<PictureAnswer>) {
  const sheet = { id: 's', materialId: 'slate', x: 0, y: 0, width: 300, height: 200, margin: 3 };
  const { settings, drawing } = packJob(setSheet(addItems(newJob('m', 'house'), [photo]), sheet));
  const { port1, port2 } = new MessageChannel();
  const said: FromTask[] = [];
  port1.on('message', async (message: FromTask) => {
    said.push(message);
    if (message.kind === 'picture') port1.postMessage(await answer(message.id));
  });
  const shop = { machines: [machine], keys: [operationColourKey('house', 'House key')], materials: [material] };
  const task = { job: { settings, drawingJson: drawing.json }, shop, title: 'Plaque', choice: {} };
  try {
    const done: TaskAnswer = await work({ name: 'report', task: task as never, line: port2 });
    return { done, said };
  } finally {
    port1.close();
  }
}

test('a plan asks the server for the picture that it burns, once, and burns it', async () => {
  const bytes = await encodePixels({ width: 4, height: 2, rgb: new Uint8Array(24) });
  const { done, said } = await planned(async (id) => ({ id, bytes }));
  expect(said).toEqual([{ kind: 'begun' }, { kind: 'picture', id: 'p'.repeat(64) }]);
  const [layer] = (done as { done: Report }).done.layers;
  expect(layer).toMatchObject({ operation: dots, items: 1, powerPercent: 20 });
  // Twenty rows of 20 mm at 300 mm/s, and the run-ups.
  expect(layer.timeS).toBeGreaterThan((20 * 20) / 300);
});

test('without the picture there is no plan, and it is said why', async () => {
  const refused = { status: 404, code: 'not-found', message: 'There is no such picture.' };
  const { done } = await planned(async (id) => ({ id, refused }));
  expect(done).toEqual({ refused });
  await expect(planned(async (id) => ({ id, refused: null }))).rejects.toThrow('cannot be read');
});
