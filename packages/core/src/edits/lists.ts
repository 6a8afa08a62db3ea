import { topGroupOf } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import type { RowList } from '../document/row-list.ts';
import { groupItems } from './arrange.ts';

/** Adds a list, or changes the one with the same id. */
export function setList(job: JobDocument, list: RowList): JobDocument {
  const isKnown = job.lists.some(({ id }) => id === list.id);
  return {
    ...job,
    lists: isKnown ? job.lists.map((known) => (known.id === list.id ? list : known)) : [...job.lists, list],
  };
}

/** The job without a list. Its design, and the pieces that were laid for its rows, stay as plain drawings. */
export function removeList(job: JobDocument, listId: string): JobDocument {
  const groups = job.drawing.groups.map(({ row, ...group }) =>
    row && row.listId !== listId ? { ...group, row } : group,
  );
  return { ...job, lists: job.lists.filter(({ id }) => id !== listId), drawing: { ...job.drawing, groups } };
}

/** Makes items the design of a list: the group that they are, or a new one of that id. */
export function chooseDesign(job: JobDocument, list: RowList, ids: ReadonlySet<string>, groupId: string): JobDocument {
  const items = job.drawing.items.filter(({ id }) => ids.has(id));
  const [first] = items;
  if (!first) return job;
  const group = topGroupOf(job.drawing, first);
  const isOneGroup = group && items.every((item) => topGroupOf(job.drawing, item) === group);
  if (isOneGroup) return setList(job, { ...list, designId: group.id });
  return setList(groupItems(job, ids, groupId, list.name), { ...list, designId: groupId });
}
