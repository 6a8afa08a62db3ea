import type { Item } from '@lambent/core';
import { fileWorker } from '../../workers/bench.ts';

/** Items as a border takes them: of pictures with what shows of them found. */
export function borderSources(items: readonly Item[]): Promise<Item[]> {
  return Promise.all(
    items.map(async (item) => {
      if (item.shape.kind !== 'picture' || item.shape.visible) return item;
      const visible = await fileWorker().visiblePart(item.shape.pictureId);
      return { ...item, shape: { ...item.shape, visible } };
    }),
  );
}
