import type { Item, JobDocument } from '@lambent/core';

/**
 * A job as it differs from the one before it. A large drawing is not sent to a worker again with every
 * edit: only the items that changed are, and the order of all by their places in the last one.
 */
export interface JobDiff {
  readonly rest: Omit<JobDocument, 'drawing'>;
  readonly groups: JobDocument['drawing']['groups'];
  /** By place: which item of the last job stands there; -1 for the next of `fresh`. */
  readonly order: Int32Array;
  readonly fresh: readonly Item[];
}

export function diffJob(last: JobDocument | null, job: JobDocument): JobDiff {
  const { drawing, ...rest } = job;
  const places = new Map((last?.drawing.items ?? []).map((item, i) => [item, i]));
  const fresh: Item[] = [];
  const order = Int32Array.from(drawing.items, (item) => {
    const known = places.get(item);
    if (known === undefined) fresh.push(item);
    return known ?? -1;
  });
  return { rest, groups: drawing.groups, order, fresh };
}

export function applyDiff(last: JobDocument | null, { rest, groups, order, fresh }: JobDiff): JobDocument {
  let next = 0;
  const items = Array.from(order, (place) => (place < 0 ? fresh[next++] : (last as JobDocument).drawing.items[place]));
  return { ...rest, drawing: { items, groups } };
}
