import type { Item } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import { nameOfRow, type RowList } from '../document/row-list.ts';
import type { Run } from '../document/run.ts';

type Drawn = Pick<JobDocument, 'drawing'>;

/** The groups that were made for the rows of a list, by id; of one row where that is said. */
export function groupsOfList({ drawing }: Drawn, listId: string, rowId?: string): ReadonlySet<string> {
  const isOf = (row: { readonly listId: string; readonly rowId: string }) =>
    row.listId === listId && (rowId === undefined || row.rowId === rowId);
  return new Set(drawing.groups.flatMap(({ id, row }) => (row && isOf(row) ? [id] : [])));
}

/** The items in some groups and in the groups within them, by id. */
export function itemsOfGroups({ drawing }: Drawn, groups: ReadonlySet<string>): ReadonlySet<string> {
  if (groups.size === 0) return new Set();
  const within = new Set(groups);
  for (let size = -1; size !== within.size; ) {
    size = within.size;
    for (const { id, parentId } of drawing.groups) if (parentId !== null && within.has(parentId)) within.add(id);
  }
  return new Set(drawing.items.flatMap(({ id, groupId }) => (groupId !== null && within.has(groupId) ? [id] : [])));
}

/** A row of a list with its number from 1 and what it is called. */
export interface NamedRow {
  readonly listId: string;
  readonly rowId: string;
  readonly number: number;
  readonly name: string;
}

/** The rows that the job has pieces of, list by list in their order. */
export function laidRows(job: Pick<JobDocument, 'drawing' | 'lists'>): NamedRow[] {
  const laid = new Set(job.drawing.groups.flatMap(({ row }) => (row ? [`${row.listId} ${row.rowId}`] : [])));
  return job.lists.flatMap(({ id: listId, rows }) =>
    rows.flatMap((row, i) =>
      laid.has(`${listId} ${row.id}`) ? [{ listId, rowId: row.id, number: i + 1, name: nameOfRow(row, i + 1) }] : [],
    ),
  );
}

/** The items of the design of a list, in their order; none where it has none. */
export function designOf({ drawing }: Drawn, { designId }: Pick<RowList, 'designId'>): readonly Item[] {
  if (designId === null) return [];
  const ids = itemsOfGroups({ drawing }, new Set([designId]));
  return drawing.items.filter(({ id, hidden }) => ids.has(id) && !hidden);
}

const noItems: ReadonlySet<string> = new Set();

/**
 * Where the same places are filled run by run: the items of the fillings that a run does not burn, by id. They lie over those
 * that it burns; in a run that burns none, over those of the first filling.
 */
export function otherFillings({ drawing, runs }: Pick<JobDocument, 'drawing' | 'runs'>, run: Run): ReadonlySet<string> {
  const some = runs.filter(({ only }) => only !== null);
  if (some.length === 0) return noItems;
  const groups = new Set(drawing.groups.flatMap(({ id, row }) => (row ? [id] : [])));
  if (groups.size === 0) return noItems;
  const pieces = itemsOfGroups({ drawing }, groups);
  const burnsPieces = ({ only }: Run) => only?.some((id) => pieces.has(id)) ?? false;
  const filling = burnsPieces(run) ? run : some.find(burnsPieces);
  if (!filling) return noItems;
  const shown = new Set(filling.only);
  return new Set([...pieces].filter((id) => !shown.has(id)));
}
