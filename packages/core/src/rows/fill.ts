import { CodeRefused, makeCode } from '../codes/make-code.ts';
import type { Item } from '../document/item.ts';
import { nameOfRow, type RowList } from '../document/row-list.ts';
import type { Shape } from '../document/shape.ts';
import { meanScale } from '../geometry/paths/matrix.ts';
import type { FontBook } from '../text/fonts.ts';
import { setText, textShape } from '../text/set.ts';

/** What fields of a text are filled from. */
export interface FieldWords {
  readonly columns: readonly string[];
  readonly cells: readonly string[];
  /** The number of the row, from 1. */
  readonly number: number;
  /** The day, as it is to be written. */
  readonly date: string;
}

/**
 * Words with their fields filled: `{column}` by what the row says there, `{row}` by its number, `{date}` by the day. A column of
 * that name comes first; capitals do not count. Braces around anything else stay.
 */
export function fillWords(words: string, { columns, cells, number, date }: FieldWords): string {
  return words.replace(/\{([^{}\n]+)\}/g, (braced, inner: string) => {
    const name = inner.trim().toLowerCase();
    const column = columns.findIndex((known) => known.toLowerCase() === name);
    if (column >= 0) return cells[column] ?? '';
    if (name === 'row') return `${number}`;
    return name === 'date' ? date : braced;
  });
}

/** The design as it is for one row. */
export interface FilledRow {
  readonly rowId: string;
  readonly name: string;
  /** By item of the design, what is another shape in this row; null where nothing is left of it. */
  readonly shapes: ReadonlyMap<string, Shape | null>;
}

/**
 * The design as it is for one row, where the design lies: with its words, and the drawings that it chooses.
 * @param artOf what stands in the place of an item that is chosen by a column; null where nothing does
 */
export function pieceOf(
  design: readonly Item[],
  { shapes }: Pick<FilledRow, 'shapes'>,
  artOf: (place: Item) => readonly Item[] | null,
): readonly Item[] {
  return design.flatMap((item): readonly Item[] => {
    if (item.choice !== undefined) return artOf(item) ?? [];
    const shape = shapes.get(item.id);
    return shape === null ? [] : [{ ...item, shape: shape ?? item.shape }];
  });
}

/** Something of a row that does not come out as it should. */
export interface RowFault {
  readonly rowId: string;
  readonly kind: 'long' | 'letters' | 'code';
  readonly message: string;
}

export interface FilledRows {
  readonly rows: readonly FilledRow[];
  readonly faults: readonly RowFault[];
}

export interface FillMeans {
  readonly book: FontBook;
  readonly date: string;
  /** How low capitals of a text may become by what its material holds, or how narrow parts of a code by the beam, in mm. */
  readonly leastOf: (item: Item) => number;
}

interface Filled {
  readonly shape: Shape | null;
  /** What does not come out, as the end of a sentence. */
  readonly faults: readonly Omit<RowFault, 'rowId'>[];
}

/**
 * A design for each row of a list, its texts and codes filled; what does not fit, or cannot be written, is said with its row.
 * @param rowIds the rows that are wanted; all where nothing is said
 */
export function fillRows(
  design: readonly Item[],
  { columns, rows }: Pick<RowList, 'columns' | 'rows'>,
  means: FillMeans,
  rowIds?: ReadonlySet<string>,
): FilledRows {
  const filled: FilledRow[] = [];
  const faults: RowFault[] = [];
  const known = new Map<Item, Map<string, Filled>>(design.map((item) => [item, new Map()]));
  rows.forEach((row, i) => {
    if (rowIds && !rowIds.has(row.id)) return;
    const words: FieldWords = { columns, cells: row.cells, number: i + 1, date: means.date };
    const name = nameOfRow(row, i + 1);
    const shapes = new Map<string, Shape | null>();
    for (const item of design) {
      const template = wordsOf(item);
      if (template === null) continue;
      const said = fillWords(template, words);
      if (said === template) continue;
      const made = known.get(item)?.get(said) ?? fillItem(item, said, means);
      known.get(item)?.set(said, made);
      shapes.set(item.id, made.shape);
      for (const { kind, message } of made.faults) {
        faults.push({ rowId: row.id, kind, message: `Row ${i + 1}, “${shortened(name)}”: ${message}` });
      }
    }
    filled.push({ rowId: row.id, name, shapes });
  });
  return { rows: filled, faults };
}

/** What an item says, with the fields in it; null where it says nothing. */
export function wordsOf({ shape }: Item): string | null {
  if (shape.kind === 'text') return shape.text.words;
  return shape.kind === 'code' ? shape.code.words : null;
}

function fillItem(item: Item, words: string, means: FillMeans): Filled {
  const { shape } = item;
  if (words.trim() === '') return { shape: null, faults: [] };
  if (shape.kind === 'code') {
    try {
      const made = makeCode({ ...shape.code, words });
      const [partMm, beamMm] = [made.moduleMm * meanScale(item.matrix), means.leastOf(item)];
      if (partMm >= beamMm - 1e-6) return { shape: made, faults: [] };
      const message = `so much makes the parts of the code ${partMm.toFixed(2)} mm wide, and the beam burns ${beamMm.toFixed(2)} mm. Make the code larger, or let it say less.`;
      return { shape: made, faults: [{ kind: 'code', message }] };
    } catch (error) {
      if (!(error instanceof CodeRefused)) throw error;
      return { shape: null, faults: [{ kind: 'code', message: error.message }] };
    }
  }
  if (shape.kind !== 'text') return { shape, faults: [] };
  const leastHeight = Math.max(shape.text.leastHeight ?? 0, means.leastOf(item));
  const text = { ...shape.text, words, ...(shape.text.fit === 'smaller' ? { leastHeight } : {}) };
  const set = setText(text, means.book);
  const faults: Filled['faults'][number][] = [];
  if (set.over > 0) {
    faults.push({
      kind: 'long',
      message: `“${shortened(words)}” is ${set.over.toFixed(1)} mm too large for its place.`,
    });
  }
  if (set.missing.length > 0) {
    faults.push({ kind: 'letters', message: `${text.family} does not have ${set.missing.slice(0, 12).join(' ')}.` });
  }
  return { shape: textShape(text, set), faults };
}

function shortened(words: string): string {
  return words.length > 40 ? `${words.slice(0, 39)}…` : words;
}
