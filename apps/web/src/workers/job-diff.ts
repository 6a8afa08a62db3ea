import type { Item, JobDocument } from '@lambent/core/document';
import type { Matrix } from '@lambent/core/geometry';

/**
 * A job as it differs from the one before it. A large drawing is not sent to a worker again with every edit: only the
 * items that changed are, and the order of all by their places in the last one.
 */
export interface JobDiff {
  readonly rest: Omit<JobDocument, 'drawing'>;
  /** Null where they are those of the last job. */
  readonly groups: JobDocument['drawing']['groups'] | null;
  /**
   * By place: which item stands there. That of the last job with this place; past its last place, one of those sent
   * ahead; -1 for the next of `fresh`. Null where each stands where it stood.
   */
  readonly order: Int32Array | null;
  readonly fresh: readonly Item[];
  /** Items that stand where they stood, and are what they were but for their matrices: of each its place and six numbers. */
  readonly places: Int32Array;
  readonly matrices: Float64Array;
}

/** @param ahead items that were sent ahead of this, by their places in that list */
export function diffJob(
  last: JobDocument | null,
  job: JobDocument,
  ahead: ReadonlyMap<Item, number> = new Map(),
): JobDiff {
  const { drawing, ...rest } = job;
  const { items } = drawing;
  const before = last?.drawing.items ?? [];
  const groups = last && last.drawing.groups === drawing.groups ? null : drawing.groups;
  const fresh: Item[] = [];
  const places: number[] = [];
  const order = new Int32Array(items.length);
  let stands = items.length === before.length;
  let elsewhere: Map<Item, number> | null = null;
  for (let i = 0; i < items.length; i++) {
    const item = items[i];
    order[i] = i;
    if (item === before[i]) continue;
    if (i < before.length && isOnlyMoved(before[i], item)) {
      places.push(i);
      continue;
    }
    stands = false;
    elsewhere ??= notIn(before, items);
    const sent = ahead.get(item);
    order[i] = elsewhere.get(item) ?? (sent === undefined ? -1 : before.length + sent);
    if (order[i] < 0) fresh.push(item);
  }
  const matrices = new Float64Array(6 * places.length);
  let index = 0;
  // One by one: a list is put into typed numbers far more slowly as a whole.
  for (const place of places) for (const number of items[place].matrix) matrices[index++] = number;
  return { rest, groups, order: stands ? null : order, fresh, places: Int32Array.from(places), matrices };
}

/** The items of a list that do not stand at the same place in another one, with their places. */
function notIn(before: readonly Item[], items: readonly Item[]): Map<Item, number> {
  const places = new Map<Item, number>();
  for (let i = 0; i < before.length; i++) {
    const now = items[i];
    if (now !== before[i] && !(now && isOnlyMoved(before[i], now))) places.set(before[i], i);
  }
  return places;
}

function isOnlyMoved(before: Item, item: Item): boolean {
  if (before.shape !== item.shape || before.id !== item.id) return false;
  return agree(before, item) && agree(item, before);
}

/** Whether another item has everything that this one has, but for its matrix. */
function agree(item: Item, other: Item): boolean {
  for (const name in item) {
    if (name !== 'matrix' && item[name as keyof Item] !== other[name as keyof Item]) return false;
  }
  return true;
}

/** @param ahead the items that were sent ahead of this, in order */
export function applyDiff(last: JobDocument | null, diff: JobDiff, ahead: readonly Item[] = []): JobDocument {
  const { rest, groups, order, fresh, places, matrices } = diff;
  const known = last?.drawing ?? { items: [], groups: [] };
  const before = known.items.length;
  let next = 0;
  const itemAt = (place: number) => {
    if (place < 0) return fresh[next++];
    return place < before ? known.items[place] : ahead[place - before];
  };
  let { items } = known;
  if (order || places.length > 0) {
    const made = order ? Array.from(order, itemAt) : [...items];
    places.forEach((place, i) => {
      made[place] = { ...made[place], matrix: matrixAt(matrices, 6 * i) };
    });
    items = made;
  }
  return { ...rest, drawing: { items, groups: groups ?? known.groups } };
}

function matrixAt(m: Float64Array, offset: number): Matrix {
  return [m[offset], m[offset + 1], m[offset + 2], m[offset + 3], m[offset + 4], m[offset + 5]];
}
