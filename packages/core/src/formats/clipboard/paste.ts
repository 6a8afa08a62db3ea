import { deriveMeaning } from '../../colours/derive.ts';
import { type ColourKey, type Layer, layersUnder } from '../../colours/key.ts';
import type { Group, Item } from '../../document/item.ts';
import type { JobDocument } from '../../document/job.ts';
import { addItems } from '../../edits/items.ts';
import { multiply, translation } from '../../geometry/paths/matrix.ts';
import type { Copied } from './copied.ts';

/** A layer that items were on, where a job has none like it. */
export interface Unmatched {
  readonly from: Layer;
  /** The layer that they are on now; null for none. */
  readonly to: Layer | null;
  readonly count: number;
}

export interface Pasted {
  readonly job: JobDocument;
  readonly ids: readonly string[];
  /** Empty where every item means what it meant. */
  readonly unmatched: readonly Unmatched[];
}

/**
 * Adds what was copied to a job, moved by so many mm. Its items mean what they meant. One that the job's own key puts on a
 * layer of the same operation and name is left to the key. Others are pinned to the layer that is most like theirs.
 */
export function pasteInto(
  job: JobDocument,
  key: ColourKey,
  { drawing, layers }: Copied,
  { dx, dy }: { readonly dx: number; readonly dy: number },
  newId: () => string,
): Pasted {
  const newGroups = new Map(drawing.groups.map(({ id }) => [id, newId()]));
  const groups = drawing.groups.map(({ id, name, parentId }): Group => {
    const parent = parentId === null ? null : (newGroups.get(parentId) ?? null);
    return { id: newGroups.get(id) as string, name, parentId: parent };
  });
  const before = new Map<string, Layer[]>();
  for (const { layer, itemIds } of layers) {
    for (const id of itemIds) before.set(id, [...(before.get(id) ?? []), layer]);
  }
  const newIds = new Map(drawing.items.map(({ id }) => [id, newId()]));
  const plain = drawing.items.map(
    ({ also: _, ...item }): Item => ({
      ...item,
      id: newIds.get(item.id) as string,
      groupId: item.groupId === null ? null : (newGroups.get(item.groupId) ?? null),
      matrix: multiply(translation(dx, dy), item.matrix),
      pinned: null,
    }),
  );
  const byKey = layersOfItems(addItems(job, plain, groups), key);
  const known = layersUnder(key, job.layers);
  const unmatched = new Map<string, Unmatched>();
  const items = plain.map((item, i): Item => {
    const meant = before.get(drawing.items[i].id) ?? [];
    const given = byKey.get(item.id) ?? [];
    if (meant.length === given.length && meant.every((layer) => given.some((other) => isAlike(layer, other))))
      return item;
    // On no layer it was, and on none it stays as far as the key goes.
    if (meant.length === 0) return item;
    const found = meant.map((layer) => mostAlike(layer, known));
    for (const [place, layer] of meant.entries()) {
      const to = found[place];
      if (to && isAlike(layer, to)) continue;
      const name = `${layer.id} ${to?.id}`;
      unmatched.set(name, { from: layer, to, count: (unmatched.get(name)?.count ?? 0) + 1 });
    }
    const [first, second] = found.filter((layer) => layer !== null);
    if (!first) return item;
    return { ...item, pinned: first.id, ...(second && second !== first ? { also: second.id } : {}) };
  });
  return {
    job: addItems(job, items, groups),
    ids: items.map(({ id }) => id),
    unmatched: [...unmatched.values()],
  };
}

function layersOfItems(job: JobDocument, key: ColourKey): Map<string, Layer[]> {
  const { layers, placed } = deriveMeaning(job, key);
  const found = new Map<string, Layer[]>();
  for (const layer of layers) {
    for (const { item } of placed.get(layer.id) ?? []) found.set(item.id, [...(found.get(item.id) ?? []), layer]);
  }
  return found;
}

function isAlike(a: Layer, b: Layer): boolean {
  return a.operation === b.operation && a.name.toLowerCase() === b.name.toLowerCase();
}

/** The layer of the same operation and name, else the first of the same operation; null where there is none. */
function mostAlike(layer: Layer, known: readonly Layer[]): Layer | null {
  return (
    known.find((other) => isAlike(layer, other)) ?? known.find(({ operation }) => operation === layer.operation) ?? null
  );
}
