import Flatbush from 'flatbush';
import type { Box } from './box.ts';

/** An index over boxes, to find those near a place by their places in the list; null for no boxes. */
export function indexBoxes(boxes: readonly Box[]): Flatbush | null {
  if (boxes.length === 0) return null;
  const index = new Flatbush(boxes.length);
  for (const { minX, minY, maxX, maxY } of boxes) index.add(minX, minY, maxX, maxY);
  index.finish();
  return index;
}
