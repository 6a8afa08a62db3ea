import Papa from 'papaparse';
import { mostColumns, mostRows, nameOfRow, type Row, type RowList } from '../document/row-list.ts';

/** A table that cannot be taken. Its message is one plain sentence. */
export class TableRefused extends Error {
  override readonly name = 'TableRefused';
}

/** Something in a list that may not be meant. Nothing is left out because of it. */
export interface TableFault {
  readonly kind: 'quotes' | 'cells' | 'empty' | 'twice' | 'formula' | 'long';
  /** From 1; null where it is the whole table. */
  readonly row: number | null;
  readonly message: string;
}

export type ListWords = Pick<RowList, 'columns' | 'rows'>;

/** Names that are longer than this are hardly meant. */
const longest = 100;
/** So much of a cell is quoted in a message. */
const quotedLetters = 40;

/**
 * Reads rows that were copied from a table, or a CSV file: its cells parted by tabs, semicolons or commas, in quotes where they
 * hold those.
 *
 * @param hasHeader whether its first row names the columns; they are called by their number where it does not
 * @param known rows that were there before: those that are the same keep their id
 * @throws TableRefused where it is empty or too large
 */
export function readTable(
  words: string,
  hasHeader: boolean,
  known: readonly Row[] = [],
): ListWords & { readonly faults: readonly TableFault[] } {
  const { data, errors } = Papa.parse<string[]>(words.replace(/^\uFEFF/, ''), {
    skipEmptyLines: true,
    delimitersToGuess: ['\t', ';', ','],
  });
  const header = hasHeader ? (data[0] ?? []) : [];
  const cells = data.slice(hasHeader ? 1 : 0);
  if (cells.length === 0) throw new TableRefused('The table has no rows. Copy some, or choose another file.');
  if (cells.length > mostRows) {
    throw new TableRefused(`The table has ${cells.length} rows; a list takes up to ${mostRows}. Divide it.`);
  }
  const wide = cells.reduce((most, row) => Math.max(most, row.length), header.length);
  if (wide > mostColumns) {
    throw new TableRefused(`The table has ${wide} columns; a list takes up to ${mostColumns}. Leave some out.`);
  }
  const columns = columnNames(Array.from({ length: wide }, (_, i) => header[i] ?? ''));
  const first = hasHeader ? 0 : 1;
  const quotes = errors
    .filter(({ type }) => type === 'Quotes')
    .map(
      ({ row }): TableFault => ({
        kind: 'quotes',
        row: row === undefined ? null : row + first,
        message: `Row ${(row ?? 0) + first}: a quote is opened and not closed, or closed too early. See what its cells hold.`,
      }),
    );
  const uneven = cells.flatMap((row, i): TableFault[] =>
    hasHeader && row.length > header.length
      ? [
          {
            kind: 'cells',
            row: i + 1,
            message: `Row ${i + 1} has ${row.length} cells, and ${header.length} columns have a name. The others are in columns of their own.`,
          },
        ]
      : [],
  );
  return { columns, rows: withIds(cells, wide, known), faults: [...quotes, ...uneven] };
}

/** What may not be meant in the cells of a list: empty ones, rows called alike, formulas, very long words. */
export function faultsOfList({ columns, rows }: ListWords): TableFault[] {
  const faults: TableFault[] = [];
  const firstOf = new Map<string, number>();
  rows.forEach((row, i) => {
    const number = i + 1;
    const say = (kind: TableFault['kind'], message: string) => faults.push({ kind, row: number, message });
    for (const [k, column] of columns.entries()) {
      const cell = row.cells[k] ?? '';
      const where = `Row ${number}, ${column}`;
      if (cell.trim() === '') say('empty', `${where}: the cell is empty.`);
      else if (cell.length > longest) say('long', `${where}: it is ${cell.length} letters long.`);
      if (isFormula(cell)) {
        say(
          'formula',
          `${where}: “${cell.slice(0, quotedLetters)}” looks like a formula. It is taken as it is written.`,
        );
      }
    }
    const name = nameOfRow(row, number).toLowerCase();
    const before = firstOf.get(name);
    if (before === undefined) firstOf.set(name, number);
    else say('twice', `Row ${number} is called “${nameOfRow(row, number)}”, as row ${before} is.`);
  });
  return faults;
}

/** A minus or plus before a figure is a number. */
function isFormula(cell: string): boolean {
  return /^\s*(=|@|[+-](?![\d.,]))\S/.test(cell);
}

/** Rows of numbers from one to another, both among them. @throws TableRefused where there are none or too many */
export function numberRows(from: number, to: number, step: number, digits: number): ListWords {
  const count = Math.floor(Math.abs(to - from) / step + 1e-9) + 1;
  if (!(step > 0) || !Number.isFinite(count)) throw new TableRefused('The step is more than 0.');
  if (count > mostRows) throw new TableRefused(`These are ${count} rows; a list takes up to ${mostRows}.`);
  const way = to < from ? -1 : 1;
  const places = Math.max(decimalsOf(from), decimalsOf(step));
  const rows = Array.from({ length: count }, (_, i): Row => {
    const value = from + way * i * step;
    const figures = Math.abs(value).toFixed(places);
    const padded = figures.padStart(digits + (places > 0 ? places + 1 : 0), '0');
    return { id: `${i + 1}`, cells: [value < 0 ? `-${padded}` : padded] };
  });
  return { columns: ['number'], rows };
}

function decimalsOf(value: number): number {
  return `${value}`.split('.')[1]?.length ?? 0;
}

/** Columns have a name each, and none the same. */
function columnNames(header: readonly string[]): string[] {
  const taken = new Set<string>();
  return header.map((words, i) => {
    const plain = words.replace(/[{}\n]/g, ' ').trim() || `Column ${i + 1}`;
    let name = plain;
    for (let n = 2; taken.has(name.toLowerCase()); n++) name = `${plain} ${n}`;
    taken.add(name.toLowerCase());
    return name;
  });
}

function withIds(cells: readonly (readonly string[])[], wide: number, known: readonly Row[]): Row[] {
  const idsOf = new Map<string, string[]>();
  for (const row of known) idsOf.set(keyOf(row.cells), [...(idsOf.get(keyOf(row.cells)) ?? []), row.id]);
  let next = known.reduce((most, { id }) => Math.max(most, Number(id) || 0), 0);
  return cells.map((row) => {
    const all = Array.from({ length: wide }, (_, i) => row[i] ?? '');
    return { id: idsOf.get(keyOf(all))?.shift() ?? `${++next}`, cells: all };
  });
}

function keyOf(cells: readonly string[]): string {
  return JSON.stringify(cells);
}

/** What a table program would take for a formula; a negative number is none. */
const formula = /^(?:[=+@\t\r]|-(?!\d+(?:\.\d+)?$))/;

/** Rows as comma-separated values (RFC 4180). Formulas are written as text, behind an apostrophe. */
export function writeCsv(rows: readonly (readonly string[])[]): string {
  return Papa.unparse(rows as string[][], { newline: '\r\n', escapeFormulae: formula });
}

/** A list as rows of a table, as `readTable` reads them back. */
export function writeTable({ columns, rows }: ListWords): string {
  return Papa.unparse([columns, ...rows.map(({ cells }) => columns.map((_, i) => cells[i] ?? ''))], {
    delimiter: '\t',
    newline: '\n',
  });
}
