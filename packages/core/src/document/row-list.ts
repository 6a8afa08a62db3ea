import { orNull, such, type ValueOf } from '../schema/schema.ts';
import { list, record } from '../schema/structures.ts';
import { text } from '../schema/values.ts';

/** More rows and columns are in no list. */
export const mostRows = 10_000;
export const mostColumns = 100;

const rowSchema = record({ id: text, cells: list(text, { most: mostColumns }) });
/** One row of a list: a cell for each of its columns. */
export type Row = ValueOf<typeof rowSchema>;

const rows = such(list(rowSchema, { most: mostRows, each: (i) => `row ${i + 1}` }), (known) =>
  new Set(known.map(({ id }) => id)).size < known.length ? 'must have an id each, and two have the same' : null,
);

/** Words or numbers in rows, for each of which one design is made. */
export const rowListSchema = record({
  id: text,
  name: text,
  columns: list(text, { most: mostColumns }),
  rows,
  /** The group that is made for each row; null where none is chosen yet. */
  designId: orNull(text),
});
export type RowList = ValueOf<typeof rowListSchema>;

/** Of a group: the row that it was made for. */
export const rowOfGroup = record({ listId: text, rowId: text });

/** What a row is called: by its first cell that says anything, else by its number from 1. */
export function nameOfRow({ cells }: Row, number: number): string {
  return cells.find((cell) => cell.trim() !== '')?.trim() ?? `Row ${number}`;
}
