import { useMemo } from 'react';
import { useBench } from './context.ts';

/**
 * Whether all items of a row are selected. Rows may stand for all of a drawing: they are gone through when the selection
 * changes, not with every change of state.
 */
export function useIsSelected(ids: readonly string[]): boolean {
  const selection = useBench((state) => state.selection);
  return useMemo(() => ids.length <= selection.size && ids.every((id) => selection.has(id)), [ids, selection]);
}

/** Whether the pointer is over one of a row's items on the bed. */
export function useIsUnder(ids: readonly string[]): boolean {
  const under = useBench((state) => state.under);
  return useMemo(() => under.size > 0 && ids.some((id) => under.has(id)), [ids, under]);
}
