import { boundsOf, boundsOfAll, type Item } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { nameOfRow, type Row, type RowList } from '../document/row-list.ts';
import { boxCentre, boxHeight, boxWidth, isEmpty } from '../geometry/paths/box.ts';
import { type Matrix, multiply, scaling, translation } from '../geometry/paths/matrix.ts';

/** What was brought in with each file, by the file's name in small letters, with its ending and without. */
export type FilesBroughtIn = ReadonlyMap<string, readonly Item[]>;

/** The files that a job has things of, the one brought in last where two are called alike. Those are on the bed or beside it. */
export function filesBroughtIn({ arrivals, drawing }: Pick<JobDocument, 'arrivals' | 'drawing'>): FilesBroughtIn {
  const files = new Map<string, readonly Item[]>();
  if (arrivals.length === 0) return files;
  for (const { id, file } of arrivals) {
    const items = drawing.items.filter((item) => item.id.startsWith(`${id}-`) && !item.hidden);
    if (items.length === 0) continue;
    const name = file.toLowerCase();
    files.set(name, items);
    files.set(name.replace(/\.[^.]+$/, ''), items);
  }
  return files;
}

/**
 * What stands in the place of an item of the design in one row: what came with the file that the row names, as large as it fits
 * into the item's bounds, in the middle of them.
 *
 * @returns null where the row names none, or one that was not brought in
 */
export function chosenArt(
  place: Item,
  { columns, row, files }: { columns: RowList['columns']; row: Row; files: FilesBroughtIn },
): readonly Item[] | null {
  const name = row.cells[columns.indexOf(place.choice ?? '')]?.trim().toLowerCase();
  const art = name ? files.get(name) : undefined;
  if (!art) return null;
  const map = mapInto(art, place);
  return map && art.map((item) => ({ ...item, matrix: multiply(map, item.matrix) }));
}

/** What rows choose from, each once: it is no part of any piece as it lies. */
export function artSources(
  design: readonly Item[],
  { columns, rows }: Pick<RowList, 'columns' | 'rows'>,
  files: FilesBroughtIn,
): readonly Item[] {
  const chosen = design.flatMap(({ choice }) => (choice === undefined ? [] : [columns.indexOf(choice)]));
  const names = rows.flatMap(({ cells }) => chosen.map((column) => cells[column]?.trim().toLowerCase() ?? ''));
  return [...new Set([...new Set(names)].flatMap((name) => files.get(name) ?? []))];
}

/** From where items lie into the bounds of another; null where they have no extent. */
function mapInto(items: readonly Item[], place: Item): Matrix | null {
  const [from, into] = [boundsOfAll(items), boundsOf(place)];
  if (isEmpty(from) || isEmpty(into)) return null;
  const shares = [boxWidth(into) / boxWidth(from), boxHeight(into) / boxHeight(from)].filter(Number.isFinite);
  const scale = shares.length > 0 ? Math.min(...shares) : 1;
  const [start, end] = [boxCentre(from), boxCentre(into)];
  return multiply(translation(end.x, end.y), multiply(scaling(scale, scale), translation(-start.x, -start.y)));
}

/** Rows that name a file which was not brought in, or none at all, in sentences. */
export function missingArt(
  design: readonly Item[],
  { columns, rows }: Pick<RowList, 'columns' | 'rows'>,
  files: FilesBroughtIn,
): { readonly rowId: string; readonly message: string }[] {
  const places = design.filter(({ choice }) => choice !== undefined);
  return rows.flatMap((row, i) =>
    places
      .filter((place) => chosenArt(place, { columns, row, files }) === null)
      .map(({ choice = '' }) => {
        const cell = row.cells[columns.indexOf(choice)]?.trim() ?? '';
        const where = `Row ${i + 1}, “${nameOfRow(row, i + 1)}”`;
        const message =
          cell === ''
            ? `${where}: no file is named under ${choice}. Its place stays empty.`
            : `${where}: no file “${cell}” was brought in. Its place stays empty.`;
        return { rowId: row.id, message };
      }),
  );
}
