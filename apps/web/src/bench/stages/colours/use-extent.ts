import { type Extent, extentOf, type PaintUse } from '@lambent/core/colours';
import { type Item, type JobDocument, verbsOf } from '@lambent/core/document';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { measured } from '../../../workers/work.ts';

/** Of more lines and curves than this a worker finds what they come to. */
const farFrom = 20_000;

/** What a paint's items come to; of many, null until a worker has measured them. */
export function useExtent(use: PaintUse, job: JobDocument, byId: ReadonlyMap<string, Item>): Extent | null {
  const items = useMemo(() => use.itemIds.flatMap((id) => byId.get(id) ?? []), [use.itemIds, byId]);
  const isFar = verbsOf(items) > farFrom;
  const far = useQuery({
    queryKey: ['extent', nameOfList(items)],
    queryFn: () => measured(job, use),
    enabled: isFar,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 0,
  });
  return isFar ? (far.data ?? null) : extentOf(items);
}

const names = new WeakMap<readonly Item[], number>();
let named = 0;

/** Tells lists of items apart. */
function nameOfList(items: readonly Item[]): number {
  const name = names.get(items) ?? ++named;
  names.set(items, name);
  return name;
}
