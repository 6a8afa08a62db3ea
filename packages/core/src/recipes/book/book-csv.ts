import Papa from 'papaparse';
import type { Machine } from '../../machine/machine.ts';
import { Mismatch } from '../../schema/schema.ts';
import { figureColumn, type SettingColumn } from '../../settings/setting.ts';
import { allSettings } from '../../settings/settings.ts';
import { materialFromJson, NotABook, recipeFromJson } from './book-json.ts';
import type { Material } from './material.ts';
import { type Recipe, recipeKey } from './recipe.ts';

/*
 * The book as a table that people edit: a row for each recipe, in the words of the screen. What a table cannot hold,
 * fits, stock, pictures and measured kerfs' sources, is left as it is.
 */

/** One column: its name, what stands in it, and what that means in JSON; nothing where it is empty. */
interface Column {
  readonly name: string;
  readonly write: (recipe: Recipe, material: Material) => string | number | boolean | null | undefined;
  readonly read: (text: string) => Record<string, unknown>;
  readonly subject: 'material' | 'recipe';
}

const text = (name: string, subject: Column['subject'], field: string, write: Column['write']): Column => ({
  name,
  subject,
  write,
  read: (value) => ({ [field]: value }),
});

function settingColumns(): Column[] {
  return [...allSettings()].map(([field, { column }]) => ({
    name: column.name,
    subject: 'recipe',
    write: (recipe) => {
      const value = recipe[field];
      return value === undefined || value === null ? null : column.write(value);
    },
    read: (cell) => ({ [field]: readCell(column, cell) }),
  }));
}

function readCell<T>(column: SettingColumn<T>, cell: string): T {
  try {
    return column.read(cell);
  } catch (error) {
    if (error instanceof Mismatch) throw new NotABook(error.message);
    throw error;
  }
}

const columns = (): Column[] => [
  text('material id', 'material', 'id', (_, material) => material.id),
  text('family', 'material', 'family', (_, material) => material.family),
  text('material', 'material', 'name', (_, material) => material.name),
  {
    name: 'thickness mm',
    subject: 'material',
    write: (_, material) => material.thicknessMm,
    read: (cell) => ({ thicknessMm: readCell(figureColumn('thickness mm'), cell) }),
  },
  text('machine', 'recipe', 'machineId', ({ machineId }) => machineId),
  text('lens', 'recipe', 'lensId', ({ lensId }) => lensId),
  text('operation', 'recipe', 'operation', ({ operation }) => operation),
  text('variant', 'recipe', 'variant', ({ variant }) => variant),
  ...settingColumns(),
  text('evidence', 'recipe', 'evidence', ({ evidence }) => evidence),
  text('by', 'recipe', 'by', ({ proof }) => proof?.by),
  text('on', 'recipe', 'on', ({ proof }) => proof?.on),
  text('from what', 'recipe', 'what', ({ proof }) => proof?.what),
  text('note', 'recipe', 'note', ({ note }) => note),
];

/** Every recipe that is used, a row each. */
export function bookToCsv(materials: readonly Material[]): string {
  const table = columns();
  const rows = materials
    .filter(({ archived }) => !archived)
    .flatMap((material) =>
      material.recipes
        .filter(({ archived }) => !archived)
        .map((recipe) => table.map(({ write }) => guarded(write(recipe, material) ?? ''))),
    );
  return `${Papa.unparse([table.map(({ name }) => name), ...rows], { newline: '\n' })}\n`;
}

