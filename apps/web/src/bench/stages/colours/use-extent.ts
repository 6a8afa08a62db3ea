import { type Extent, extentOf, type PaintUse } from '@lambent/core/colours';
import { type Item, type JobDocument, verbsOf } from '@lambent/core/document';
import { useQuery } from '@tanstack/react-query';
import { useDeferredValue, useMemo } from 'react';
import { measured } from '../../../workers/work.ts';

/** Of more lines and curves than this a worker finds what they come to. */
const farFrom = 20_000;

const noItems: readonly Item[] = [];

/** What a paint's items come to: null until they have been measured, after the list is shown, and of many by a worker. */
export function useExtent(use: PaintUse, job: JobDocument): Extent | null {
  const all = job.drawing.items;
  // So many need not be counted.
  const items = useMemo(() => (use.itemIds.length > farFrom ? null : itemsOf(use, all)), [use, all]);
  const isFar = items === null || verbsOf(items) > farFrom;
  const far = useQuery({
    queryKey: ['extent', nameOfList(items ?? all), use.part, use.colour, use.widthMm],
    queryFn: () => measured(job, use),
    enabled: isFar,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 0,
  });
  const near = useDeferredValue(isFar ? noItems : items, noItems);
  if (isFar) return far.data ?? null;
  return near === noItems ? null : extentOf(near);
}

const byIds = new WeakMap<readonly Item[], ReadonlyMap<string, Item>>();

/** The items of a paint; `all` are looked through once. */
function itemsOf({ itemIds }: PaintUse, all: readonly Item[]): Item[] {
  const byId = byIds.get(all) ?? new Map(all.map((item) => [item.id, item]));
  byIds.set(all, byId);
  return itemIds.flatMap((id) => byId.get(id) ?? []);
}

const names = new WeakMap<readonly Item[], number>();
let named = 0;

/** Tells lists of items apart. */
function nameOfList(items: readonly Item[]): number {
  const name = names.get(items) ?? ++named;
  names.set(items, name);
  return name;
}
