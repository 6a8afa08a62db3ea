import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { ErrorAnswer } from '@lambent/contracts';
import { fitOf, kerfOf, type Material } from '@lambent/core';
import { Stack } from './stack.ts';

const stack = new Stack();
beforeAll(() => stack.start());
afterAll(() => stack.close());

const material = async (id: string) => {
  const found = (await stack.ask<Material[]>('GET', '/api/materials')).body.find((one) => one.id === id);
  if (!found) throw new Error(`There is no ${id}`);
  return found;
};
const cutOf = ({ recipes }: Material, machineId: string) =>
  recipes.find((recipe) => recipe.machineId === machineId && recipe.operation === 'cut') ?? null;
const today = new Date().toISOString().slice(0, 10);

test('a kerf is kept with the cutting recipe of one machine, with who measured it and when', async () => {
  const before = await material('birch-ply-3');
  expect(kerfOf(cutOf(before, 'wren'))).toBeNull();
  const kerf = { machineId: 'wren', mm: 0.14, from: 'measured', by: 'Noor Castellan' };
  const { status, body } = await stack.ask<Material>('PUT', '/api/materials/birch-ply-3/kerf', kerf);
  expect(status).toBe(200);
  const source = { from: 'measured', by: 'Noor Castellan', on: today };
  expect(kerfOf(cutOf(body, 'wren'))).toEqual({ mm: 0.14, source });
  const after = await material('birch-ply-3');
  expect(after).toEqual(body);
  expect(kerfOf(cutOf(after, 'curlew'))).toBeNull();
  expect(after.recipes.filter(({ operation }) => operation !== 'cut')).toEqual(
    before.recipes.filter(({ operation }) => operation !== 'cut'),
  );
});

test('fits are kept one by one; those that were never measured are guesses', async () => {
  expect(fitOf(await material('cork-3'), 'snug')).toEqual({ mm: 0.05, source: null });
  const put = (fit: string, mm: number) =>
    stack.ask<Material>('PUT', '/api/materials/cork-3/fit', { fit, mm, from: 'copied', by: 'Tomas Ferrow' });
  await put('snug', -0.1);
  const { body } = await put('loose', 0.4);
  const source = { from: 'copied', by: 'Tomas Ferrow', on: today };
  expect(body.fits).toEqual({ snug: { mm: -0.1, source }, loose: { mm: 0.4, source } });
  expect(fitOf(body, 'press')).toEqual({ mm: -0.05, source: null });
});

test.each<[string, string, object, number, string]>([
  [
    'a kerf that is none',
    'birch-ply-3/kerf',
    { machineId: 'wren', mm: 3, from: 'measured', by: 'x' },
    400,
    'at most 2 mm',
  ],
  ['nobody’s kerf', 'birch-ply-3/kerf', { machineId: 'wren', mm: 0.1, from: 'measured', by: '' }, 400, 'Say whose'],
  [
    'a kerf where nothing is cut',
    'slate-6/kerf',
    { machineId: 'wren', mm: 0.1, from: 'measured', by: 'x' },
    409,
    'no cutting recipe',
  ],
  [
    'a fit of no name',
    'cork-3/fit',
    { fit: 'tight', mm: 0.1, from: 'measured', by: 'x' },
    400,
    'loose, sliding, snug or press',
  ],
  ['a fit of nothing', 'moon-rock/fit', { fit: 'snug', mm: 0.1, from: 'measured', by: 'x' }, 404, 'no such material'],
])('%s is refused in a sentence', async (_, path, body, status, sentence) => {
  const answer = await stack.ask<ErrorAnswer>('PUT', `/api/materials/${path}`, body);
  expect(answer.status).toBe(status);
  expect(answer.body.error.message).toContain(sentence);
});
