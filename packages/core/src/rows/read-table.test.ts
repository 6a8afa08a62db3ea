import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { faultsOfList, numberRows, readTable, TableRefused, writeTable } from './read-table.ts';

const cellsOf = ({ rows }: { rows: readonly { readonly cells: readonly string[] }[] }) =>
  rows.map(({ cells }) => cells);

test('rows copied from a table, and CSV with semicolons, commas and quotes', () => {
  const wanted = {
    columns: ['name', 'what'],
    cells: [
      ['Ines', 'workshop'],
      ['Noor, "N."', 'seed; library'],
    ],
  };
  for (const words of [
    'name\twhat\nInes\tworkshop\nNoor, "N."\tseed; library\n',
    'name,what\r\nInes,workshop\r\n"Noor, ""N.""",seed; library',
    '\uFEFFname;what\nInes;workshop\n\n"Noor, ""N.""";"seed; library"\n',
  ]) {
    const read = readTable(words, true);
    expect({ columns: read.columns, cells: cellsOf(read), faults: read.faults }).toEqual({ ...wanted, faults: [] });
  }
});

test('one column, no header, and a name over two lines', () => {
  const read = readTable('Ines\nTobiah\n"Wilhelmina\nStrand"', false);
  expect([read.columns, cellsOf(read)]).toEqual([['Column 1'], [['Ines'], ['Tobiah'], ['Wilhelmina\nStrand']]]);
});

test('columns have a name each; cells beyond them are kept in columns of their own, and said', () => {
  const read = readTable('name,,Name,{a}\nInes,b,c,d,e', true);
  expect(read.columns).toEqual(['name', 'Column 2', 'Name 2', 'a', 'Column 5']);
  expect(cellsOf(read)).toEqual([['Ines', 'b', 'c', 'd', 'e']]);
  expect(read.faults).toEqual([
    {
      kind: 'cells',
      row: 1,
      message: 'Row 1 has 5 cells, and 4 columns have a name. The others are in columns of their own.',
    },
  ]);
});

test('a quote that is not closed is said with its row', () => {
  const { faults } = readTable('name,what\nInes,a\nNoor,"b', true);
  expect(faults).toEqual([{ kind: 'quotes', row: 2, message: expect.stringMatching(/^Row 2: a quote is opened/) }]);
});

test('rows that were there keep their ids, in whatever order they come; new ones have new ids', () => {
  const before = readTable('name\nInes\nNoor\nInes', true);
  expect(before.rows.map(({ id }) => id)).toEqual(['1', '2', '3']);
  const after = readTable('name\nPavel\nNoor\nInes\nInes\nInes', true, before.rows);
  expect(after.rows.map(({ id }) => id)).toEqual(['4', '2', '1', '3', '5']);
});

test('what is none, and what is too much, is refused', () => {
  expect(() => readTable('name\n', true)).toThrow(
    new TableRefused('The table has no rows. Copy some, or choose another file.'),
  );
  expect(() => readTable('', false)).toThrow(TableRefused);
  expect(() => readTable('a\n'.repeat(10_001), false)).toThrow(
    'The table has 10001 rows; a list takes up to 10000. Divide it.',
  );
  expect(readTable('a\n'.repeat(10_000), false).rows).toHaveLength(10_000);
  expect(() => readTable('a,'.repeat(100), false)).toThrow(
    'The table has 101 columns; a list takes up to 100. Leave some out.',
  );
});

test('empty cells, rows called alike, formulas and very long words are said with row and column', () => {
  const long = 'x'.repeat(1000);
  const read = readTable(`name,what\nInes,\n ines ,=A1\nNoor,-5\n,@x\n${long},+3.5\nPavel,-x`, true);
  expect(faultsOfList(read).map(({ kind, message }) => `${kind}: ${message}`)).toEqual([
    'empty: Row 1, what: the cell is empty.',
    'formula: Row 2, what: “=A1” looks like a formula. It is taken as it is written.',
    'twice: Row 2 is called “ines”, as row 1 is.',
    'empty: Row 4, name: the cell is empty.',
    'formula: Row 4, what: “@x” looks like a formula. It is taken as it is written.',
    'long: Row 5, name: it is 1000 letters long.',
    'formula: Row 6, what: “-x” looks like a formula. It is taken as it is written.',
  ]);
});

test('nothing of a table is lost, whatever is in its cells', () => {
  const cell = fc.string({ unit: 'grapheme', maxLength: 12 }).map((text) => text.replaceAll('\r', ''));
  fc.assert(
    fc.property(fc.array(fc.tuple(cell, cell), { minLength: 1, maxLength: 8 }), (rows) => {
      const quoted = (text: string) => `"${text.replaceAll('"', '""')}"`;
      const words = rows.map((row) => row.map(quoted).join(',')).join('\n');
      const read = readTable(`"a","b"\n${words}`, true);
      expect(cellsOf(read)).toEqual(rows);
      // Written as a table and read again, it is the same list.
      expect(readTable(writeTable(read), true, read.rows)).toMatchObject({ columns: ['a', 'b'], rows: read.rows });
    }),
  );
});

test('numbers from one to another, padded, up and down, by any step', () => {
  const numbers = (...of: Parameters<typeof numberRows>) => numberRows(...of).rows.map(({ cells }) => cells[0]);
  expect(numbers(8, 11, 1, 3)).toEqual(['008', '009', '010', '011']);
  expect(numbers(3, 1, 1, 0)).toEqual(['3', '2', '1']);
  expect(numbers(0, 0.3, 0.1, 2)).toEqual(['00.0', '00.1', '00.2', '00.3']);
  expect(numbers(-1, 1, 1, 2)).toEqual(['-01', '00', '01']);
  expect(numbers(5, 5, 10, 0)).toEqual(['5']);
  expect(() => numberRows(1, 5, 0, 0)).toThrow('The step is more than 0.');
  expect(() => numberRows(1, 10_001, 1, 0)).toThrow('These are 10001 rows; a list takes up to 10000.');
});
