import { expect, test } from '@jest/globals';
import jsQR from 'jsqr';
import { polylinesOf } from '../../document/item.ts';
import { testTools } from '../../fixtures/files.ts';
import { linesOfPdf } from '../../fixtures/pdf-lines.ts';
import { polylineContains } from '../../geometry/paths/flatten.ts';
import { FontBook } from '../../text/fonts.ts';
import { readDrawingFile } from '../read.ts';
import { writePaper } from '../write.ts';

/** The package is a function, and says that it is a module with one. */
const readQr = jsQR as unknown as typeof jsQR.default;

test('paper without a picture has its title and kind, its facts, its table with what it comes to, and its list', async () => {
  const paper = {
    title: 'Tag for the gate',
    kind: 'Quote 12',
    facts: [{ name: 'For', value: 'Noor Castellan' }],
    code: null,
    picture: null,
    tables: [
      {
        title: 'Price',
        columns: [
          { name: 'What', widthMm: 0, isFigures: false },
          { name: 'Amount', widthMm: 35, isFigures: true },
        ],
        rows: [['Cutting', '€ 9.10']],
        total: ['In all', '€ 9.10'],
      },
      { title: 'Empty', columns: [], rows: [], total: null },
    ],
    lists: [{ title: 'Terms', lines: ['Payable when it is fetched.'] }],
  };
  const { lines, pages } = await linesOfPdf(await writePaper(paper, new FontBook([])));
  expect(lines).toEqual([
    'Tag for the gate | Quote 12',
    'For | Noor Castellan',
    'Price',
    'What | Amount',
    'Cutting | € 9.10',
    'In all | € 9.10',
    'Terms',
    '– | Payable when it is fetched.',
    'Tag for the gate · page 1 of 1',
  ]);
  expect(pages).toBe(1);
});

test('a code stands at the right of the facts, reads as what it says, and nothing is written over it', async () => {
  const address = 'https://laser.example/jobs/8d5c1f0a-0b4c-4e53-9c6e-0d4b1d0f9f11';
  const facts = Array.from({ length: 12 }, (_, i) => ({ name: `Fact ${i}`, value: 'word '.repeat(60) }));
  const paper = { title: 'Coded', kind: 'Job sheet', facts, code: address, picture: null, tables: [], lists: [] };
  const bytes = await writePaper(paper, new FontBook([]));
  const { drawing } = await readDrawingFile(bytes, (place) => place, testTools);
  const lines = drawing.items
    .flatMap((item) => polylinesOf(item))
    .filter(({ points }) => points[0] > 167 && points[1] > 23 && points[1] < 51);
  const [dotsPerMm, size] = [10, 280];
  const seen = Uint8ClampedArray.from({ length: size * size * 4 }, (_, i) => {
    const dot = i >> 2;
    const [x, y] = [167 + ((dot % size) + 0.5) / dotsPerMm, 23 + (Math.floor(dot / size) + 0.5) / dotsPerMm];
    return lines.filter((line) => polylineContains(line, x, y)).length % 2 === 1 && i % 4 < 3 ? 0 : 255;
  });
  expect(readQr(seen, size, size)?.data).toBe(address);
});