/** Text that a spreadsheet would take for a formula is marked as text. */
function guarded(value: string | number | boolean): string | number | boolean {
  return typeof value === 'string' && /^\s*['=+\-@]|^[\t\r\n]/.test(value) ? `'${value}` : value;
}

/** A row that was read: the recipe, and what the table says of its material. */
export interface BookRow {
  readonly line: number;
  readonly material: Pick<Material, 'id'> & Partial<Pick<Material, 'family' | 'name' | 'thicknessMm'>>;
  readonly recipe: Recipe;
}

export interface BookTable {
  readonly rows: readonly BookRow[];
  /** What could not be taken, by the line of the file, counted from 1. */
  readonly faults: readonly { readonly line: number; readonly sentence: string }[];
}

/**
 * Reads a table of recipes; columns may stand in any order, and those that are not known are passed over.
 * @param known the materials there are: rows of others must name them and say how thick they are
 * @throws NotABook where it is no such table at all
 */
export function readBookCsv(
  csv: string,
  known: readonly Pick<Material, 'id'>[],
  machines: readonly Pick<Machine, 'id'>[],
): BookTable {
  const plain = csv.replace(/^\uFEFF/, '');
  const { data } = Papa.parse<string[]>(plain, { delimiter: delimiterOf(plain) });
  const head = (data[0] ?? []).map((name) => name.trim().toLowerCase());
  for (const needed of ['material id', 'machine', 'operation', 'power %', 'speed mm/s']) {
    if (!head.includes(needed)) throw new NotABook(`Its first line names no column “${needed}”.`);
  }
  const materialIds = new Set(known.map(({ id }) => id));
  const machineIds = new Set(machines.map(({ id }) => id));
  const lines = linesOf(data);
  const seen = new Map<string, number>();
  const rows: BookRow[] = [];
  const faults: { line: number; sentence: string }[] = [];
  data.slice(1).forEach((cells, i) => {
    const line = lines[i + 1];
    if (cells.every((cell) => cell.trim() === '')) return;
    try {
      const row = rowOf(head, cells, line);
      if (!machineIds.has(row.recipe.machineId)) {
        throw new NotABook(`There is no machine “${row.recipe.machineId}”; there is ${[...machineIds].join(', ')}.`);
      }
      if (!materialIds.has(row.material.id) && (!row.material.name || !row.material.thicknessMm)) {
        throw new NotABook(`There is no material “${row.material.id}”; for a new one say its name and thickness.`);
      }
      const key = `${row.material.id} ${recipeKey(row.recipe)}`;
      const before = seen.get(key);
      if (before !== undefined) throw new NotABook(`It is for the same as line ${before}.`);
      seen.set(key, line);
      rows.push(row);
    } catch (error) {
      if (!(error instanceof NotABook)) throw error;
      faults.push({ line, sentence: error.message });
    }
  });
  return { rows, faults };
}

/** What parts the cells of the first line: spreadsheets write commas, semicolons or tabs, by their country. */
function delimiterOf(csv: string): string {
  const [head] = csv.split(/\r\n|\r|\n/, 1);
  const count = (sign: string) => head.split(sign).length;
  return [',', ';', '\t'].toSorted((a, b) => count(b) - count(a))[0];
}

/** On which line of the file each row begins: cells in quotes may go over several. */
function linesOf(data: readonly string[][]): number[] {
  let line = 1;
  return data.map((cells) => {
    const here = line;
    line += 1 + cells.reduce((sum, cell) => sum + (cell.split(/\r\n|\r|\n/).length - 1), 0);
    return here;
  });
}

function rowOf(head: readonly string[], cells: readonly string[], line: number): BookRow {
  if (cells.length > head.length)
    throw new NotABook(`It has ${cells.length} cells; the first line has ${head.length}.`);
  const found: Record<Column['subject'], Record<string, unknown>> = { material: {}, recipe: {} };
  for (const { name, subject, read } of columns()) {
    const index = head.indexOf(name.toLowerCase());
    const cell = (index < 0 ? '' : (cells[index] ?? '')).trim().replace(/^'(?=\s*['=+\-@]|[\t\r\n])/, '');
    if (cell !== '') Object.assign(found[subject], read(cell));
  }
  const { by, on, what, ...plain } = found.recipe;
  const proof = by && on ? { proof: { by, on, what: what ?? '' } } : {};
  // What the rest of a material is does not stand in the table: it is checked as if it did.
  const material = materialFromJson({
    name: 'name',
    thicknessMm: 1,
    tone: '#FFFFFF',
    sheetWidth: 1,
    sheetHeight: 1,
    forbidden: null,
    ...found.material,
  });
  const said = found.material;
  return {
    line,
    material: {
      id: material.id,
      ...(said.family === undefined ? {} : { family: material.family }),
      ...(said.name === undefined ? {} : { name: material.name }),
      ...(said.thicknessMm === undefined ? {} : { thicknessMm: material.thicknessMm }),
    },
    recipe: recipeFromJson({ evidence: 'copied', ...plain, ...proof }),
  };
}
