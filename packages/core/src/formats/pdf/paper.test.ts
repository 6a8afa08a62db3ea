import { expect, test } from '@jest/globals';
import { linesOfPdf } from '../../fixtures/pdf-lines.ts';
import { FontBook } from '../../text/fonts.ts';
import { writePaper } from '../write.ts';

test('paper without a picture has its title and kind, its facts, its table with what it comes to, and its list', async () => {
  const paper = {
    title: 'Tag for the gate',
    kind: 'Quote 12',
    facts: [{ name: 'For', value: 'Noor Castellan' }],
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
