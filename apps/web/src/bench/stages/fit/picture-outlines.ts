import type { Item } from '@lambent/core/document';
import { work } from '../../../workers/work.ts';

/** Items as a border takes them: of pictures with what shows of them found. */
export function borderSources(items: readonly Item[], signal: AbortSignal): Promise<Item[]> {
  return Promise.all(
    items.map(async (item) => {
      if (item.shape.kind !== 'picture' || item.shape.visible) return item;
      const visible = await work('visiblePart', [item.shape.pictureId], { signal });
      return { ...item, shape: { ...item.shape, visible } };
    }),
  );
}
