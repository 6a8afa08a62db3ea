import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { expect, test } from '@jest/globals';
import jpeg from 'jpeg-js';
import { mostVerbs } from '../document/drawing-size.ts';
import { idFor, testTools } from '../fixtures/files.ts';
import { pictureKind } from './picture/describe.ts';
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

const fixture = (name: string) => new Uint8Array(readFileSync(new URL(`../fixtures/files/${name}`, import.meta.url)));
const gif = Uint8Array.from(atob('R0lGODlhAgABAIAAAP8AAAAA/ywAAAAAAgABAAACAkQKADs='), (letter) => letter.charCodeAt(0));
const jpegFile = new Uint8Array(jpeg.encode({ width: 16, height: 8, data: new Uint8Array(512).fill(99) }, 90).data);
const inSvg = (bytes: Uint8Array) => {
  const data = `data:image/gif;base64,${Buffer.from(bytes).toString('base64')}`;
  const image = `<image width="9" height="9" href="${data}"/>`;
  return new TextEncoder().encode(`<svg xmlns="http://www.w3.org/2000/svg">${image}${image}</svg>`);
};

test.each<[string, Uint8Array]>([
  ['PNG of one bit', fixture('grey1.png')],
  ['interlaced PNG', fixture('interlaced1.png')],
  ['PNG with a key colour', fixture('trnsrgb.png')],
  ['BMP', fixture('rgb565.bmp')],
  ['GIF', gif],
  ['GIF in SVG', inSvg(gif)],
  ['JPEG without the mark at its end', jpegFile.subarray(0, jpegFile.length - 2)],
  ['JPEG', jpegFile],
])('a picture comes as PNG or JPEG, under the hash of what is kept: %s', async (_, bytes) => {
  const { drawing, pictures } = await readDrawingFile(bytes, idFor, testTools);
  expect(pictures).toHaveLength(1);
  const [{ id, bytes: kept }] = pictures;
  expect(['png', 'jpg']).toContain(pictureKind(kept));
  expect(id).toBe(createHash('sha256').update(kept).digest('hex'));
  expect(drawing.items.length).toBeGreaterThan(0);
  for (const { shape } of drawing.items) expect(shape).toMatchObject({ kind: 'picture', pictureId: id });
});

test('a PNG that every reader takes stays as it is, byte by byte; one that is cut short is refused', async () => {
  const usual = fixture('usual.png');
  const { pictures } = await readDrawingFile(usual, idFor, testTools);
  expect(pictures[0].bytes).toEqual(usual);
  await expect(readDrawingFile(usual.slice(0, usual.length - 40), idFor, testTools)).rejects.toThrow('is damaged');
});
