import type { Item, JobDocument } from '@lambent/core';

/**
 * A job as it differs from the one before it. A large drawing is not sent to a worker again with every
 * edit: only the items that changed are, and the order of all by their places in the last one.
 */
export interface JobDiff {
  readonly rest: Omit<JobDocument, 'drawing'>;
  /** Null where they are those of the last job. */
  readonly groups: JobDocument['drawing']['groups'] | null;
  /** By place: which item of the last job stands there; -1 for the next of `fresh`. Null where each stands where it stood. */
  readonly order: Int32Array | null;
  readonly fresh: readonly Item[];
}

export function diffJob(last: JobDocument | null, job: JobDocument): JobDiff {
  const { drawing, ...rest } = job;
  const { items } = drawing;
  const before = last?.drawing.items ?? [];
  const groups = last && last.drawing.groups === drawing.groups ? null : drawing.groups;
  if (last && items === before) return { rest, groups, order: null, fresh: [] };
  // Most items stand where they stood: only the others are looked for.
  const moved = new Map<Item, number>();
  for (let i = 0; i < before.length; i++) if (before[i] !== items[i]) moved.set(before[i], i);
  const fresh: Item[] = [];
  const order = new Int32Array(items.length);
  for (let i = 0; i < items.length; i++) {
    const item = items[i];
    const known = i < before.length && before[i] === item ? i : moved.get(item);
    if (known === undefined) fresh.push(item);
    order[i] = known ?? -1;
  }
  return { rest, groups, order, fresh };
}

/**
 * What to tell a worker, one after the other, before it is told of a job that has more new items than are to go at once:
 * the job with ever more of them, but for the last ones.
 */
export function* jobsAhead(told: JobDocument | null, job: JobDocument, atOnce: number): Generator<JobDocument> {
  const { drawing } = job;
  if (drawing.items.length <= atOnce || drawing.items === told?.drawing.items) return;
  const known = new Set(told?.drawing.items);
  const isKnown = drawing.items.map((item) => known.has(item));
  const fresh = isKnown.reduce((sum, one) => sum + (one ? 0 : 1), 0);
  for (let upTo = atOnce; upTo < fresh; upTo += atOnce) {
    let seen = 0;
    const items = drawing.items.filter((_, i) => isKnown[i] || ++seen <= upTo);
    yield { ...job, drawing: { ...drawing, items } };
  }
}

export function applyDiff(last: JobDocument | null, { rest, groups, order, fresh }: JobDiff): JobDocument {
  const known = last?.drawing ?? { items: [], groups: [] };
  let next = 0;
  const items = order ? Array.from(order, (place) => (place < 0 ? fresh[next++] : known.items[place])) : known.items;
  return { ...rest, drawing: { items, groups: groups ?? known.groups } };
}
