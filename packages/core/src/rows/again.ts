import type { Item } from '../document/item.ts';
import type { JobDocument } from '../document/job.ts';
import type { Run } from '../document/run.ts';
import { isOnSheetOf } from '../document/run-sheets.ts';
import { isBurnt } from '../operations/operations.ts';
import type { PreparedJob } from '../plan/prepare.ts';
import { groupsOfList, itemsOfGroups, type NamedRow } from './pieces.ts';

type Meant = Pick<PreparedJob, 'job' | 'meaning'>;

/** By the id of a layer that burns, what of some items is on it. */
function onLayers({ meaning }: Pick<Meant, 'meaning'>, ids: ReadonlySet<string>): ReadonlyMap<string, readonly Item[]> {
  const layers = new Map<string, Item[]>();
  for (const { id, operation } of meaning.layers) {
    if (!isBurnt(operation)) continue;
    const own = (meaning.placed.get(id) ?? []).flatMap(({ item }) => (ids.has(item.id) ? [item] : []));
    if (own.length > 0) layers.set(id, own);
  }
  return layers;
}

/** Whether a run burns a layer that any of some items is on. */
export function burnsLayersOf(meant: Pick<Meant, 'meaning'>, ids: ReadonlySet<string>): (run: Run) => boolean {
  const layers = [...onLayers(meant, ids).keys()];
  return ({ off }) => layers.some((id) => !off.includes(id));
}

/** Whether a run burns any of some items, by its layers, its items and its sheet. */
function burnsAny(meant: Meant, ids: ReadonlySet<string>): (run: Run) => boolean {
  const { job } = meant;
  const layers = onLayers(meant, ids);
  return (run) => {
    const isThere = isOnSheetOf(job, run);
    const only = run.only && new Set(run.only);
    const burns = (item: Item) => (!only || only.has(item.id)) && (!isThere || isThere(item));
    return [...layers].some(([id, items]) => !run.off.includes(id) && items.some(burns));
  };
}

/**
 * A job with runs that burn one row of a list once more, and nothing else: one for each run that burns it. They land where
 * those do, on a fresh piece of stock.
 *
 * @returns with it the id of the first of them; null where no run burns the row
 */
export function burnRowAgain(
  prepared: Meant,
  { listId, rowId }: NamedRow,
  nameRun: (run: Run, isOnly: boolean) => string,
  newId: () => string,
): { job: JobDocument; runId: string | null } {
  const { job } = prepared;
  const ids = itemsOfGroups(job, groupsOfList(job, listId, rowId));
  const only = [...ids];
  const isAlone = (run: Run) => run.only?.length === only.length && run.only.every((id) => ids.has(id));
  const known = job.runs.find(isAlone);
  if (known) return { job, runId: known.id };
  const burning = job.runs.filter(burnsAny(prepared, ids));
  const again = burning.map((run): Run => ({ ...run, id: newId(), name: nameRun(run, burning.length === 1), only }));
  return { job: { ...job, runs: [...job.runs, ...again] }, runId: again[0]?.id ?? null };
}
