import { type Box, boxHeight, boxWidth } from '../geometry/paths/box.ts';
import { type Matrix, translation } from '../geometry/paths/matrix.ts';
import { pathBounds } from '../geometry/paths/path.ts';
import type { Part } from './builder.ts';

/**
 * Lays parts in rows, the highest first: beside each other as far as the width goes, rows below each other. A part that is
 * wider than that has a row of its own.
 *
 * @param gapMm between parts and between rows
 * @returns where each part's middle goes, from (0, 0), and what all of them take
 */
export function inRows(
  parts: readonly Pick<Part, 'cut'>[],
  widthMm: number,
  gapMm: number,
): { places: Matrix[]; bounds: Box } {
  let [x, y, rowHeight, widest] = [0, 0, 0, 0];
  const places: Matrix[] = new Array(parts.length);
  const boxes = parts.map(({ cut }, i) => ({ i, box: pathBounds(cut) }));
  for (const { i, box } of boxes.sort((a, b) => boxHeight(b.box) - boxHeight(a.box))) {
    const [width, height] = [boxWidth(box), boxHeight(box)];
    if (x > 0 && x + width > widthMm) [x, y, rowHeight] = [0, y + rowHeight + gapMm, 0];
    places[i] = translation(x - box.minX, y - box.minY);
    widest = Math.max(widest, x + width);
    x += width + gapMm;
    rowHeight = Math.max(rowHeight, height);
  }
  return { places, bounds: { minX: 0, minY: 0, maxX: widest, maxY: y + rowHeight } };
}
