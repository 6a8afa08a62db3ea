import { expect, test } from '@jest/globals';
import { mostVerbs } from '../document/drawing-size.ts';
import { idFor, testTools } from '../fixtures/files.ts';
import { readDrawingFile } from './read.ts';

const read = (body: string) =>
  readDrawingFile(
    new TextEncoder().encode(`<svg xmlns="http://www.w3.org/2000/svg" width="9mm" height="9mm">${body}</svg>`),
    idFor,
    testTools,
  );

test('a file that draws more than a job can hold is refused, with what to do', async () => {
  await expect(read(`<path stroke="#000" d="M0 0${'h1'.repeat(mostVerbs)}"/>`)).rejects.toThrow(
    'The drawing holds 1,000,001 lines and curves; Lambent takes up to 1,000,000. Simplify it, or split it into several files.',
  );
});

test('items that are painted alike share one paint, and each has its own', async () => {
  const line = (stroke: string, more = '') => `<path d="M0 0h1" stroke="${stroke}" ${more}/>`;
  const { drawing } = await read(
    line('#f00') + line('#00f') + line('#f00') + line('#f00', 'stroke-linecap="round"') + line('#f00', 'fill="#f00"'),
  );
  const paints = drawing.items.map(({ paint }) => paint);
  expect(paints[2]).toBe(paints[0]);
  expect(new Set(paints).size).toBe(4);
  expect(paints.map(({ stroke, cap }) => [stroke, cap])).toEqual([
    ['#FF0000', undefined],
    ['#0000FF', undefined],
    ['#FF0000', undefined],
    ['#FF0000', 'round'],
    ['#FF0000', undefined],
  ]);
});
