import { deriveMeaning, type Placed } from '../colours/derive.ts';
import { type ColourKey, keyInShop } from '../colours/key.ts';
import type { Drawing, Group, Item } from '../document/item.ts';
import { type JobDocument, newJob } from '../document/job.ts';
import { addItems, withoutEmptyGroups } from '../edits/items.ts';
import { gather } from '../lists/gather.ts';
import { isBurnt } from '../operations/operations.ts';
import { prepareJob } from '../plan/prepare.ts';
import type { Shop } from '../recipes/book/shop.ts';
import { groupOfPart, idInPart } from './part-ids.ts';
import { SharedLayers } from './shared-layers.ts';

/** A job that is burnt with others, once or more often. */
export interface SharedPart {
  readonly name: string;
  readonly job: JobDocument;
  readonly copies: number;
}

/** A layer that something burns on, and by which halves of its paint. */
type Use = Pick<Placed, 'parts'> & { readonly layerId: string };
type Lists = Pick<Shop, 'machines' | 'keys' | 'materials'>;

/** What an item of a job became, by its id; what does not burn did not become anything. */
type Became = ReadonlyMap<string, readonly Item[]>;

/**
 * One job of all that burns of several: each copy of each in a group of its own, with what it burns with. Nothing is moved, and it
 * has no sheets yet. Its machine, lens and key are those of the first.
 *
 * @throws RangeError where there are no jobs, or the shop has no key
 */
export function mergeJobs(parts: readonly SharedPart[], shop: Lists): JobDocument {
  const first = parts[0]?.job;
  const key = first && keyInShop(shop.keys, first.keyId);
  if (!key) throw new RangeError('mergeJobs: there is no job, or no colour key');
  const table = new SharedLayers(key);
  const uses = parts.map(({ job, name }) => usesOf(job, name, shop, table));
  const { unit, lensId } = first;
  const empty: JobDocument = { ...newJob(first.machineId, key.id), unit, lensId, ...table.ofJob() };
  const all = parts.flatMap(({ name, job, copies }, part) => {
    const became = itemsOf(job, uses[part], empty, key);
    return Array.from({ length: copies }, (_, copy) =>
      copyOf(job, became, { part, copy, called: copies > 1 ? `${name}, ${copy + 1} of ${copies}` : name }),
    );
  });
  return {
    ...addItems(
      empty,
      all.flatMap(({ items }) => items),
      all.flatMap(({ groups }) => groups),
    ),
    starts: all.flatMap(({ starts }) => starts),
    tabs: all.flatMap(({ tabs }) => tabs),
    numbered: all.flatMap(({ numbered }) => numbered),
    flips: all.flatMap(({ flips }) => flips),
  };
}

/** By item: the layers of the shared job that it burns on in one run of its own or another. */
function usesOf(job: JobDocument, owner: string, shop: Lists, table: SharedLayers): Map<string, Use[]> {
  const uses = new Map<string, Use[]>();
  for (const { id: runId } of job.runs) {
    for (const layer of prepareJob(job, shop, { runId }).layers) {
      if (!isBurnt(layer.layer.operation) || layer.placed.length === 0) continue;
      const layerId = table.idFor(layer, job, owner);
      for (const { item, parts } of layer.placed) {
        if (!uses.get(item.id)?.some((use) => use.layerId === layerId)) gather(uses, item.id, { layerId, parts });
      }
    }
  }
  return uses;
}

