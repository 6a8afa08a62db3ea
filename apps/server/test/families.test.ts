import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { ErrorAnswer } from '@lambent/contracts';
import type { NumberFamily } from '@lambent/core/builders';
import { Stack } from './stack.ts';

const stack = new Stack();
beforeAll(() => stack.start());
afterAll(() => stack.close());

const path = '/api/number-families';
const names = async () => (await stack.ask<NumberFamily[]>('GET', path)).body.map(({ name }) => name);
const small = { name: 'Seed drawer, small', builder: 'joined-box', numbers: { width: 120, lid: 'slides' } };

test('numbers are kept under a name, in the order of names, and deleted', async () => {
  expect(await names()).toEqual([]);
  const { status, body } = await stack.ask<NumberFamily>('POST', path, { ...small, id: 'mine' });
  expect(status).toBe(201);
  expect(body).toEqual({ ...small, id: body.id });
  expect(body.id).not.toBe('mine');
  await stack.ask('POST', path, { ...small, id: '', name: 'A tray', numbers: { lid: 'none' } });
  expect(await names()).toEqual(['A tray', 'Seed drawer, small']);
  const [, kept] = (await stack.ask<NumberFamily[]>('GET', path)).body;
  expect(kept).toEqual(body);
  expect((await stack.ask('DELETE', `${path}/${body.id}`)).status).toBe(204);
  expect(await names()).toEqual(['A tray']);
  expect((await stack.ask('DELETE', `${path}/${body.id}`)).status).toBe(404);
});

test('a name is there once for each builder; what cannot be built is refused', async () => {
  const again = { ...small, id: '', name: 'A tray' };
  const refused = await stack.ask<ErrorAnswer>('POST', path, again);
  expect([refused.status, refused.body.error.code]).toEqual([409, 'family-there']);
  expect(refused.body.error.message).toContain('“A tray” already');
  const other = { ...again, builder: 'slotted-grid', numbers: { cells: 'sizes', cellWidths: [30, 40] } };
  expect((await stack.ask<NumberFamily>('POST', path, other)).body.numbers).toEqual(other.numbers);
  const wrong = await stack.ask<ErrorAnswer>('POST', path, { ...small, id: '', numbers: { width: -3 } });
  expect([wrong.status, wrong.body.error.code]).toEqual([400, 'not-a-family']);
  expect(wrong.body.error.message).toContain('Width is -3 mm');
});