/** The items of a job that burn, and the borders of what is flipped, put on the layers of the shared one. */
function itemsOf(job: JobDocument, uses: ReadonlyMap<string, Use[]>, empty: JobDocument, key: ColourKey): Became {
  const borders = new Set(job.flips.map(({ borderId }) => borderId));
  const plain = job.drawing.items
    .filter(({ id }) => uses.has(id) || borders.has(id))
    .map(({ also: _, part: __, choice: ___, locked: ____, ...item }): Item => ({ ...item, pinned: null }));
  const { layers, placed } = deriveMeaning({ ...empty, drawing: { items: plain, groups: [] } }, key);
  const byKey = new Map<string, Use[]>();
  for (const { id: layerId, operation } of layers) {
    if (!isBurnt(operation)) continue;
    for (const { item, parts } of placed.get(layerId) ?? []) gather(byKey, item.id, { layerId, parts });
  }
  const before = new Map(job.drawing.items.map((item) => [item.id, item]));
  return new Map(
    plain.map((item) => {
      const [meant, given] = [uses.get(item.id) ?? [], byKey.get(item.id) ?? []];
      const isAsKeyed =
        meant.length === given.length && meant.every((use) => given.some((other) => isSame(use, other)));
      if (isAsKeyed || meant.length === 0) return [item.id, [item]];
      const isTwice = before.get(item.id)?.also !== undefined && meant.length === 2;
      return [item.id, isTwice ? [pinnedTwice(item, meant)] : meant.map((use, i) => pinnedBy(item, use, i))];
    }),
  );
}

function isSame(a: Use, b: Use): boolean {
  return (
    a.layerId === b.layerId && a.parts.length === b.parts.length && a.parts.every((part) => b.parts.includes(part))
  );
}

/** On the layer that takes most of its paint, and on the other as well. */
function pinnedTwice(item: Item, uses: readonly Use[]): Item {
  const [main, also] = uses.toSorted((a, b) => b.parts.length - a.parts.length);
  return { ...item, pinned: main.layerId, also: also.layerId };
}

/** One layer's half of an item; the other half is an item of its own. */
function pinnedBy(item: Item, { layerId, parts }: Use, nth: number): Item {
  const { paint } = item;
  const isPainted = paint.stroke !== null || paint.fill !== null;
  const { fade: _, ...unfaded } = paint;
  const stroked = { ...unfaded, fill: null };
  const filled = { ...paint, stroke: null };
  const isWhole = !isPainted || parts.length === 2;
  const half = parts.includes('stroke') ? stroked : filled;
  return { ...item, id: nth === 0 ? item.id : `${item.id}+${nth}`, paint: isWhole ? paint : half, pinned: layerId };
}

/** What one copy of a job adds to the shared one. */
function copyOf(
  job: JobDocument,
  became: Became,
  { part, copy, called }: { readonly part: number; readonly copy: number; readonly called: string },
): Pick<JobDocument, 'starts' | 'tabs' | 'numbered' | 'flips'> & Pick<Drawing, 'items' | 'groups'> {
  const named = (id: string) => idInPart(part, copy, id);
  const root: Group = { id: groupOfPart(part, copy), name: called, parentId: null };
  const known = new Set(job.drawing.groups.map(({ id }) => id));
  const within = (groupId: string | null) => (groupId !== null && known.has(groupId) ? named(groupId) : root.id);
  const groups = job.drawing.groups.map(
    ({ id, name, parentId }): Group => ({ id: named(id), name, parentId: within(parentId) }),
  );
  const items = [...became.values()].flat().map(
    (item): Item => ({
      ...item,
      id: named(item.id),
      groupId: within(item.groupId),
      ...(item.link === undefined ? {} : { link: named(item.link) }),
    }),
  );
  const idsOf = (id: string) => (became.get(id) ?? []).map((item) => named(item.id));
  const ofEach = <T extends { readonly itemId: string }>(list: readonly T[]) =>
    list.flatMap((entry) => idsOf(entry.itemId).map((itemId) => ({ ...entry, itemId })));
  return {
    items,
    groups: withoutEmptyGroups([root, ...groups], items),
    starts: ofEach(job.starts),
    tabs: ofEach(job.tabs),
    numbered: job.numbered.flatMap(idsOf),
    flips: job.flips.map((flip) => ({
      ...flip,
      id: named(flip.id),
      itemIds: flip.itemIds.flatMap(idsOf),
      borderId: named(flip.borderId),
    })),
  };
}
